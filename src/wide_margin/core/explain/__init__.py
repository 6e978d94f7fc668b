"""Explain a selection from the document itself, and take its sentences apart."""

from wide_margin.core.explain.clauses import Part, take_apart
from wide_margin.core.explain.definitions import Definition, Definitions, define, find_definitions
from wide_margin.core.explain.explanation import Explainer, Explanation, Meaning, explain
from wide_margin.core.explain.measures import Measure, other_units
from wide_margin.core.explain.references import Reference, find_references
from wide_margin.core.explain.sections import SectionExplanation, explain_section
from wide_margin.core.explain.standing_for import StandsFor, stands_for
from wide_margin.core.explain.uses import Leaning

__all__ = [
    "Definition",
    "Definitions",
    "Explainer",
    "Explanation",
    "Leaning",
    "Meaning",
    "Measure",
    "Part",
    "Reference",
    "SectionExplanation",
    "StandsFor",
    "define",
    "explain",
    "explain_section",
    "find_definitions",
    "find_references",
    "other_units",
    "stands_for",
    "take_apart",
]
