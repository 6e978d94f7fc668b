"""What is kept in the margin: entries, where they are anchored, and the store."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
