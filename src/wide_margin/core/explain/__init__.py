"""Explain a selection from the document itself: its definitions, abbreviations, references."""

from wide_margin.core.explain.definitions import Definition, find_definitions
from wide_margin.core.explain.explanation import Explanation, Meaning, explain
from wide_margin.core.explain.references import Reference, find_references

__all__ = [
    "Definition",
    "Explanation",
    "Meaning",
    "Reference",
    "explain",
    "find_definitions",
    "find_references",
]
