"""Passages: sentences with their place, and windows of them that a question is ranked over."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
