import sqlite3
import threading
from contextlib import closing

import pytest

from wide_margin.core.databases import open_database


@pytest.fixture
def busy(tmp_path):
    """A new file that another connection has begun, before there is a log beside it."""
    path = tmp_path / "kept.sqlite"
    with closing(sqlite3.connect(path, isolation_level=None, check_same_thread=False)) as other:
        other.execute("CREATE TABLE kept (word TEXT)")
        other.execute("BEGIN IMMEDIATE")
        yield path, other


def test_a_file_that_another_begins_just_now_is_waited_for(busy):
    path, other = busy
    ending = threading.Timer(0.2, lambda: other.execute("COMMIT"))
    ending.start()
    with closing(open_database(path, 10.0)) as opened:
        assert opened.execute("PRAGMA journal_mode").fetchone() == ("wal",)
    ending.join()


def test_a_file_that_stays_busy_is_given_up(busy):
    with pytest.raises(sqlite3.OperationalError, match="locked"):
        open_database(busy[0], 0.05)


def test_what_is_no_database_is_told_at_once(tmp_path):
    (tmp_path / "notes.sqlite").write_text("no database at all " * 100)
    with pytest.raises(sqlite3.DatabaseError, match="not a database"):
        open_database(tmp_path / "notes.sqlite", 60.0)
