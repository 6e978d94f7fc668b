"""Passages: sentences with their place, and windows of them that a question is ranked over."""

from wide_margin.core.passages.build import MANY_WORDS, build_passages
from wide_margin.core.passages.entries import Term, names_in
from wide_margin.core.passages.model import Passage, Sentence, Text
from wide_margin.core.passages.sentences import split_sentences

__all__ = [
    "MANY_WORDS",
    "Passage",
    "Sentence",
    "Term",
    "Text",
    "build_passages",
    "names_in",
    "split_sentences",
]
