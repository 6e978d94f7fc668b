"""The tables of the store, and the way from older ones to these."""

import json
import shutil
import sqlite3
from pathlib import Path

SCHEMA = 4
"""PRAGMA user_version of the tables below; 1 is the store before it had a version."""

TABLES = """
CREATE TABLE document (
    id INTEGER PRIMARY KEY,
    sha256 TEXT NOT NULL UNIQUE,
    anchored TEXT NOT NULL,
    path TEXT NOT NULL,
    identity TEXT NOT NULL,
    title TEXT NOT NULL,
    last_page INTEGER NOT NULL DEFAULT 0,
    last_y REAL NOT NULL DEFAULT 0,
    opened TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
);
CREATE TABLE entry (
    row INTEGER PRIMARY KEY,
    id TEXT NOT NULL UNIQUE,
    document INTEGER NOT NULL REFERENCES document(id) ON DELETE CASCADE,
    kind TEXT NOT NULL,
    page INTEGER NOT NULL,
    anchor TEXT NOT NULL,
    body TEXT NOT NULL,
    created TEXT NOT NULL,
    changed TEXT NOT NULL,
    deleted INTEGER NOT NULL DEFAULT 0
);
CREATE TABLE outline (
    document INTEGER PRIMARY KEY REFERENCES document(id) ON DELETE CASCADE,
    sha256 TEXT NOT NULL,
    rows TEXT NOT NULL
);
CREATE INDEX entry_by_document ON entry (document, deleted);
CREATE VIRTUAL TABLE entry_text USING fts5(
    text, tokenize = "unicode61 remove_diacritics 2"
);
"""
"""anchored is the SHA-256 of the version that the entries' places were found in.
entry_text holds all words of every entry that is not deleted, under the row of the entry."""

TESTED = """
CREATE TABLE tested (
    document INTEGER NOT NULL REFERENCES document(id) ON DELETE CASCADE,
    question TEXT NOT NULL,
    known INTEGER NOT NULL,
    PRIMARY KEY (document, question)
) WITHOUT ROWID
"""
"""What the reader knew when testing themselves; new in version 3."""
TAGS = "ALTER TABLE entry ADD COLUMN tags TEXT NOT NULL DEFAULT '[]'"
"""The tags of an entry, a JSON list; new in version 4."""


class NewerStoreError(Exception):
    """The store was written by a newer version of the application."""


def version_of(connection: sqlite3.Connection) -> int:
    """The version of a store's tables, 0 where there are none."""
    version = int(connection.execute("PRAGMA user_version").fetchone()[0])
    if version == 0 and _has(connection, "entry"):
        return 1
    return version


def bring_up_to_date(connection: sqlite3.Connection, path: Path) -> None:
    """Make the tables, or change older ones to these; a copy of the older file is kept beside.

    Raises:
        NewerStoreError: The tables are newer than this version knows.
        sqlite3.Error: The file is damaged, locked or cannot be written.
    """
    version = version_of(connection)
    if version == SCHEMA:
        return
    if version > SCHEMA:
        raise NewerStoreError
    if version:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        shutil.copy2(path, path.with_suffix(f".before-{SCHEMA}.sqlite"))
    connection.execute("PRAGMA foreign_keys = OFF")
    connection.execute("BEGIN IMMEDIATE")
    try:
        version = version_of(connection)  # another process may have done it while this one waited
        if version == 1:
            for table in ("document", "entry", "outline"):
                if _has(connection, table):
                    connection.execute(f"ALTER TABLE {table} RENAME TO old_{table}")
            connection.execute("DROP INDEX IF EXISTS entry_by_document")
        if version < 2:
            for statement in TABLES.split(";\n"):
                if statement.strip():
                    connection.execute(statement)
        if version == 1:
            _take_over(connection)
        if version < 3:
            connection.execute(TESTED)
        if version < SCHEMA:
            connection.execute(TAGS)
        connection.execute(f"PRAGMA user_version = {SCHEMA}")
        connection.execute("COMMIT")
    except BaseException:
        connection.execute("ROLLBACK")
        raise
    finally:
        connection.execute("PRAGMA foreign_keys = ON")


def _take_over(connection: sqlite3.Connection) -> None:
    """Rows of the first tables; documents of the same content become one."""
    record: dict[str, int] = {}
    now: dict[int, int] = {}
    rows = connection.execute(
        "SELECT id, sha256, path, identity, title, last_page, last_y, opened FROM old_document"
        " ORDER BY opened DESC, id DESC"
    ).fetchall()
    for number, sha256, *rest in rows:
        if sha256 not in record:
            record[sha256] = number
            connection.execute(
                "INSERT INTO document VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
                (number, sha256, sha256, *rest),
            )
        now[number] = record[sha256]
    for row in connection.execute(
        "SELECT id, document, kind, anchor, body, created, changed, deleted FROM old_entry"
        " ORDER BY rowid"
    ).fetchall():
        entry_id, document, kind, anchor, body, created, changed, deleted = row
        if document in now:
            connection.execute(
                "INSERT INTO entry VALUES (NULL, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
                (entry_id, now[document], kind, _page(anchor), anchor, body, created, changed,
                 deleted),
            )  # fmt: skip
    if _has(connection, "old_outline"):
        for document, sha256, outline in connection.execute("SELECT * FROM old_outline").fetchall():
            if document in now:
                connection.execute(
                    "INSERT OR IGNORE INTO outline VALUES (?, ?, ?)",
                    (now[document], sha256, outline),
                )
    for table in ("old_outline", "old_entry", "old_document"):
        connection.execute(f"DROP TABLE IF EXISTS {table}")


def _page(anchor: str) -> int:
    try:
        return int(json.loads(anchor)["page"])
    except (ValueError, LookupError, TypeError):
        return 0  # damaged: told when the entry is read


def _has(connection: sqlite3.Connection, table: str) -> bool:
    found = connection.execute(
        "SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = ?", (table,)
    )
    return found.fetchone() is not None
