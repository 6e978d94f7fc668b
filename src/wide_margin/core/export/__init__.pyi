from .citations import ANSWER_FORMS, Source, Statement, answer_as, year_of
from .digest import FACT_NAMES, NOT_STATED, digest_as_json, export_digest, fields_as_json
from .outline import FORMATS, export_outline, section_row
from .outline_in import read_outline
from .pdf import write_bookmarks

__all__ = [
    "ANSWER_FORMS",
    "FACT_NAMES",
    "FORMATS",
    "NOT_STATED",
    "Source",
    "Statement",
    "answer_as",
    "digest_as_json",
    "export_digest",
    "export_outline",
    "fields_as_json",
    "read_outline",
    "section_row",
    "write_bookmarks",
    "year_of",
]
