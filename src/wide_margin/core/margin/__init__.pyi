from .anchoring import Letters, anchored_again
from .bodies import (
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
from .entries import Anchor, Entry, kept_spans, new_entry, question_entry
from .kinds import EntryKind, Ink, MarkForm, Origin, Scope, State
from .marking import joined, touch, without
from .store import DocumentRecord, KeptEntries, Opened, Store, default_store_path, open_store

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
