"""Search: our own ranking of passages and sentences, and exact find."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
