"""Outside services over open protocols, each with a stand-in that ships."""

import lazy_loader

__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
