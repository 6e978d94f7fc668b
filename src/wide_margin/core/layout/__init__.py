"""Layout: from characters with boxes to lines and paragraphs in reading order."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
