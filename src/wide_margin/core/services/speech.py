"""Sentences said aloud: through Speech Dispatcher (SSIP), else by espeak-ng as a program.

Each engine says one sentence and returns when it has been said; a token that is cancelled stops
it at once. Whatever goes wrong is a ServiceError.
"""

from __future__ import annotations

import os
import shutil
import socket
import subprocess
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import TYPE_CHECKING, Protocol

import platformdirs

from wide_margin.core.errors import ServiceError

if TYPE_CHECKING:
    from wide_margin.core.jobs import CancelToken

ESPEAK = "espeak-ng"
USUAL_WORDS = 175
"""Words a minute."""
SLOWEST, FASTEST = 0.5, 3.0
"""Of the usual rate."""
TIMEOUT = 6.0
"""Seconds that Speech Dispatcher may take to answer a command."""
LONGEST = 4000
"""Characters that are said at once."""
_TOLD = "Install the package espeak-ng, or speech-dispatcher with a voice, to have it read aloud."


class Engine(Protocol):
    """Says sentences, one at a time."""

    name: str

    def say(self, text: str, language: str, rate: float, token: CancelToken) -> None:
        """Say a sentence and return once it has been said.

        Args:
            text: Plain text.
            language: Code, ISO 639-1.
            rate: 1 is the usual one.
            token: Stops it in the middle.

        Raises:
            ServiceError: It could not be said.
            Cancelled: The token was cancelled.
        """
        ...

    def close(self) -> None:
        """Give everything back."""


class Espeak:
    """espeak-ng as a program; a process for each sentence."""

    name = ESPEAK

    def __init__(self, program: str = ESPEAK) -> None:
        """Nothing is started yet."""
        self._program = program

    def say(self, text: str, language: str, rate: float, token: CancelToken) -> None:
        """See Engine."""
        self._run(text, language, rate, token, [])

    def write(self, text: str, language: str, path: Path, token: CancelToken) -> None:
        """Say a sentence into a sound file (WAV).

        Raises:
            ServiceError: It could not be written.
            Cancelled: The token was cancelled.
        """
        self._run(text, language, 1.0, token, ["-w", str(path)])

    def _run(
        self, text: str, language: str, rate: float, token: CancelToken, more: list[str]
    ) -> None:
        token.check()
        words = str(int(USUAL_WORDS * min(max(rate, SLOWEST), FASTEST)))
        command = [self._program, "-v", language or "en", "-s", words, "--stdin", *more]
        try:
            process = subprocess.Popen(
                command, stdin=subprocess.PIPE, stdout=subprocess.DEVNULL,
                stderr=subprocess.DEVNULL,
            )  # fmt: skip
        except OSError as error:
            raise ServiceError("Nothing here can read aloud.", hint=_TOLD) from error
        with token.waking(process.kill), suppress(BrokenPipeError):
            process.communicate(text[:LONGEST].encode())
        token.check()
        if process.returncode:
            raise ServiceError(
                f"{self._program} could not say a sentence.", hint="Does it have a voice for it?"
            )

    def close(self) -> None:
        """Nothing is held."""


