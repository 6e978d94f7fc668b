"""What entries are, and the states they go through."""

from enum import StrEnum


class EntryKind(StrEnum):
    """What is kept in the margin."""

    QUESTION = "question"
    EXPLANATION = "explanation"
    TRANSLATION = "translation"
    MARK = "mark"
    NOTE = "note"
    CUTTING = "cutting"


class Ink(StrEnum):
    """What a mark means; each has a colour and an edge of its own."""

    CLAIM = "claim"
    DOUBT = "doubt"
    PROCEDURE = "procedure"
    WORDING = "wording"
    FIGURE = "figure"
    LATER = "later"


class MarkForm(StrEnum):
    """How a mark is drawn."""

    HIGHLIGHT = "highlight"
    UNDERLINE = "underline"
    STRIKE = "strike out"


class Scope(StrEnum):
    """What an entry belongs to."""

    PASSAGE = "passage"
    SECTION = "section"
    DOCUMENT = "document"
    LOOSE = "no place yet"
    """It is given a place later, or never."""


class State(StrEnum):
    """How far something is that a service writes."""

    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    FAILED = "failed"
    BROKEN_OFF = "broken off"
    """The application ended while it was written; it can go on."""

    @property
    def is_under_way(self) -> bool:
        """Whether more of it is to come."""
        return self in (State.WAITING, State.RUNNING)


class Origin(StrEnum):
    """Whose words an answer is made of."""

    QUOTED = "quoted"
    COMPOSED = "composed"
