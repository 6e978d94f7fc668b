"""Pages of a PDF: the only package that knows PDFium; it runs in worker processes."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
