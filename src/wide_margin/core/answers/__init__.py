"""Answers: a question read, the excerpts that bear on it, and the sentences that answer."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
