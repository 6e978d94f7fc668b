"""Taking things away from a document, and bringing an outline back in, in open formats."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
