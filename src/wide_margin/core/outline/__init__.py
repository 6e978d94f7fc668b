"""Outline: the sections of a document, where they start and end, and how we know."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
