"""What is kept in the margin: entries, where they are anchored, and the store."""

from wide_margin.core.margin.anchoring import Letters, anchored_again
from wide_margin.core.margin.bodies import (
    MAX_KEPT_EXCERPTS,
    Before,
    Body,
    CuttingBody,
    ExplanationBody,
    MarkBody,
    NoteBody,
    PlacedRow,
    QuestionBody,
    TranslationBody,
)
from wide_margin.core.margin.entries import (
    Anchor,
    Entry,
    kept_spans,
    new_entry,
    question_entry,
)
from wide_margin.core.margin.kinds import EntryKind, Ink, MarkForm, Origin, Scope, State
from wide_margin.core.margin.marking import joined, touch, without
from wide_margin.core.margin.store import (
    DocumentRecord,
    KeptEntries,
    Opened,
    Store,
    default_store_path,
    open_store,
)

__all__ = [
    "MAX_KEPT_EXCERPTS",
    "Anchor",
    "Before",
    "Body",
    "CuttingBody",
    "DocumentRecord",
    "Entry",
    "EntryKind",
    "ExplanationBody",
    "Ink",
    "KeptEntries",
    "Letters",
    "MarkBody",
    "MarkForm",
    "NoteBody",
    "Opened",
    "Origin",
    "PlacedRow",
    "QuestionBody",
    "Scope",
    "State",
    "Store",
    "TranslationBody",
    "anchored_again",
    "default_store_path",
    "joined",
    "kept_spans",
    "new_entry",
    "open_store",
    "question_entry",
    "touch",
    "without",
]
