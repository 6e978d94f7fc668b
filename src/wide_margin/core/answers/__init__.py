"""Answers: a question read, the excerpts that bear on it, and the sentences that answer."""

from wide_margin.core.answers.model import WHOLE, Answer, Excerpt, Locator, Quote, Reach
from wide_margin.core.answers.question import Question, read_question
from wide_margin.core.answers.quoted import answer_quoted

__all__ = [
    "WHOLE",
    "Answer",
    "Excerpt",
    "Locator",
    "Question",
    "Quote",
    "Reach",
    "answer_quoted",
    "read_question",
]
