"""The digest: what a document is, its gist, its sections line by line, its terms."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
