"""Settings the reader chooses, in a TOML file under the user's configuration folder."""

from __future__ import annotations

import os
import tomllib
from collections.abc import Callable
from dataclasses import dataclass, fields, replace
from pathlib import Path
from typing import TYPE_CHECKING, Any

import platformdirs

from wide_margin.core.errors import WideMarginError
from wide_margin.core.later import loaded_later

if TYPE_CHECKING:
    import tomlkit
else:
    tomlkit = loaded_later("tomlkit")


@dataclass(frozen=True, slots=True)
class Settings:
    """What is in settings.toml."""

    model_address: str = ""
    """Base address of a chat-completions service, such as http://127.0.0.1:8080/v1."""
    model_name: str = ""
    model_words: int = 2500
    """Words of excerpts that are sent to it at once; more go in parts."""
    model_restates: bool = True
    """Whether it puts questions into the document's words as well, where it composes."""
    model_embeds: bool = True
    """Whether its embeddings, where it has them, join in ranking what was found."""
    model_judges: bool = True
    """Whether it is asked which of the excerpts answer."""
    trusted_address: str = ""
    """The address off this machine that the reader has agreed to send excerpts to."""
    dictionary_address: str = "127.0.0.1:2628"
    """Of a dictionary service that speaks DICT (RFC 2229); "" for none."""
    language: str = ""
    """Target language of translations, "" until one was chosen."""
    night: bool = False
    ink_names: tuple[str, ...] = ()
    """What the reader calls the inks of marks, in their order; "" for the name that is given."""


_PLACES = {
    "model_address": ("writing_model", "address"),
    "model_name": ("writing_model", "name"),
    "model_words": ("writing_model", "words_at_once"),
    "model_restates": ("writing_model", "restates_questions"),
    "model_embeds": ("writing_model", "compares_by_embeddings"),
    "model_judges": ("writing_model", "judges_excerpts"),
    "trusted_address": ("writing_model", "trusted"),
    "dictionary_address": ("dictionary", "address"),
    "language": ("translation", "language"),
    "night": ("look", "night"),
    "ink_names": ("marks", "ink_names"),
}
"""Table and key of every setting in the file."""


def settings_path() -> Path:
    """Where the settings are."""
    folder = Path(platformdirs.user_config_dir("wide-margin", appauthor=False))
    return folder / "settings.toml"


def load_settings(path: Path | None = None) -> Settings:
    """Read the settings; the defaults where the file, or a key of it, is missing.

    Raises:
        WideMarginError: The file cannot be read, or is not TOML.
    """
    path = path or settings_path()
    try:
        data = tomllib.loads(path.read_text(encoding="utf-8"))
    except FileNotFoundError:
        return Settings()
    except (tomllib.TOMLDecodeError, OSError, UnicodeDecodeError, RecursionError) as error:
        raise _unreadable(path) from error
    found: dict[str, Any] = {}
    for field in fields(Settings):
        table, key = _PLACES[field.name]
        value = _table(data, table).get(key)
        if isinstance(value, list):
            value = tuple(str(part) for part in value)
        if isinstance(value, type(field.default)):
            found[field.name] = value
    return Settings(**found)


class SettingsKeeper:
    """The one keeper of the settings in a process; every window asks and changes them here.

    A change is applied to the file as it is at that moment: other processes, and the reader with
    an editor, may have changed other keys of it. Comments and unknown keys stay as they are.
    """

    def __init__(self, path: Path | None = None) -> None:
        """Read the file; the user's own where None."""
        self.path = path or settings_path()
        self._for_now: dict[str, object] = {}
        self._watchers: list[Callable[[Settings], None]] = []
        self.trouble: WideMarginError | None = None
        """Why the file could not be read; it is then left as it is."""
        try:
            self._kept = load_settings(self.path)
        except WideMarginError as error:
            self.trouble, self._kept = error, Settings()

    @property
    def now(self) -> Settings:
        """The settings that hold."""
        return replace(self._kept, **self._for_now)  # type: ignore[arg-type]

    def hold_for_now(self, **values: object) -> None:
        """Let settings hold in this process that are never written.

        Such as the address of a model that was given on the command line.
        """
        self._for_now.update(values)

    def watch(self, told: Callable[[Settings], None]) -> Callable[[], None]:
        """Have changes told; the function that is given back ends that."""
        self._watchers.append(told)
        return lambda: self._watchers.remove(told) if told in self._watchers else None

    def change(self, **values: object) -> None:
        """Change some settings, here and in the file.

        Raises:
            WideMarginError: The file cannot be written, or is not TOML and was left alone; the
                change holds in this process all the same.
        """
        for name in values:
            self._for_now.pop(name, None)
        self._kept = replace(self._kept, **values)  # type: ignore[arg-type]
        try:
            self._write(values)
        finally:
            for told in list(self._watchers):
                told(self.now)

    def _write(self, values: dict[str, object]) -> None:
        try:
            text = self.path.read_text(encoding="utf-8")
        except FileNotFoundError:
            text = ""
        except (OSError, UnicodeDecodeError) as error:
            raise _unreadable(self.path) from error
        try:
            document = tomlkit.parse(text)
            for name, value in values.items():
                table, key = _PLACES[name]
                if not isinstance(document.get(table), dict):
                    document[table] = tomlkit.table()
                document[table][key] = list(value) if isinstance(value, tuple) else value
            written = tomlkit.dumps(document)
            tomllib.loads(written)
        except (
            tomlkit.exceptions.TOMLKitError,
            tomllib.TOMLDecodeError,
            RecursionError,
            ValueError,
        ) as error:
            raise _unreadable(self.path) from error
        part = self.path.with_suffix(f".{os.getpid()}.part")
        try:
            self.path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
            part.write_text(written, encoding="utf-8")
            part.replace(self.path)
        except OSError as error:
            part.unlink(missing_ok=True)
            raise WideMarginError(
                "The settings could not be saved.",
                hint=f"Is {self.path.parent} full, or read-only?",
            ) from error


def _unreadable(path: Path) -> WideMarginError:
    return WideMarginError(
        f"The settings in {path} cannot be read, and are left as they are.",
        hint="Mend the file, or remove it.",
    )


def _table(data: dict[str, Any], name: str) -> dict[str, Any]:
    table = data.get(name)
    return table if isinstance(table, dict) else {}
