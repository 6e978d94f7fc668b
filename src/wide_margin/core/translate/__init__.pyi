from .checks import Fault, FaultKind, TermRule, faults_of
from .languages import LANGUAGES, RIGHT_TO_LEFT, language_name
from .memory import MEMORY, Kept, Memory, NearPair
from .model import Pair
from .translation import awaited, checked, from_memory, translate

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
