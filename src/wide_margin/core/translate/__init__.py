"""Translate a text sentence by sentence, pair the two, check them, remember what was corrected."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
