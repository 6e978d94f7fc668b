"""Search: our own ranking of passages and sentences, and exact find."""

from wide_margin.core.search.analysis import Analyser, guess_language, is_common
from wide_margin.core.search.document import ReadDocument, understand
from wide_margin.core.search.find import Hit, find_all
from wide_margin.core.search.index import Index, build_index
from wide_margin.core.search.query import Query, Term, read_terms
from wide_margin.core.search.rank import Ranked, rank

__all__ = [
    "Analyser",
    "Hit",
    "Index",
    "Query",
    "Ranked",
    "ReadDocument",
    "Term",
    "build_index",
    "find_all",
    "guess_language",
    "is_common",
    "rank",
    "read_terms",
    "understand",
]
