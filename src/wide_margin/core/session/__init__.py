"""Session: a document open, the workers that read and draw it, and what was read before.

Names are loaded when they are first used: the page worker runs modules of this package, and must
not wait for what only the reading of a whole document needs.
"""

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from wide_margin.core.document import ParagraphText, Place, read_place
    from wide_margin.core.session.model import FoundHit, ReadSummary
    from wide_margin.core.session.requests import DigestRequest
    from wide_margin.core.session.session import Session

__all__ = [
    "DigestRequest", "FoundHit", "ParagraphText", "Place", "ReadSummary", "Session", "read_place",
]  # fmt: skip

_HERE = "wide_margin.core.session"
_PLACES = "wide_margin.core.document.places"
_TEXTS = "wide_margin.core.document.texts"
_HOMES = {
    "Session": f"{_HERE}.session", "DigestRequest": f"{_HERE}.requests",
    "Place": _PLACES, "read_place": _PLACES, "ParagraphText": _TEXTS,
}  # fmt: skip


def __getattr__(name: str) -> Any:
    if name not in __all__:
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    return getattr(import_module(_HOMES.get(name, f"{_HERE}.model")), name)
