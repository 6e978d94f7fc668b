from .analysis import Analyser, guess_language, is_common
from .coded import Coded, code
from .find import Findable, Hit, find_all, make_findable
from .fine import Weighed, weigh
from .index import Index, build_index
from .query import Query, Term, leaning_on, read_terms, turning_on
from .ranking import Ranked, rank

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
