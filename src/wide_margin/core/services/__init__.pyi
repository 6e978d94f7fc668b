from .settings import Settings, SettingsKeeper, load_settings
from .writing_model import WritingModel

__all__ = ["Settings", "SettingsKeeper", "WritingModel", "load_settings"]
