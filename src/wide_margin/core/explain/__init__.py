"""Explain a selection from the document itself, and take its sentences apart."""

from wide_margin.core.explain.chained import noun_chains
from wide_margin.core.explain.clauses import take_apart
from wide_margin.core.explain.definitions import (
    Definition,
    Definitions,
    GatheringDefinitions,
    define,
    find_definitions,
)
from wide_margin.core.explain.explanation import Explainer, explain
from wide_margin.core.explain.figures import explain_figure, figure_at
from wide_margin.core.explain.measures import other_units
from wide_margin.core.explain.model import (
    Column,
    Explanation,
    FigureExplanation,
    Leaning,
    Meaning,
    Measure,
    NounChain,
    Often,
    Part,
    Reference,
    StandsFor,
)
from wide_margin.core.explain.own_words import OwnWords, check_own_words
from wide_margin.core.explain.references import find_references
from wide_margin.core.explain.sections import SectionExplanation, explain_section
from wide_margin.core.explain.standing_for import stands_for

__all__ = [
    "Column",
    "Definition",
    "Definitions",
    "Explainer",
    "Explanation",
    "FigureExplanation",
    "GatheringDefinitions",
    "Leaning",
    "Meaning",
    "Measure",
    "NounChain",
    "Often",
    "OwnWords",
    "Part",
    "Reference",
    "SectionExplanation",
    "StandsFor",
    "check_own_words",
    "define",
    "explain",
    "explain_figure",
    "explain_section",
    "figure_at",
    "find_definitions",
    "find_references",
    "noun_chains",
    "other_units",
    "stands_for",
    "take_apart",
]
