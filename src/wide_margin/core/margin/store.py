"""The store: one SQLite file with the documents read and their entries."""

from __future__ import annotations

import json
import logging
import os
import sqlite3
import threading
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from contextlib import contextmanager, suppress
from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import Any, ParamSpec, TypeVar

import msgspec
import platformdirs

from wide_margin.core.databases import open_database
from wide_margin.core.errors import EntryStoreError
from wide_margin.core.margin.bodies import body_from_json, body_to_json
from wide_margin.core.margin.entries import Anchor, Entry
from wide_margin.core.margin.kinds import EntryKind
from wide_margin.core.margin.schema import NewerStoreError, bring_up_to_date

log = logging.getLogger(__name__)

BUSY_SECONDS = 5.0
"""How long a write waits for another process."""
_NOW = "strftime('%Y-%m-%dT%H:%M:%fZ', 'now')"
Arguments = ParamSpec("Arguments")
Result = TypeVar("Result")


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
    """Whether the places of its entries were found in another version of the file."""
    offered: int = 0
    """Another record of the same /ID with entries: perhaps an older version of this document."""


@dataclass(frozen=True, slots=True)
class KeptEntries:
    """The entries of a document, and how many could not be read."""

    entries: tuple[Entry, ...]
    n_damaged: int = 0


@dataclass(frozen=True, slots=True)
class Opened:
    """A store that is open, and what had to be done for it."""

    store: "Store"
    trouble: EntryStoreError | None = field(default=None)


def default_store_path() -> Path:
    """Where entries are kept, under the user's data folder (XDG base directories)."""
    folder = Path(platformdirs.user_data_dir("wide-margin", appauthor=False))
    return folder / "entries.sqlite"


def open_store(path: Path) -> Opened:
    """The store at a path, whatever its state: reading goes on in any case.

    A broken file is set aside under another name, and a new one begun. Where the file cannot be
    written, or is of a newer version, entries are kept in memory for the time being.
    """
    try:
        return Opened(Store(path))
    except EntryStoreError as error:
        cause = error.__cause__
        trouble = error
    # These two are no damage: the file stays where it is.
    is_damage = isinstance(cause, sqlite3.DatabaseError) and not isinstance(
        cause, sqlite3.OperationalError
    )
    if is_damage:
        aside = path.with_name(f"{path.stem}.broken-{time.strftime('%Y%m%d-%H%M%S')}.sqlite")
        with suppress(OSError, EntryStoreError):
            path.replace(aside)
            for ending in ("-wal", "-shm"):
                with suppress(OSError):
                    Path(f"{path}{ending}").replace(Path(f"{aside}{ending}"))
            told = EntryStoreError(
                "The store of entries was damaged; a new one is begun.",
                hint=f"The damaged file is now called “{aside.name}”.",
            )
            return Opened(Store(path), told)
    return Opened(
        Store(None),
        EntryStoreError(f"{trouble.message} What you keep now lasts until you close the window.",
                        hint=trouble.hint),
    )  # fmt: skip


