"""What takes long to make and is not always needed, made when it is first used.

Every process of the application imports most modules, and uses a part of their expressions.
"""

from __future__ import annotations

import importlib
import importlib.util
import re
import sys
from collections.abc import Callable, Iterable, Iterator
from types import ModuleType
from typing import Any, cast


class _LaterModule(ModuleType):
    """Stands for a module until one of its names is asked for, in whatever thread."""

    def __getattr__(self, name: str) -> Any:
        """What the module has under a name, kept here for the next time.

        Importing it waits for another thread that does.
        """
        found = getattr(importlib.import_module(self.__name__), name)
        self.__dict__[name] = found
        return found


def loaded_later(name: str) -> ModuleType:
    """A module that is imported at the first use of one of its names.

    Raises:
        ModuleNotFoundError: There is no such module.
    """
    if name in sys.modules:
        return sys.modules[name]
    if importlib.util.find_spec(name) is None:
        raise ModuleNotFoundError(name)
    return _LaterModule(name)


class _Later:
    """An expression that is compiled when its first method is asked for."""

    def __init__(self, pattern: str | Callable[[], str], flags: int) -> None:
        self._pattern, self._flags = pattern, flags
        self._compiled: re.Pattern[str] | None = None

    def __getattr__(self, name: str) -> Any:
        """What the compiled expression has under a name, kept here for the next time."""
        if name.startswith("__"):  # asked by copy and pickle, before there is anything
            raise AttributeError(name)
        if self._compiled is None:
            self._compiled = re.compile(self._written(), self._flags)
        found = getattr(self._compiled, name)
        self.__dict__[name] = found
        return found

    def __reduce__(self) -> tuple[Any, ...]:
        """As what it is made of."""
        return regex, (self._written(), self._flags)

    def _written(self) -> str:
        return self._pattern if isinstance(self._pattern, str) else self._pattern()


def regex(pattern: str | Callable[[], str], flags: int = 0) -> re.Pattern[str]:
    """What re.compile gives, compiled at its first use.

    A pattern that has words of the lexicon is given as a function: it is made then, too.
    Compiling all expressions of the package takes a third of the time that a process starts in.
    Not for functions of re that take a compiled expression: ask its own methods.

    Raises:
        re.error: At the first use, where the pattern is none. A test compiles all of them.
    """
    return cast("re.Pattern[str]", _Later(pattern, flags))


def whole_forms(*patterns: str) -> tuple[re.Pattern[str], ...]:
    """Expressions, in small letters or capitals, that fit a question from end to end."""
    return tuple(regex(rf"^\W*{pattern}\W*$", re.I) for pattern in patterns)


def first_match(patterns: Iterable[re.Pattern[str]], text: str) -> re.Match[str] | None:
    """What the first of some expressions that fits the beginning of a text finds; None for none."""
    return next((match for pattern in patterns if (match := pattern.match(text))), None)


def compiled_ahead() -> Iterator[None]:
    """Compile the expressions of the modules of the package that are loaded, one by one.

    Those that have a name of their own; the ones in tables wait for their first use. It is for a
    process that others are forked from: each of these would compile its share again.
    """
    for name, module in list(sys.modules.items()):
        if name.startswith("wide_margin."):
            for value in list(vars(module).values()):
                if isinstance(value, _Later):
                    value.flags  # noqa: B018 (compiled when it is asked for)
                    yield
