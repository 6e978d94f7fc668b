"""Settings the reader chooses, in a TOML file under the user's configuration folder."""

import tomllib
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import platformdirs
import tomli_w

from wide_margin.core.errors import WideMarginError


@dataclass(frozen=True, slots=True)
class Settings:
    """What is in settings.toml."""

    model_address: str = ""
    """Base address of a chat-completions service, such as http://127.0.0.1:8080/v1."""
    model_name: str = ""
    trusted_address: str = ""
    """The address off this machine that the reader has agreed to send excerpts to."""
    language: str = ""
    """Target language of translations, "" until one was chosen."""
    night: bool = False


def settings_path() -> Path:
    """Where the settings are."""
    folder = Path(platformdirs.user_config_dir("wide-margin", appauthor=False))
    return folder / "settings.toml"


def load_settings(path: Path | None = None) -> Settings:
    """Read the settings; the defaults where the file is missing.

    Raises:
        WideMarginError: The file is not TOML.
    """
    path = path or settings_path()
    try:
        data = tomllib.loads(path.read_text(encoding="utf-8"))
    except FileNotFoundError:
        return Settings()
    except (tomllib.TOMLDecodeError, OSError, UnicodeDecodeError) as error:
        raise WideMarginError(
            f"The settings in {path} cannot be read.", hint="Mend the file, or remove it."
        ) from error
    model, translation, look = (
        _table(data, name) for name in ("writing_model", "translation", "look")
    )
    return Settings(
        model_address=str(model.get("address", "")),
        model_name=str(model.get("name", "")),
        trusted_address=str(model.get("trusted", "")),
        language=str(translation.get("language", "")),
        night=bool(look.get("night", False)),
    )


def save_settings(settings: Settings, path: Path | None = None) -> None:
    """Write the settings; keys of the file that this version does not know are kept."""
    path = path or settings_path()
    try:
        data: dict[str, Any] = tomllib.loads(path.read_text(encoding="utf-8"))
    except (OSError, tomllib.TOMLDecodeError, UnicodeDecodeError):
        data = {}
    data["writing_model"] = {
        **_table(data, "writing_model"),
        "address": settings.model_address,
        "name": settings.model_name,
        "trusted": settings.trusted_address,
    }
    data["translation"] = {**_table(data, "translation"), "language": settings.language}
    data["look"] = {**_table(data, "look"), "night": settings.night}
    path.parent.mkdir(parents=True, exist_ok=True)
    part = path.with_suffix(".part")
    part.write_text(tomli_w.dumps(data), encoding="utf-8")
    part.replace(path)


def _table(data: dict[str, Any], name: str) -> dict[str, Any]:
    table = data.get(name)
    return table if isinstance(table, dict) else {}
