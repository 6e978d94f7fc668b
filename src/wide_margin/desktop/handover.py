"""One application for one reader: a second start hands its file to the one that runs.

Two processes on one store would not hear of each other's entries; so the first listens on a local
socket, and a later one sends what it was started with and ends.
"""

from __future__ import annotations

import getpass
import hashlib
import json
import logging
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QDir, QObject, Signal

from wide_margin.core.later import loaded_later

if TYPE_CHECKING:
    from PySide6 import QtNetwork
else:
    QtNetwork = loaded_later("PySide6.QtNetwork")

log = logging.getLogger(__name__)

WAIT_MS = 1500
MAX_BYTES = 65_536


def _name(store: Path) -> str:
    """The socket's name: one for each store and user."""
    key = f"{getpass.getuser()}:{store.absolute()}"
    return f"wide-margin-{hashlib.sha256(key.encode()).hexdigest()[:16]}"


def hand_over(store: Path, request: dict[str, str | None]) -> bool:
    """Give a request to the application that runs on a store; whether there is one that took it."""
    if not Path(QDir.tempPath(), _name(store)).exists():
        return False  # nobody listens, and the network need not be loaded to hear so
    socket = QtNetwork.QLocalSocket()
    socket.connectToServer(_name(store))
    if not socket.waitForConnected(WAIT_MS):
        return False
    socket.write(json.dumps(request).encode() + b"\n")
    socket.flush()
    answer = bytes(socket.readAll().data()) if socket.waitForReadyRead(WAIT_MS) else b""
    socket.disconnectFromServer()
    return answer == b"ok\n"


class Handover(QObject):
    """Listens for later starts."""

    asked = Signal(dict)

    def __init__(self, store: Path, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._server = QtNetwork.QLocalServer(self)
        self._server.setSocketOptions(QtNetwork.QLocalServer.SocketOption.UserAccessOption)
        self._server.newConnection.connect(self._greet)
        name = _name(store)
        if not self._server.listen(name):
            QtNetwork.QLocalServer.removeServer(name)  # of an application that was killed
            if not self._server.listen(name):
                log.warning("later starts cannot be heard: %s", self._server.errorString())

    def close(self) -> None:
        """Listen no more."""
        self._server.close()

    def _greet(self) -> None:
        while (socket := self._server.nextPendingConnection()) is not None:
            socket.readyRead.connect(lambda s=socket: self._take(s))
            socket.disconnected.connect(socket.deleteLater)
            self._take(socket)

    def _take(self, socket: QtNetwork.QLocalSocket) -> None:
        if not socket.canReadLine():
            if socket.bytesAvailable() > MAX_BYTES:
                socket.abort()
            return
        try:
            request = json.loads(bytes(socket.readLine(MAX_BYTES).data()))
        except (ValueError, RecursionError):
            socket.abort()
            return
        socket.write(b"ok\n")
        socket.flush()
        if isinstance(request, dict):
            self.asked.emit(request)
