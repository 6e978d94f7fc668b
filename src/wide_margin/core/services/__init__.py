"""Outside services over open protocols, each with a stand-in that ships."""

from wide_margin.core.services.settings import Settings, SettingsKeeper, load_settings
from wide_margin.core.services.writing_model import WritingModel

__all__ = ["Settings", "SettingsKeeper", "WritingModel", "load_settings"]