class Store:
    """Entries on disk. Safe to use from several threads; every change is written at once.

    ``later`` does the same off the calling thread, one thing after the other.
    """

    def __init__(self, path: Path | None) -> None:
        """Open the store, made when missing; None keeps everything in memory.

        Raises:
            EntryStoreError: The file cannot be read or written, is damaged or is newer.
        """
        self.path = path
        self._lock = threading.RLock()
        self._thread = ThreadPoolExecutor(1, thread_name_prefix="store")
        try:
            if path is not None:
                path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
                _only_for_the_user(path)
            self._connection = open_database(path, BUSY_SECONDS)
        except (sqlite3.Error, OSError) as error:
            raise self._cannot_open() from error
        try:
            bring_up_to_date(self._connection, path or Path())
            self._connection.execute("PRAGMA foreign_keys = ON")
        except NewerStoreError as error:
            self._connection.close()
            raise EntryStoreError(
                "The store of entries was written by a newer version of Wide Margin.",
                hint="Use that version; this one leaves the store as it is.",
            ) from error
        except (sqlite3.Error, OSError) as error:
            self._connection.close()
            raise self._cannot_open() from error

    def _cannot_open(self) -> EntryStoreError:
        return EntryStoreError(
            f"The store of entries “{self.path}” cannot be opened.",
            hint="Is its folder there, and may it be written?",
        )

    def close(self) -> None:
        """Finish what is to be written, and close the file."""
        self._thread.shutdown(wait=True)
        self._connection.close()

    def later(
        self, work: Callable[Arguments, Result], *arguments: Arguments.args,
        **named: Arguments.kwargs,
    ) -> Future[Result]:  # fmt: skip
        """Call one of the methods below in the store's own thread, after those before it."""
        return self._thread.submit(work, *arguments, **named)

    # --- documents

    def record_for(
        self, sha256: str, path: Path, identity: str, title: str, *, is_fetched: bool = False
    ) -> DocumentRecord:
        """The record of a document; made when new.

        The content decides. A file with new content under a path that is known is a new version,
        and keeps its record and entries; one that was fetched is not, since an address may give
        anything. The same /ID (ISO 32000-1, 14.4) only offers the other record's entries; an
        ``identity`` of "" leaves the one that is known.
        """
        where = _absolute(path)
        with self._writing() as connection:
            connection.execute(
                "INSERT INTO document (sha256, anchored, path, identity, title)"
                " SELECT ?, ?, ?, ?, ?"
                " WHERE NOT EXISTS (SELECT 1 FROM document WHERE sha256 = ?)"
                " AND (? OR NOT EXISTS (SELECT 1 FROM document WHERE path = ?))",
                (sha256, sha256, where, identity, title, sha256, is_fetched, where),
            )
            row = connection.execute(
                "SELECT id, anchored FROM document WHERE sha256 = ? OR path = ?"
                " ORDER BY sha256 = ? DESC, opened DESC, id DESC",
                (sha256, where, sha256),
            ).fetchone()
            number, anchored = row
            connection.execute(
                "UPDATE document SET sha256 = ?, path = ?, title = ?,"
                " identity = coalesce(nullif(?, ''), identity),"
                f" opened = {_NOW} WHERE id = ?",
                (sha256, where, title, identity, number),
            )
            record = self._record(connection, number)
            offered = 0
            if identity and not record.n_entries:
                other = connection.execute(
                    "SELECT id FROM document d WHERE identity = ? AND id != ? AND EXISTS"
                    " (SELECT 1 FROM entry e WHERE e.document = d.id AND e.deleted = 0)"
                    " ORDER BY opened DESC",
                    (identity, number),
                ).fetchone()
                offered = other[0] if other else 0
        return replace(record, is_new_version=anchored != sha256, offered=offered)

    def _record(self, connection: sqlite3.Connection, number: int) -> DocumentRecord:
        row = connection.execute(f"{_RECORDS} WHERE d.id = ?", (number,)).fetchone()
        return DocumentRecord(*row)

    def take_entries_from(self, document: int, other: int) -> int:
        """Move the entries of another record to this one; how many there were."""
        with self._writing() as connection:
            connection.execute("UPDATE document SET anchored = '' WHERE id = ?", (document,))
            cursor = connection.execute(
                "UPDATE entry SET document = ? WHERE document = ?", (document, other)
            )
            return cursor.rowcount

    def note_anchored(self, document: int, sha256: str) -> None:
        """The places of its entries are those of this version now."""
        with self._writing() as connection:
            connection.execute("UPDATE document SET anchored = ? WHERE id = ?", (sha256, document))

    def documents(self, limit: int = 60) -> list[DocumentRecord]:
        """The documents read before, the last one first."""
        with self._reading("The documents read before are not known.") as connection:
            rows = connection.execute(
                f"{_RECORDS} ORDER BY d.opened DESC, d.id DESC LIMIT ?", (limit,)
            ).fetchall()
        return [DocumentRecord(*row) for row in rows]

    def relocate(self, document: int, path: Path) -> None:
        """A document was found under another path."""
        with self._writing() as connection:
            connection.execute(
                "UPDATE document SET path = ? WHERE id = ?", (_absolute(path), document)
            )

    def remember_place(self, document: int, page: int, y: float) -> None:
        """Where reading stopped."""
        with self._writing("Where you read is not kept.") as connection:
            connection.execute(
                "UPDATE document SET last_page = ?, last_y = ? WHERE id = ?", (page, y, document)
            )

    # --- outlines

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
        with self._reading("Your outline cannot be read.") as connection:
            row = connection.execute(
                "SELECT sha256, rows FROM outline WHERE document = ?", (document,)
            ).fetchone()
        return (row[0], _rows(row[1])) if row else None

    def outline_of(self, sha256: str) -> list[dict[str, Any]] | None:
        """The changed outline of a file by its content, None without one."""
        with self._reading("Your outline cannot be read.") as connection:
            row = connection.execute(
                "SELECT rows FROM outline WHERE sha256 = ?", (sha256,)
            ).fetchone()
        return _rows(row[0]) if row else None

    # --- what was known

    def tested(self, document: int) -> dict[str, bool]:
        """Questions the reader has tested themselves with, and whether they knew the answer."""
        with self._reading("What you knew cannot be read.") as connection:
            rows = connection.execute(
                "SELECT question, known FROM tested WHERE document = ?", (document,)
            ).fetchall()
        return {question: bool(known) for question, known in rows}

    def keep_tested(self, document: int, question: str, *, known: bool) -> None:
        """Keep whether the reader knew the answer to a question.

        Raises:
            EntryStoreError: It could not be written.
        """
        with self._writing("What you knew could not be kept.") as connection:
            connection.execute(
                "INSERT INTO tested VALUES (?, ?, ?)"
                " ON CONFLICT (document, question) DO UPDATE SET known = excluded.known",
                (document, question, known),
            )

    # --- entries

    def put(self, document: int, *entries: Entry) -> None:
        """Write entries, new or changed, all or none of them.

        Raises:
            EntryStoreError: They could not be written.
        """
        with self._writing() as connection:
            for entry in entries:
                connection.execute(
                    "INSERT INTO entry (id, document, kind, page, anchor, body, created, changed,"
                    " deleted, tags) VALUES (?, ?, ?, ?, ?, ?, ?, ?, 0, ?)"
                    " ON CONFLICT (id) DO UPDATE"
                    " SET page = excluded.page, anchor = excluded.anchor, body = excluded.body,"
                    " changed = excluded.changed, tags = excluded.tags, deleted = 0",
                    (entry.id, document, str(entry.kind), entry.anchor.page,
                     msgspec.json.encode(entry.anchor).decode(), body_to_json(entry.body),
                     entry.created, entry.changed or entry.created,
                     json.dumps(entry.tags, ensure_ascii=False)),
                )  # fmt: skip
                self._index(connection, entry.id, entry.words)

    def delete(self, *entry_ids: str) -> None:
        """Take entries out; restore brings them back."""
        self._set_deleted(entry_ids, deleted=True)

    def restore(self, *entry_ids: str) -> None:
        """Bring deleted entries back."""
        self._set_deleted(entry_ids, deleted=False)

    def _set_deleted(self, entry_ids: Sequence[str], *, deleted: bool) -> None:
        with self._writing() as connection:
            for entry_id in entry_ids:
                changed = connection.execute(
                    "UPDATE entry SET deleted = ? WHERE id = ?", (int(deleted), entry_id)
                )
                if not changed.rowcount:
                    continue
                row = connection.execute(
                    f"SELECT {_ENTRY} FROM entry WHERE id = ?", (entry_id,)
                ).fetchone()
                entry = None if deleted or row is None else _entry(row)
                self._index(connection, entry_id, entry.words if entry else "")

    def _index(self, connection: sqlite3.Connection, entry_id: str, words: str) -> None:
        (row,) = connection.execute("SELECT row FROM entry WHERE id = ?", (entry_id,)).fetchone()
        connection.execute("DELETE FROM entry_text WHERE rowid = ?", (row,))
        if words:
            connection.execute("INSERT INTO entry_text (rowid, text) VALUES (?, ?)", (row, words))

    def entries(self, document: int) -> KeptEntries:
        """The entries of a document in the order of their creation.

        One that is damaged is left out and counted; it stays in the store as it is.
        """
        with self._reading("The entries cannot be read.") as connection:
            rows = connection.execute(
                f"SELECT {_ENTRY} FROM entry WHERE document = ? AND deleted = 0"
                " ORDER BY created, row",
                (document,),
            ).fetchall()
        found = [entry for row in rows if (entry := _entry(row)) is not None]
        return KeptEntries(tuple(found), len(rows) - len(found))

    def search(self, words: str, document: int | None = None) -> list[str]:
        """Ids of the entries that hold all of some words, the last changed first."""
        wanted = " ".join(f'"{word.replace(chr(34), "")}"*' for word in words.split())
        if not wanted:
            return []
        with self._reading("The entries cannot be searched.") as connection:
            rows = connection.execute(
                "SELECT e.id FROM entry_text t JOIN entry e ON e.row = t.rowid"
                " WHERE entry_text MATCH ? AND e.deleted = 0 AND (? IS NULL OR e.document = ?)"
                " ORDER BY e.changed DESC",
                (wanted, document, document),
            ).fetchall()
        return [row[0] for row in rows]

    @contextmanager
    def _reading(self, problem: str) -> Iterator[sqlite3.Connection]:
        try:
            with self._lock:
                yield self._connection
        except sqlite3.Error as error:
            raise EntryStoreError(problem, hint=f"Can {self.path} be read?") from error

    @contextmanager
    def _writing(self, problem: str = "This entry was not saved.") -> Iterator[sqlite3.Connection]:
        """One transaction, which other processes see whole or not at all."""
        try:
            with self._lock:
                self._connection.execute("BEGIN IMMEDIATE")
                try:
                    yield self._connection
                except BaseException:
                    self._connection.execute("ROLLBACK")
                    raise
                self._connection.execute("COMMIT")
        except sqlite3.Error as error:
            where = self.path.parent if self.path else "the memory"
            raise EntryStoreError(problem, hint=f"Is {where} full or read-only?") from error