class SpeechDispatcher:
    """A connection to Speech Dispatcher, by its own protocol (SSIP)."""

    name = "Speech Dispatcher"

    def __init__(self, address: Path | tuple[str, int] | None = None) -> None:
        """Connect.

        Args:
            address: Of its socket: a path, or host and port; where it usually is for None.

        Raises:
            ServiceError: It does not run, or speaks another language.
        """
        self._buffer = b""
        self._one_at_a_time = threading.Lock()
        self._n_stops = 0
        """Commands to stop whose answer has not been heard."""
        self._counting = threading.Lock()
        where = address or _usual_socket()
        is_path = isinstance(where, Path)
        self._socket = socket.socket(socket.AF_UNIX if is_path else socket.AF_INET)
        try:
            self._socket.settimeout(TIMEOUT)
            self._socket.connect(str(where) if isinstance(where, Path) else where)
            self._command("SET self CLIENT_NAME reader:wide-margin:main")
            self._command("SET self NOTIFICATION END on")
            self._command("SET self NOTIFICATION CANCEL on")
        except OSError as error:
            self.close()
            raise _not_running() from error
        except ServiceError:
            self.close()
            raise

    def say(self, text: str, language: str, rate: float, token: CancelToken) -> None:
        """See Engine."""
        with self._one_at_a_time:
            token.check()
            self._say(text, language, rate, token)

    def _say(self, text: str, language: str, rate: float, token: CancelToken) -> None:
        try:
            self._command(f"SET self LANGUAGE {language or 'en'}")
            level = round(100 * (min(max(rate, SLOWEST), FASTEST) - 1.0) / (FASTEST - 1.0))
            self._command(f"SET self RATE {max(level, -100)}")
            self._command("SPEAK")
            lines = text[:LONGEST].splitlines() or [""]
            data = "".join(f".{x}\r\n" if x.startswith(".") else f"{x}\r\n" for x in lines)
            self._command(f"{data}.")
            with token.waking(self._stop):
                self._wait_for_end(token)
        except OSError as error:
            token.check()
            self.close()
            raise _not_running() from error
        token.check()

    def _stop(self) -> None:
        with suppress(OSError):
            with self._counting:  # whoever stops is another thread than the one that listens
                self._n_stops += 1
            self._socket.sendall(b"STOP self\r\n")

    def _wait_for_end(self, token: CancelToken) -> None:
        """Until the engine tells that the message has ended, or was stopped."""
        has_ended = False
        while not has_ended or self._n_stops:
            try:
                line = self._line()
            except TimeoutError:
                token.check()
                continue  # a long sentence
            has_ended = has_ended or line[:4] in ("702 ", "703 ")
            if line.startswith("210 "):
                with self._counting:
                    self._n_stops -= 1

    def _command(self, text: str) -> str:
        """Send a command and take the last line of its answer.

        Raises:
            OSError: The connection is gone, or it takes too long.
            ServiceError: It refuses.
        """
        self._socket.sendall(f"{text}\r\n".encode())
        until = time.monotonic() + TIMEOUT
        while time.monotonic() < until:
            line = self._line()
            if line.startswith("7") or line[3:4] == "-":
                continue  # an event of a message before, or more of this answer to come
            if line[:1] == "2":
                return line
            raise ServiceError(
                f"Speech Dispatcher refuses: {line[4:80]}", hint="Is a voice installed for it?"
            )
        raise TimeoutError

    def _line(self) -> str:
        while b"\r\n" not in self._buffer:
            more = self._socket.recv(4096)
            if not more or len(self._buffer) > 100_000:
                raise ConnectionError
            self._buffer += more
        line, self._buffer = self._buffer.split(b"\r\n", 1)
        return line.decode("utf-8", "replace")

    def close(self) -> None:
        """Hang up."""
        with suppress(OSError):
            self._socket.close()


def _usual_socket() -> Path:
    named = os.environ.get("SPEECHD_ADDRESS", "")
    if named.startswith("unix_socket:"):
        return Path(named.removeprefix("unix_socket:"))
    return Path(platformdirs.user_runtime_dir()) / "speech-dispatcher" / "speechd.sock"


def _not_running() -> ServiceError:
    return ServiceError("Speech Dispatcher does not answer.", hint=_TOLD)


def find_engine(
    dispatcher: Callable[[], Engine] = SpeechDispatcher, program: str = ESPEAK
) -> Engine:
    """Speech Dispatcher where it runs, else espeak-ng.

    Raises:
        ServiceError: Neither is there.
    """
    with suppress(ServiceError):
        return dispatcher()
    if shutil.which(program):
        return Espeak(program)
    raise ServiceError("Nothing here can read aloud.", hint=_TOLD)
