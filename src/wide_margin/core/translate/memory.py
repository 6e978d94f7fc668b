"""Pairs that the reader corrected or took in, and the renderings of terms, kept in one file."""

import contextlib
import sqlite3
from collections.abc import Iterable, Iterator
from datetime import UTC, datetime
from difflib import SequenceMatcher
from pathlib import Path
from typing import NamedTuple

from wide_margin.core.databases import open_database
from wide_margin.core.errors import EntryStoreError
from wide_margin.core.translate.checks import TermRule

MEMORY = "translations.sqlite"
"""Name of the file, beside the store of entries."""
NEAR = 75.0
"""Per cent of likeness from which a kept pair is shown as near."""
MOST_CANDIDATES = 20_000
BUSY_SECONDS = 10.0
"""How long a change waits for another process."""
VERSION = 1


class Kept(NamedTuple):
    """A pair of the memory."""

    source: str
    target: str
    from_language: str
    to_language: str
    changed: str = ""
    """When, ISO 8601."""


class NearPair(NamedTuple):
    """A kept pair whose source is like the one asked for."""

    pair: Kept
    likeness: float
    """Per cent."""
    difference: tuple[tuple[str, str], ...]
    """What the kept source says, and what the one asked for says instead."""


class Memory:
    """Kept pairs and terms. One file for all documents; terms belong to a document.

    Not for several threads at once; several processes may have it open.
    """

    def __init__(self, path: Path | None) -> None:
        """Open the file, or begin it.

        Args:
            path: Where; None keeps it in this process only.

        Raises:
            EntryStoreError: The file is there and is not such a memory, or cannot be written.
        """
        try:
            if path is not None:
                path.parent.mkdir(parents=True, exist_ok=True)
            self._db = open_database(path, BUSY_SECONDS)
            self._db.executescript(
                "CREATE TABLE IF NOT EXISTS pair (source TEXT NOT NULL, target TEXT NOT NULL,"
                " from_language TEXT NOT NULL, to_language TEXT NOT NULL, changed TEXT NOT NULL,"
                " PRIMARY KEY (source, from_language, to_language));"
                "CREATE TABLE IF NOT EXISTS term (document TEXT NOT NULL, language TEXT NOT NULL,"
                " term TEXT NOT NULL, rendering TEXT NOT NULL,"
                " PRIMARY KEY (document, language, term));"
            )
            if self._db.execute("PRAGMA user_version").fetchone()[0] > VERSION:
                raise sqlite3.DatabaseError("a newer version")
            self._db.execute(f"PRAGMA user_version = {VERSION}")
        except (sqlite3.Error, OSError) as error:
            raise EntryStoreError(
                "The memory of translations cannot be opened.", hint="It is left as it is."
            ) from error

    def close(self) -> None:
        """Close the file."""
        self._db.close()

    def keep(self, pairs: Iterable[Kept]) -> int:
        """Keep pairs; of one source in one language the last counts.

        Returns:
            How many were kept: those with words on both sides.

        Raises:
            EntryStoreError: The file cannot be written.
        """
        now = datetime.now(UTC).isoformat(timespec="seconds")
        rows = [
            (_one_line(p.source), _one_line(p.target), p.from_language, p.to_language,
             p.changed or now)
            for p in pairs if p.source.strip() and p.target.strip()
        ]  # fmt: skip
        with self._writing():
            self._db.executemany("INSERT OR REPLACE INTO pair VALUES (?, ?, ?, ?, ?)", rows)
        return len(rows)

    def forget(self, source: str, to_language: str) -> None:
        """Forget what is kept of a sentence in a language."""
        with self._writing():
            self._db.execute(
                "DELETE FROM pair WHERE source = ? AND to_language = ?",
                (_one_line(source), to_language),
            )

    def exact(self, source: str, to_language: str) -> Kept | None:
        """The pair that is kept of just this sentence."""
        row = self._db.execute(
            "SELECT * FROM pair WHERE source = ? AND to_language = ?",
            (_one_line(source), to_language),
        ).fetchone()
        return Kept(*row) if row else None

    def near(self, source: str, to_language: str) -> NearPair | None:
        """The kept pair whose source is most like a sentence, but not the same."""
        wanted = _one_line(source)
        rows = [
            Kept(*row) for row in self._db.execute(
                "SELECT * FROM pair WHERE to_language = ? AND source != ? AND length(source)"
                " BETWEEN ? AND ? ORDER BY changed DESC LIMIT ?",
                (to_language, wanted, 0.6 * len(wanted), 1.7 * len(wanted), MOST_CANDIDATES),
            )
        ]  # fmt: skip
        from rapidfuzz import fuzz, process, utils  # once something is kept

        best = process.extractOne(
            wanted, [kept.source for kept in rows], scorer=fuzz.ratio,
            processor=utils.default_process, score_cutoff=NEAR,
        )  # fmt: skip
        if best is None:
            return None
        kept = rows[best[2]]
        return NearPair(kept, round(best[1], 1), _difference(kept.source, wanted))

    def pairs(self, to_language: str = "") -> Iterator[Kept]:
        """All that is kept, the oldest first; of one language where it is given."""
        for row in self._db.execute(
            "SELECT * FROM pair WHERE ? IN ('', to_language) ORDER BY changed, source",
            (to_language,),
        ):
            yield Kept(*row)

    def set_term(self, document: str, language: str, rule: TermRule) -> None:
        """Render a term of a document so from now on.

        Args:
            document: Its SHA-256.
            language: Of the translations.
            rule: An empty rendering keeps the term as it is.
        """
        with self._writing():
            self._db.execute(
                "INSERT OR REPLACE INTO term VALUES (?, ?, ?, ?)",
                (document, language, _one_line(rule.term), _one_line(rule.rendering)),
            )

    def set_terms(self, document: str, language: str, rules: Iterable[TermRule]) -> None:
        """Render the terms of a document so from now on, and no others; see set_term."""
        rows = [(document, language, _one_line(r.term), _one_line(r.rendering)) for r in rules]
        with self._writing():
            self._db.execute(
                "DELETE FROM term WHERE document = ? AND language = ?", (document, language)
            )
            self._db.executemany("INSERT OR REPLACE INTO term VALUES (?, ?, ?, ?)", rows)

    def drop_term(self, document: str, language: str, term: str) -> None:
        """Render a term freely again."""
        with self._writing():
            self._db.execute(
                "DELETE FROM term WHERE document = ? AND language = ? AND term = ?",
                (document, language, _one_line(term)),
            )

    def terms(self, document: str, language: str) -> tuple[TermRule, ...]:
        """How terms of a document are to be rendered in a language."""
        rows = self._db.execute(
            "SELECT term, rendering FROM term WHERE document = ? AND language = ? ORDER BY term",
            (document, language),
        )
        return tuple(TermRule(*row) for row in rows)

    @contextlib.contextmanager
    def _writing(self) -> Iterator[None]:
        try:
            self._db.execute("BEGIN IMMEDIATE")
            yield
            self._db.execute("COMMIT")
        except sqlite3.Error as error:
            with contextlib.suppress(sqlite3.Error):
                self._db.execute("ROLLBACK")
            raise EntryStoreError(
                "The memory of translations cannot be written.", hint="Is the disk full?"
            ) from error


def _one_line(text: str) -> str:
    return " ".join(text.split())


def _difference(kept: str, wanted: str) -> tuple[tuple[str, str], ...]:
    """Words of the one that the other has not, side by side."""
    a, b = kept.split(), wanted.split()
    changes = SequenceMatcher(None, a, b, autojunk=False).get_opcodes()
    return tuple(
        (" ".join(a[i:j]), " ".join(b[k:n])) for what, i, j, k, n in changes if what != "equal"
    )
