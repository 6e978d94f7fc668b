"""Translate a text sentence by sentence, pair the two, check them, remember what was corrected."""

from wide_margin.core.translate.checks import Fault, FaultKind, TermRule, faults_of
from wide_margin.core.translate.languages import LANGUAGES, RIGHT_TO_LEFT, language_name
from wide_margin.core.translate.memory import MEMORY, Kept, Memory, NearPair
from wide_margin.core.translate.model import Pair
from wide_margin.core.translate.translation import awaited, checked, from_memory, translate

__all__ = [
    "LANGUAGES",
    "MEMORY",
    "RIGHT_TO_LEFT",
    "Fault",
    "FaultKind",
    "Kept",
    "Memory",
    "NearPair",
    "Pair",
    "TermRule",
    "awaited",
    "checked",
    "faults_of",
    "from_memory",
    "language_name",
    "translate",
]
