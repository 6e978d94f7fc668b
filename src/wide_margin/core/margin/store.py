"""The store: one SQLite file with the documents read and their entries."""

import json
import sqlite3
import threading
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import platformdirs

from wide_margin.core.errors import EntryStoreError
from wide_margin.core.margin.entries import Anchor, Entry

_SCHEMA = """
CREATE TABLE IF NOT EXISTS document (
    id INTEGER PRIMARY KEY, sha256 TEXT NOT NULL, path TEXT NOT NULL, identity TEXT NOT NULL,
    title TEXT NOT NULL, last_page INTEGER NOT NULL DEFAULT 0, last_y REAL NOT NULL DEFAULT 0,
    opened TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now'))
);
CREATE TABLE IF NOT EXISTS entry (
    id TEXT PRIMARY KEY, document INTEGER NOT NULL REFERENCES document(id),
    kind TEXT NOT NULL, anchor TEXT NOT NULL, body TEXT NOT NULL,
    created TEXT NOT NULL, changed TEXT NOT NULL, deleted INTEGER NOT NULL DEFAULT 0
);
CREATE TABLE IF NOT EXISTS outline (
    document INTEGER PRIMARY KEY REFERENCES document(id), sha256 TEXT NOT NULL, rows TEXT NOT NULL
);
CREATE INDEX IF NOT EXISTS entry_by_document ON entry (document, deleted);
"""


@dataclass(frozen=True, slots=True)
class DocumentRecord:
    """A document the store knows, whatever its file is called or has become."""

    id: int
    sha256: str
    path: str
    title: str
    last_page: int
    last_y: float
    n_entries: int = 0
    opened: str = ""
    is_new_version: bool = False
    """Whether the content is another than at the last opening."""


def default_store_path() -> Path:
    """Where entries are kept, under the user's data folder (XDG base directories)."""
    folder = Path(platformdirs.user_data_dir("wide-margin", appauthor=False))
    return folder / "entries.sqlite"


