from .backing import Backing, check_backing
from .composed import Budget, budget_of, compose, parts_of, request_for
from .form import Form
from .helped import MOST_TERMS, Helped, Parts, find_helped, vocabulary_of
from .model import PERHAPS, WHOLE, Answer, Excerpt, Quote, Reach, Verdict
from .question import Question, read_question
from .quoted import answer_quoted
from .reading import figure_reach, named_reach, pages_named, pages_reach, read_asked, section_reach

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
