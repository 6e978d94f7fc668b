"""Answers: a question read, the excerpts that bear on it, and the sentences that answer."""

from wide_margin.core.answers.backing import Backing, check_backing
from wide_margin.core.answers.composed import Budget, budget_of, compose, parts_of, request_for
from wide_margin.core.answers.form import Form
from wide_margin.core.answers.helped import MOST_TERMS, Helped, Parts, find_helped, vocabulary_of
from wide_margin.core.answers.model import PERHAPS, WHOLE, Answer, Excerpt, Quote, Reach, Verdict
from wide_margin.core.answers.question import Question, read_question
from wide_margin.core.answers.quoted import answer_quoted
from wide_margin.core.answers.reading import (
    figure_reach,
    named_reach,
    pages_named,
    pages_reach,
    read_asked,
    section_reach,
)

__all__ = [
    "MOST_TERMS",
    "PERHAPS",
    "WHOLE",
    "Answer",
    "Backing",
    "Budget",
    "Excerpt",
    "Form",
    "Helped",
    "Parts",
    "Question",
    "Quote",
    "Reach",
    "Verdict",
    "answer_quoted",
    "budget_of",
    "check_backing",
    "compose",
    "figure_reach",
    "find_helped",
    "named_reach",
    "pages_named",
    "pages_reach",
    "parts_of",
    "read_asked",
    "read_question",
    "request_for",
    "section_reach",
    "vocabulary_of",
]
