"""The digest: what a document is, its gist, its sections line by line, its terms."""

from wide_margin.core.digest.asked import read_overview
from wide_margin.core.digest.by_kind import SLOTS, Filled
from wide_margin.core.digest.digest import Digest, Digester
from wide_margin.core.digest.facts import Facts
from wide_margin.core.digest.fields import Field, as_csv, field_of, fields_of, questions_in
from wide_margin.core.digest.front import Fact
from wide_margin.core.digest.gist import GistLine
from wide_margin.core.digest.kinds import DocumentKind
from wide_margin.core.digest.section_lines import SectionLine
from wide_margin.core.digest.selftest import TestQuestion
from wide_margin.core.digest.terms import KeyTerm
from wide_margin.core.digest.worth import Worth, worth_asking

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
