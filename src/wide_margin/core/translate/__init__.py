"""Translate a text sentence by sentence through a writing model, and pair the two."""

from wide_margin.core.translate.languages import LANGUAGES, language_name
from wide_margin.core.translate.translation import Pair, translate

__all__ = ["LANGUAGES", "Pair", "language_name", "translate"]
