"""A stand-in for a dictionary service: a small DICT server (RFC 2229) on this machine.

It has the words of the lexicon that ships, of one language in another each, and says in its name
that it is a stand-in.
"""

from __future__ import annotations

import re
import socketserver
import threading
import time
from functools import cache

from wide_margin.core.later import regex
from wide_margin.core.shipped import text_of

_CODES = {"en": "eng", "de": "deu", "fr": "fra", "es": "spa"}
_NAMES = {"en": "English", "de": "German", "fr": "French", "es": "Spanish"}
_DEFINE = regex(r'^DEFINE\s+(\S+)\s+"?((?:[^"\\]|\\.)*)"?\s*$', re.I)
SILENCE = 8.0
"""Seconds that a stand-in told to be silent waits."""


class DictionaryStandIn:
    """The server, in a thread of its own on the loopback interface."""

    def __init__(self, port: int = 0, *, misbehave: str = "") -> None:
        """Start serving.

        Args:
            port: 0 for a free one.
            misbehave: For tests: "silent" never answers a word, "closes" breaks off in the middle
                of one, "rambles" does not speak the protocol, "endless" sends without end.
        """
        handler = type("Handler", (_Handler,), {"misbehave": misbehave})
        self._server = socketserver.ThreadingTCPServer(("127.0.0.1", port), handler)
        self._server.daemon_threads = True
        self._thread = threading.Thread(
            target=self._server.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True
        )
        self._thread.start()

    def __enter__(self) -> DictionaryStandIn:
        """For use in a with statement."""
        return self

    def __exit__(self, *_: object) -> None:
        """Stop."""
        self.close()

    @property
    def address(self) -> str:
        """To give to a client."""
        return f"127.0.0.1:{self._server.server_address[1]}"

    def close(self) -> None:
        """Stop serving."""
        self._server.shutdown()
        self._server.server_close()
        self._thread.join(timeout=2.0)


class _Handler(socketserver.StreamRequestHandler):
    misbehave = ""

    def handle(self) -> None:
        """Answer one client until it leaves."""
        if self.misbehave == "rambles":
            self._say("Welcome, welcome, welcome.")
            return
        self._say("220 wide-margin stand-in <auth.mime> <1@stand-in>")
        while line := self.rfile.readline(4096):
            command = line.decode("utf-8", "replace").strip()
            try:
                if not self._answer(command):
                    return
            except (BrokenPipeError, ConnectionResetError):
                return

    def _answer(self, command: str) -> bool:
        name = command.upper()
        if name.startswith("CLIENT"):
            self._say("250 ok")
        elif name.startswith(("SHOW DB", "SHOW DATABASES")):
            self._say(f"110 {len(_databases())} databases present")
            for database, (_, _, title) in _databases().items():
                self._say(f'{database} "{title}"')
            self._say(".")
            self._say("250 ok")
        elif match := _DEFINE.match(command):
            return self._define(match[1], re.sub(r"\\(.)", r"\1", match[2]))
        elif name == "QUIT":
            self._say("221 bye")
            return False
        else:
            self._say("500 unknown command")
        return True

    def _define(self, database: str, word: str) -> bool:
        if self.misbehave == "silent":
            time.sleep(SILENCE)
        found = []
        for name, (source, target, title) in _databases().items():
            if database not in ("*", "!", name):
                continue
            for other in _translations(source, target).get(word.casefold(), ())[:1]:
                found.append((name, title, other))
        if not found:
            self._say("552 no match")
            return True
        found = found[:1] if database == "!" else found
        self._say(f"150 {len(found)} definitions retrieved")
        for name, title, other in found:
            self._say(f'151 "{word}" {name} "{title}"')
            self._say(word)
            if self.misbehave == "closes":
                return False
            while self.misbehave == "endless":
                self._say("and so on " * 50)
            self._say(f".{other}" if other.startswith(".") else other)
            self._say(".")
        self._say("250 ok")
        return True

    def _say(self, line: str) -> None:
        self.wfile.write(line.encode() + b"\r\n")
        self.wfile.flush()


@cache
def _databases() -> dict[str, tuple[str, str, str]]:
    """Short name to the two languages and the full name."""
    return {
        f"stand-in-{_CODES[a]}-{_CODES[b]}": (a, b, f"Stand-in: {_NAMES[a]} - {_NAMES[b]}")
        for a in _CODES for b in _CODES if a != b
    }  # fmt: skip


@cache
def _translations(source: str, target: str) -> dict[str, list[str]]:
    head, *rows = [line.split("\t") for line in text_of("stand-in-lexicon.tsv").splitlines()]
    first, second = head.index(source), head.index(target)
    found: dict[str, list[str]] = {}
    for row in rows:
        if len(row) > max(first, second) and row[first] and row[second]:
            found.setdefault(row[first].casefold(), []).append(row[second])
    return found
