from .chained import noun_chains
from .clauses import take_apart
from .definitions import (
    Definition,
    Definitions,
    GatheringDefinitions,
    define,
    find_definitions,
    tell_changes,
)
from .explanation import Explainer, explain
from .figures import explain_figure, figure_at, naming_figure
from .measures import other_units
from .model import (
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
from .own_words import OwnWords, check_own_words
from .references import find_references
from .sections import SectionExplanation, explain_section
from .standing_for import stands_for

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
    "naming_figure",
    "noun_chains",
    "other_units",
    "stands_for",
    "take_apart",
    "tell_changes",
]
