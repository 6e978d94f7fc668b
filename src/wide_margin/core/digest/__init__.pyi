from .asked import read_overview
from .by_kind import SLOTS, Filled
from .digest import Digest, Digester
from .facts import Facts
from .fields import Field, as_csv, field_of, fields_of, questions_in
from .front import Fact
from .gist import GistLine
from .kinds import DocumentKind
from .section_lines import SectionLine
from .selftest import TestQuestion
from .terms import KeyTerm
from .worth import Worth, worth_asking

__all__ = [
    "SLOTS",
    "Digest",
    "Digester",
    "DocumentKind",
    "Fact",
    "Facts",
    "Field",
    "Filled",
    "GistLine",
    "KeyTerm",
    "SectionLine",
    "TestQuestion",
    "Worth",
    "as_csv",
    "field_of",
    "fields_of",
    "questions_in",
    "read_overview",
    "worth_asking",
]
