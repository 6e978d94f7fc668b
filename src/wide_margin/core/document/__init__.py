"""A document that has been read, and the places in it: every module above asks this room."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
