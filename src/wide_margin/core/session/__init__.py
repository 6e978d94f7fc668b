"""Session: a document open, the workers that read and draw it, and what was read before."""

from wide_margin.core.session.model import FoundHit, ReadSummary, SectionSummary
from wide_margin.core.session.session import Session

__all__ = ["FoundHit", "ReadSummary", "SectionSummary", "Session"]
