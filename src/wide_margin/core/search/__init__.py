"""Search: our own ranking of passages and sentences, and exact find."""

from wide_margin.core.search.analysis import Analyser, guess_language, is_common
from wide_margin.core.search.coded import Coded, code
from wide_margin.core.search.find import Findable, Hit, find_all, make_findable
from wide_margin.core.search.fine import Weighed, weigh
from wide_margin.core.search.index import Index, build_index
from wide_margin.core.search.query import Query, Term, leaning_on, read_terms, turning_on
from wide_margin.core.search.ranking import Ranked, rank

__all__ = [
    "Analyser",
    "Coded",
    "Findable",
    "Hit",
    "Index",
    "Query",
    "Ranked",
    "Term",
    "Weighed",
    "build_index",
    "code",
    "find_all",
    "guess_language",
    "is_common",
    "leaning_on",
    "make_findable",
    "rank",
    "read_terms",
    "turning_on",
    "weigh",
]
