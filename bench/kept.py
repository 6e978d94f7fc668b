"""Whether what was kept stays kept, and how 5,000 entries are shown.

    python bench/kept.py [--rounds 200] [--entries 5000]

A process that keeps entries is killed at a moment chosen by lot, round after round: whatever it
had told of must be there, and the store must open. Two processes change entries of one document at
once: nothing of either may be lost. Last, the Commonplace view opens, filters and searches.
"""

from __future__ import annotations

import argparse
import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from importlib import resources
from pathlib import Path

from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import (
    Anchor,
    Entry,
    EntryKind,
    Ink,
    MarkBody,
    NoteBody,
    Store,
    new_entry,
)  # fmt: skip
from wide_margin.core.margin.gathering import GroupBy

TAGS = ("for later", "to check", "ask again", "second edition", "quoted")


def main() -> None:
    """Kill, compete, show."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--rounds", type=int, default=200)
    parser.add_argument("--entries", type=int, default=5000)
    parser.add_argument(
        "--writing", nargs=3, metavar=("STORE", "N", "NAME"), help=argparse.SUPPRESS
    )
    options = parser.parse_args()
    if options.writing:
        _write(Path(options.writing[0]), int(options.writing[1]), options.writing[2])
        return
    with tempfile.TemporaryDirectory() as folder:
        home = Path(folder)
        print(_killed(home / "killed.sqlite", options.rounds))
        print(_at_once(home / "shared.sqlite"))
        print(_shown(home, options.entries))


def _record(store: Store) -> int:
    return store.record_for("0" * 64, Path("/nowhere/made.pdf"), "made", "Made").id


def _write(path: Path, n: int, name: str) -> None:
    """Keep notes one by one and tell of each once it is kept; each is changed once too."""
    store = Store(path)
    document = _record(store)
    for k in range(n):
        note = new_entry(EntryKind.NOTE, Anchor(k % 50, 20.0), NoteBody(f"{name} {k}"))
        store.put(document, note)
        store.put(document, note.with_tags([name]))
        print(note.id, flush=True)
    store.close()


def _writer(path: Path, n: int, name: str) -> subprocess.Popen[str]:
    return subprocess.Popen(
        [sys.executable, __file__, "--writing", str(path), str(n), name],
        stdout=subprocess.PIPE, text=True,
    )  # fmt: skip


def _killed(path: Path, rounds: int) -> str:
    lot = random.Random(1)
    told: set[str] = set()
    n_lost = n_closed = 0
    for k in range(rounds):
        writer = _writer(path, 10_000, f"round {k}")
        assert writer.stdout is not None
        told.add(writer.stdout.readline().strip())
        time.sleep(lot.random() * 0.05)
        os.kill(writer.pid, signal.SIGKILL)
        lines = writer.stdout.read().split("\n")
        told |= {line for line in lines if len(line) == 32}
        writer.wait()
        try:
            store = Store(path)
        except Exception as error:
            print(error)
            n_closed += 1
            continue
        if k % 20 == 19 or k == rounds - 1:
            kept = {entry.id for entry in store.entries(_record(store)).entries}
            n_lost = len(told - kept)
        store.close()
    return f"killed {rounds} times: {n_lost} of {len(told)} lost, {n_closed} times not to be opened"


def _at_once(path: Path) -> str:
    Store(path).close()
    writers = [_writer(path, 250, name) for name in ("one", "two")]
    told = [line for w in writers for line in w.communicate()[0].split()]
    store = Store(path)
    kept = store.entries(_record(store)).entries
    store.close()
    both = sum(bool(entry.tags) for entry in kept)
    return f"two at once, 500 changes each: {len(told)} told of, {len(kept)} kept, {both} changed"


def _entries(n: int) -> list[Entry]:
    lot = random.Random(2)
    words = [
        "gauge",
        "level",
        "mark",
        "staff",
        "tide",
        "zero",
        "surge",
        "keeper",
        "island",
        "record",
        "station",
        "error",
    ]
    made = []
    for _ in range(n):
        page = lot.randrange(180)
        start = lot.randrange(400)
        quote = " ".join(lot.choices(words, k=12))
        anchor = Anchor(page, 100.0, (SpanOnPage(page, start, start + 60),), quote)
        kind = lot.choice((EntryKind.MARK, EntryKind.NOTE))
        body = (MarkBody(ink=lot.choice(list(Ink))) if kind is EntryKind.MARK
                else NoteBody(" ".join(lot.choices(words, k=30))))  # fmt: skip
        made.append(new_entry(kind, anchor, body).with_tags(lot.sample(TAGS, lot.randrange(3))))
    return made


def _shown(home: Path, n: int) -> str:
    for name in ("DATA", "CONFIG", "CACHE", "STATE"):
        os.environ[f"XDG_{name}_HOME"] = str(home / name)
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from wide_margin.core.services import SettingsKeeper
    from wide_margin.desktop.app import make_application
    from wide_margin.desktop.main_window import MainWindow

    application = make_application()
    store = Store(home / "many.sqlite")
    window = MainWindow(store, SettingsKeeper())
    window.show()

    def until(holds: Callable[[], object]) -> None:
        end = time.monotonic() + 60
        while not holds() and time.monotonic() < end:
            application.processEvents()

    def until_idle(seconds: float) -> None:
        end = time.monotonic() + seconds
        until(lambda: time.monotonic() > end)

    with resources.as_file(resources.files("wide_margin.data") / "handbook.pdf") as handbook:
        window.open(handbook)
        until(lambda: window.reader.is_ready)
        record = store.documents()[0].id
        store.put(record, *_entries(n))
        window.reader.keeper.load(store.entries(record))
        until(lambda: len(window.reader.entries) == n)
        view = window.commonplace_view

        def timed(work: Callable[[], object]) -> float:
            start = time.perf_counter()
            work()
            view.list.viewport().repaint()
            took = 1000 * (time.perf_counter() - start)
            until_idle(0.3)
            return took

        opened = timed(lambda: window.show_view("Commonplace"))
        until(lambda: view.list.model().rowCount())
        grouped, filtered = [], []
        for by in GroupBy:
            grouped.append(timed(partial(view.group_by, by)))
        for word in ("tide", "surge keeper", "isl", ""):
            view.words.setText(word)
            filtered.append(timed(view.show_all))
        window.close()
        store.close()
    return (
        f"{n} entries: opens in {opened:.0f} ms (at most 300), a filter takes"
        f" {max(filtered):.0f} ms at most (50), another grouping {max(grouped):.0f} ms"
    )


if __name__ == "__main__":
    main()