_RECORDS = (
    "SELECT d.id, d.sha256, d.path, d.title, d.last_page, d.last_y,"
    " (SELECT count(*) FROM entry e WHERE e.document = d.id AND e.deleted = 0),"
    " d.opened FROM document d"
)
_ENTRY = "id, kind, anchor, body, created, changed, tags"


def _entry(row: tuple[str, ...]) -> Entry | None:
    """A row as an entry; None where it is damaged."""
    entry_id, kind, anchor, body, created, changed, tags = row
    try:
        known = EntryKind(kind)
        where = msgspec.json.decode(anchor, type=Anchor)
        named = tuple(msgspec.json.decode(tags, type=list[str]))
        return Entry(entry_id, known, where, body_from_json(known, body), created, changed, named)
    except (ValueError, TypeError, EntryStoreError):
        log.warning("a damaged entry was left out", exc_info=True)
        return None


def _rows(text: str) -> list[dict[str, Any]]:
    try:
        rows = json.loads(text)
    except ValueError as error:
        raise EntryStoreError(
            "Your outline of this document is damaged and is left out.",
            hint="The sections are shown as they were found.",
        ) from error
    return [row for row in rows if isinstance(row, dict)]


def _absolute(path: Path) -> str:
    try:
        return str(path.resolve())
    except OSError:
        return str(path.absolute())


def _only_for_the_user(path: Path) -> None:
    """Entries are the reader's own: nobody else on the machine may read them."""
    with suppress(OSError):
        path.parent.chmod(0o700)
    if path.exists():
        with suppress(OSError):
            path.chmod(0o600)
    else:
        os.close(os.open(path, os.O_CREAT | os.O_RDWR, 0o600))
