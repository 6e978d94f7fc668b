from .build import MANY_WORDS, build_passages, sentences_in
from .entries import Term, is_said, names_in
from .model import Passage, Said, Sentence, Text
from .sentences import split_sentences
from .titles_listed import rows_of_titles

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
    "rows_of_titles",
    "sentences_in",
    "split_sentences",
]
