"""Session: a document open, the workers that read and draw it, and what was read before."""

from wide_margin.core.session.model import FoundHit, ReadSummary
from wide_margin.core.session.places import Place, read_place
from wide_margin.core.session.session import Session

__all__ = ["FoundHit", "Place", "ReadSummary", "Session", "read_place"]
