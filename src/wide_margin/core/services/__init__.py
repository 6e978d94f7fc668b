"""Outside services over open protocols, each with a stand-in that ships."""

from wide_margin.core.services.settings import Settings, load_settings, save_settings
from wide_margin.core.services.writing_model import WritingModel

__all__ = ["Settings", "WritingModel", "load_settings", "save_settings"]
