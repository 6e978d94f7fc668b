"""Explain a selection from the document itself, and take its sentences apart."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