class Store:
    """Entries on disk. Safe to use from several threads; every change is written at once."""

    def __init__(self, path: Path) -> None:
        """Open the store, made when missing.

        Raises:
            EntryStoreError: The folder or file cannot be written.
        """
        self.path = path
        self._lock = threading.Lock()
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            self._connection = sqlite3.connect(path, check_same_thread=False, timeout=5.0)
            self._connection.execute("PRAGMA journal_mode = WAL")
            self._connection.executescript(_SCHEMA)
        except (sqlite3.Error, OSError) as error:
            raise EntryStoreError(
                f"The store of entries “{path}” cannot be opened.",
                hint="Is its folder there, and may it be written?",
            ) from error

    def close(self) -> None:
        """Close the file."""
        self._connection.close()

    def record_for(self, sha256: str, path: Path, identity: str, title: str) -> DocumentRecord:
        """The record of a document: by hash, else by /ID, else by path; made when new.

        A file with new content under a known path or /ID keeps its record and entries.
        """
        where = str(path.resolve())
        with self._writing() as connection:
            row = None
            for column, value in (("sha256", sha256), ("identity", identity), ("path", where)):
                if not value:
                    continue
                row = connection.execute(
                    f"SELECT id, sha256 FROM document WHERE {column} = ? ORDER BY opened DESC",
                    (value,),
                ).fetchone()
                if row:
                    break
            if row is None:
                cursor = connection.execute(
                    "INSERT INTO document (sha256, path, identity, title) VALUES (?, ?, ?, ?)",
                    (sha256, where, identity, title),
                )
                number = cursor.lastrowid
            else:
                number = row[0]
                connection.execute(
                    "UPDATE document SET sha256 = ?, path = ?, identity = ?, title = ?,"
                    " opened = strftime('%Y-%m-%dT%H:%M:%SZ', 'now') WHERE id = ?",
                    (sha256, where, identity, title, number),
                )
            found = connection.execute(
                "SELECT id, sha256, path, title, last_page, last_y FROM document WHERE id = ?",
                (number,),
            ).fetchone()
        is_new_version = row is not None and row[1] != sha256
        number, content, kept_path, kept_title, last_page, last_y = found
        return DocumentRecord(
            number, content, kept_path, kept_title, last_page, last_y, is_new_version=is_new_version
        )

    def documents(self, limit: int = 60) -> list[DocumentRecord]:
        """The documents read before, the last one first."""
        with self._writing() as connection:
            rows = connection.execute(
                "SELECT d.id, d.sha256, d.path, d.title, d.last_page, d.last_y,"
                " (SELECT count(*) FROM entry e WHERE e.document = d.id AND e.deleted = 0),"
                " d.opened FROM document d ORDER BY d.opened DESC, d.id DESC LIMIT ?",
                (limit,),
            ).fetchall()
        return [DocumentRecord(*row) for row in rows]

    def relocate(self, document: int, path: Path) -> None:
        """A document was found under another path."""
        with self._writing() as connection:
            connection.execute(
                "UPDATE document SET path = ? WHERE id = ?", (str(path.resolve()), document)
            )

    def remember_place(self, document: int, page: int, y: float) -> None:
        """Where reading stopped."""
        with self._writing() as connection:
            connection.execute(
                "UPDATE document SET last_page = ?, last_y = ? WHERE id = ?", (page, y, document)
            )

    def put_outline(
        self, document: int, sha256: str, rows: Sequence[Mapping[str, Any]] | None
    ) -> None:
        """Keep the outline as the reader has changed it; None for as it was found."""
        with self._writing("The outline was not saved.") as connection:
            if rows is None:
                connection.execute("DELETE FROM outline WHERE document = ?", (document,))
                return
            connection.execute(
                "INSERT OR REPLACE INTO outline VALUES (?, ?, ?)",
                (document, sha256, json.dumps(rows, ensure_ascii=False)),
            )

    def outline(self, document: int) -> tuple[str, list[dict[str, Any]]] | None:
        """The changed outline and the SHA-256 of the file it was changed on, None without one."""
        with self._writing() as connection:
            row = connection.execute(
                "SELECT sha256, rows FROM outline WHERE document = ?", (document,)
            ).fetchone()
        return (row[0], json.loads(row[1])) if row else None

    def outline_of(self, sha256: str) -> list[dict[str, Any]] | None:
        """The changed outline of a file by its content, None without one."""
        with self._writing() as connection:
            row = connection.execute(
                "SELECT rows FROM outline WHERE sha256 = ?", (sha256,)
            ).fetchone()
        return json.loads(row[0]) if row else None

    def put(self, document: int, entry: Entry) -> None:
        """Write an entry, new or changed.

        Raises:
            EntryStoreError: It could not be written.
        """
        row = (entry.id, document, entry.kind, json.dumps(entry.anchor.as_json()),
               json.dumps(entry.body, ensure_ascii=False), entry.created,
               entry.changed or entry.created)  # fmt: skip
        with self._writing() as connection:
            connection.execute("INSERT OR REPLACE INTO entry VALUES (?, ?, ?, ?, ?, ?, ?, 0)", row)

    def delete(self, entry_id: str) -> None:
        """Take an entry out; restore brings it back."""
        with self._writing() as connection:
            connection.execute("UPDATE entry SET deleted = 1 WHERE id = ?", (entry_id,))

    def restore(self, entry_id: str) -> None:
        """Bring a deleted entry back."""
        with self._writing() as connection:
            connection.execute("UPDATE entry SET deleted = 0 WHERE id = ?", (entry_id,))

    def entries(self, document: int) -> list[Entry]:
        """The entries of a document in the order of their creation."""
        with self._writing() as connection:
            rows = connection.execute(
                "SELECT id, kind, anchor, body, created, changed FROM entry"
                " WHERE document = ? AND deleted = 0 ORDER BY created, rowid",
                (document,),
            ).fetchall()
        return [
            Entry(
                row[0], row[1], Anchor.from_json(json.loads(row[2])), json.loads(row[3]), *row[4:]
            )
            for row in rows
        ]

    @contextmanager
    def _writing(self, problem: str = "This entry was not saved.") -> Iterator[sqlite3.Connection]:
        try:
            with self._lock, self._connection:
                yield self._connection
        except sqlite3.Error as error:
            raise EntryStoreError(
                problem, hint=f"Is {self.path.parent} full or read-only?"
            ) from error
