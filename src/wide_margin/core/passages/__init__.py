"""Passages: sentences with their place, and windows of them that a question is ranked over."""

from wide_margin.core.passages.build import MANY_WORDS, build_passages, sentences_in
from wide_margin.core.passages.entries import Term, is_said, names_in
from wide_margin.core.passages.model import Passage, Said, Sentence, Text
from wide_margin.core.passages.sentences import split_sentences

__all__ = [
    "MANY_WORDS",
    "Passage",
    "Said",
    "Sentence",
    "Term",
    "Text",
    "build_passages",
    "is_said",
    "names_in",
    "sentences_in",
    "split_sentences",
]
