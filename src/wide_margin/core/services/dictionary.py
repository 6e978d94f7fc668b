"""Words looked up in a dictionary service that speaks DICT (RFC 2229)."""

from __future__ import annotations

import re
import socket
import time
from collections.abc import Iterable
from contextlib import suppress
from dataclasses import dataclass, field
from typing import NamedTuple

from wide_margin.core.errors import ServiceError
from wide_margin.core.later import regex
from wide_margin.core.plain import plain

DEFAULT_ADDRESS = "127.0.0.1:2628"
PORT = 2628
TIMEOUT = 4.0
"""Seconds for one exchange, whatever the number of lines."""
MAX_LINE = 6000
"""RFC 2229 allows 1024 characters; servers send more."""
MAX_TEXT = 40_000
"""Characters of one definition that are taken."""
MAX_DEFINITIONS = 20
MAX_DATABASES = 400
_DEFINITION = regex(
    r'^151 (?:"(?P<quoted>[^"]*)"|(?P<word>\S+)) (?P<database>\S+) ?"?(?P<name>[^"]*)'
)
_DATABASE = regex(r'^(?P<name>\S+)\s+"?(?P<title>[^"]*)"?$')


class Sense(NamedTuple):
    """What a dictionary says of a word."""

    word: str
    text: str
    database: str
    """Its short name there, such as "wn"."""
    title: str
    """Its full name."""


class Database(NamedTuple):
    """A dictionary that the service has."""

    name: str
    title: str


@dataclass
class Dictionary:
    """A connection to the service, opened when it is first asked.

    Not for several threads at once. Whatever goes wrong is a ServiceError; the connection is then
    closed, and opened anew when asked again.
    """

    address: str = DEFAULT_ADDRESS
    """Host, or host:port."""
    timeout: float = TIMEOUT
    _socket: socket.socket | None = field(default=None, init=False, repr=False)
    _buffer: bytes = field(default=b"", init=False, repr=False)
    _until: float = field(default=0.0, init=False, repr=False)

    def __enter__(self) -> Dictionary:
        """For use in a with statement."""
        return self

    def __exit__(self, *_: object) -> None:
        """Take leave."""
        self.close()

    def databases(self) -> tuple[Database, ...]:
        """The dictionaries that the service has.

        Raises:
            ServiceError: It does not answer, or not as the protocol says.
        """
        status = self._ask("SHOW DB")
        if status[:3] == "554":  # none
            return ()
        self._expect(status, "110")
        found = [
            Database(match["name"], plain(match["title"]))
            for match in map(_DATABASE.match, self._text(MAX_DATABASES * 200)) if match
        ]  # fmt: skip
        self._expect(self._line(), "250")
        return tuple(found[:MAX_DATABASES])

    def define(self, word: str, database: str = "*") -> tuple[Sense, ...]:
        """What a word means.

        Args:
            word: One word, or a few that are one entry.
            database: Where to look; "*" for all dictionaries, "!" for the first that has it.

        Raises:
            ServiceError: The service does not answer, or not as the protocol says.
        """
        asked = " ".join(word.split())[:200]
        if not asked or not re.fullmatch(r"[\w.*!-]+", database):
            return ()
        quoted = asked.replace("\\", "\\\\").replace('"', '\\"')
        status = self._ask(f'DEFINE {database} "{quoted}"')
        if status[:3] in ("552", "550", "554"):
            return ()
        self._expect(status, "150")
        found: list[Sense] = []
        while (line := self._line())[:3] == "151":
            match = _DEFINITION.match(line)
            lines = [plain(said) for said in self._text(MAX_TEXT)]
            if match and len(found) < MAX_DEFINITIONS:
                headword = match["quoted"] or match["word"] or asked
                text = "\n".join(lines).strip()
                found.append(Sense(headword, text, match["database"], plain(match["name"])))
        self._expect(line, "250")
        return tuple(found)

    def close(self) -> None:
        """Take leave of the service."""
        if self._socket is not None:
            with suppress(OSError):
                self._socket.sendall(b"QUIT\r\n")
            with suppress(OSError):
                self._socket.close()
        self._socket, self._buffer = None, b""

    def _ask(self, command: str) -> str:
        self._until = time.monotonic() + self.timeout
        try:
            if self._socket is None:
                self._open()
            assert self._socket is not None
            self._socket.sendall(command.encode() + b"\r\n")
        except OSError as error:
            raise self._failed() from error
        return self._line()

    def _open(self) -> None:
        host, port = split_address(self.address)
        self._socket = socket.create_connection((host, port), timeout=self.timeout)
        self._buffer = b""
        self._expect(self._line(), "220")
        self._socket.sendall(b'CLIENT "Wide Margin"\r\n')
        self._expect(self._line(), "250")

    def _text(self, limit: int) -> Iterable[str]:
        """The lines of a text, up to its closing full stop."""
        taken = 0
        while (line := self._line()) != ".":
            taken += len(line) + 1
            if taken <= limit:
                yield line.removeprefix(".") if line.startswith("..") else line
            elif taken > 100 * limit:
                raise self._failed("It sends without end.")

    def _line(self) -> str:
        while b"\n" not in self._buffer:
            left = self._until - time.monotonic()
            if left <= 0 or self._socket is None:
                raise self._failed("It takes too long.")
            try:
                self._socket.settimeout(left)
                piece = self._socket.recv(65536)
            except OSError as error:
                raise self._failed() from error
            if not piece:
                raise self._failed("It broke off.")
            self._buffer += piece
            if b"\n" not in self._buffer and len(self._buffer) > MAX_LINE:
                raise self._failed("It does not speak DICT.")
        line, self._buffer = self._buffer.split(b"\n", 1)
        return line.rstrip(b"\r").decode("utf-8", "replace")

    def _expect(self, line: str, status: str) -> None:
        if line[:3] != status:
            raise self._failed("It does not speak DICT.")

    def _failed(self, why: str = "") -> ServiceError:
        if self._socket is not None:
            with suppress(OSError):
                self._socket.close()
        self._socket, self._buffer = None, b""
        said = f"The dictionary service at {self.address} does not answer. {why}".strip()
        return ServiceError(said, hint="Is it running? Its address is in the settings.")


def split_address(address: str) -> tuple[str, int]:
    """Host and port of "host" or "host:port"; what is no port counts as the usual one."""
    host, colon, port = address.strip().removeprefix("dict://").rstrip("/").rpartition(":")
    if not colon or not port.isdecimal() or not 0 < int(port) < 65536:
        return (address.strip().removeprefix("dict://").rstrip("/") or "127.0.0.1"), PORT
    return host.strip("[]") or "127.0.0.1", int(port)


def is_this_machine(address: str) -> bool:
    """Whether an address is on the loopback interface: nothing leaves this machine then."""
    host = split_address(address)[0]
    return host in ("localhost", "::1") or host.startswith("127.")
