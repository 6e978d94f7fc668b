"""A stand-in for Speech Dispatcher: it speaks the protocol, says nothing, and notes it all."""

from __future__ import annotations

import select
import socketserver
import threading
from contextlib import suppress

SILENCE = 20.0


class SpeechStandIn:
    """The server, in a thread of its own on the loopback interface."""

    def __init__(self, *, seconds: float = 0.0, misbehave: str = "") -> None:
        """Start serving.

        Args:
            seconds: How long each sentence takes.
            misbehave: For tests: "closes" hangs up at a sentence, "silent" never tells that it
                has ended, "refuses" takes no sentence, "rambles" does not speak the protocol.
        """
        self.said: list[str] = []
        self.settings: list[str] = []
        owner = self

        class Handler(socketserver.StreamRequestHandler):
            stopped: threading.Event

            def setup(self) -> None:
                super().setup()
                self.stopped = threading.Event()

            def handle(self) -> None:
                _serve(self, owner, seconds, misbehave)

        self._server = socketserver.ThreadingTCPServer(("127.0.0.1", 0), Handler)
        self._server.daemon_threads = True
        self._thread = threading.Thread(
            target=self._server.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True
        )
        self._thread.start()

    def __enter__(self) -> SpeechStandIn:
        """For use in a with statement."""
        return self

    def __exit__(self, *_: object) -> None:
        """Stop."""
        self.close()

    @property
    def address(self) -> tuple[str, int]:
        """Host and port."""
        host, port = self._server.server_address[:2]
        return str(host), int(port)

    def close(self) -> None:
        """Stop serving."""
        self._server.shutdown()
        self._server.server_close()
        self._thread.join(timeout=2.0)


def _serve(
    handler: socketserver.StreamRequestHandler,
    owner: SpeechStandIn,
    seconds: float,
    misbehave: str,
) -> None:
    def tell(line: str) -> None:
        with suppress(BrokenPipeError, ConnectionResetError):
            handler.wfile.write(f"{line}\r\n".encode())

    if misbehave == "rambles":
        tell("hello there")
        return
    while line := handler.rfile.readline().decode("utf-8", "replace").strip("\r\n"):
        word = line.split(" ")[0].upper()
        if word == "SET":
            owner.settings.append(line)
            tell("208 OK SET")
        elif word == "STOP":
            tell("210 OK STOPPED")
        elif word == "SPEAK" and misbehave == "refuses":
            tell("401 ERR NO OUTPUT MODULE")
        elif word == "SPEAK":
            tell("230 OK RECEIVING DATA")
            if (said := _text_sent(handler)) is None:
                return
            owner.said.append(said)
            tell("225-7\r\n225 OK MESSAGE QUEUED")
            if misbehave == "closes":
                return
            wait = SILENCE if misbehave == "silent" else seconds
            if select.select([handler.connection], [], [], wait)[0]:  # it is stopped
                handler.rfile.readline()
                tell("703-7\r\n703-1\r\n703 CANCELED\r\n210 OK STOPPED")
            else:
                tell("702-7\r\n702-1\r\n702 END")
        else:
            tell("500 ERR INVALID COMMAND")


def _text_sent(handler: socketserver.StreamRequestHandler) -> str | None:
    """The lines up to a single full stop; None where the other side hangs up before it."""
    lines: list[str] = []
    while line := handler.rfile.readline():
        data = line.decode("utf-8", "replace").rstrip("\r\n")
        if data == ".":
            return "\n".join(lines)
        lines.append(data.removeprefix(".") if data.startswith("..") else data)
    return None
