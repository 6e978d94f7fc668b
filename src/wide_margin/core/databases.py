"""SQLite files that several windows and processes have open at once."""

import sqlite3
import time
from pathlib import Path

BETWEEN_TRIES = 0.01
"""Seconds after which a file that another process begins is tried again."""


def open_database(path: Path | None, patience: float) -> sqlite3.Connection:
    """Open a file with a write-ahead log; changes are written at once unless one begins them.

    Args:
        path: Where; None keeps it in this process only.
        patience: Seconds that a change, and the opening, wait for another process.

    Returns:
        A connection that any thread may use, one at a time.

    Raises:
        sqlite3.Error: It is no such file, or cannot be written.
    """
    connection = sqlite3.connect(
        path or ":memory:", timeout=patience, isolation_level=None, check_same_thread=False
    )
    until = time.monotonic() + patience
    try:
        while not _has_log(connection, is_last=time.monotonic() > until):
            time.sleep(BETWEEN_TRIES)
    except sqlite3.Error:
        connection.close()
        raise
    return connection


def _has_log(connection: sqlite3.Connection, *, is_last: bool) -> bool:
    """Give a file its log; False where another process just begins it, but at the last try.

    SQLite does not wait by itself where two switch a new file to its log at once.
    """
    try:
        connection.execute("PRAGMA journal_mode = WAL")
    except sqlite3.OperationalError as error:
        is_busy = error.sqlite_errorcode & 0xFF in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED)
        if is_last or not is_busy:
            raise
        return False
    return True
