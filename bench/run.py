"""Speed and memory on real documents, as ratios measured in one run.

    make bench            with the documents in .eval-documents (fetched when missing)
    python bench/run.py --only reading,find

Every figure that has a limit is printed beside it; nothing here fails a build, since machines
are noisy. Documents are fetched by ../shared/eval/fetch_documents.py where that is at hand.
"""

import argparse
import os
import subprocess
import sys
import tempfile
import time
from pathlib import Path

HERE = Path(__file__).resolve().parent
ROOT = HERE.parent
DOCUMENTS = ROOT / ".eval-documents"
EVAL = ROOT.parent / "shared" / "eval"
LONG = ("octave", "fullrefman")

FLOOR = """
import sys, time
import pypdfium2 as pdfium, pypdfium2.raw as raw
pdf = pdfium.PdfDocument(sys.argv[1])
start = time.perf_counter()
for index in range(len(pdf)):
    page = raw.FPDF_LoadPage(pdf.raw, index)
    text = raw.FPDFText_LoadPage(page)
    raw.FPDFText_ClosePage(text)
    raw.FPDF_ClosePage(page)
print(time.perf_counter() - start)
"""
FIRST_PAGE = """
import sys, time
import pypdfium2 as pdfium
start = time.perf_counter()
pdf = pdfium.PdfDocument(sys.argv[1])
pdf[0].render(scale=float(sys.argv[2]))
print(time.perf_counter() - start)
"""

TO_FIRST_PAGE = """
import gc, os, sys, time
gc.disable()
from wide_margin.core.session.forking import FORK_SERVER
FORK_SERVER.start()  # in the order of start.main, which finds it started
from wide_margin import start

def opened(file):
    from wide_margin.desktop import app

    class Watched(app.MainWindow):
        def open(self, *arguments, **options):
            self.read_view.pages.images.image_arrived.connect(told)
            super().open(*arguments, **options)

    def told(page):
        app.QTimer.singleShot(0, lambda: (print(time.time() - began, flush=True), os._exit(0)))

    app.MainWindow = Watched
    app.run(file)

began = float(sys.argv[2])
sys.argv[:] = ["wide-margin", sys.argv[1]]
start.open_window = opened
start.main()
"""
"""The command up to its first page drawn; loading its own code is part of it."""
BESIDE_START = """
import sys, time
from PySide6.QtWidgets import QApplication
import pypdfium2
pypdfium2.PdfDocument(sys.argv[1])[0].render(scale=1.5)
print(time.time() - float(sys.argv[2]))
"""
RUNS = 5


class Table:
    """Rows of a measurement: what, ours, what it is measured against, ratio, limit."""

    def __init__(self) -> None:
        self.rows: list[tuple[str, str, str, str, str]] = []

    def ratio(self, what: str, ours: float, base: float, limit: float) -> None:
        """Add a row of two times in seconds."""
        self.add(what, f"{ours:.3f} s", f"{base:.3f} s", f"{ours / base:.2f} x", f"{limit:g} x")

    def add(self, *cells: str) -> None:
        """Add a row and print it at once."""
        self.rows.append(cells)  # type: ignore[arg-type]
        widths = (52, 12, 12, 10, 10)
        print("  ".join(cell.ljust(width) for cell, width in zip(cells, widths, strict=True)))


def have_documents() -> None:
    """Fetch what is missing, where the fetching script is at hand."""
    DOCUMENTS.mkdir(exist_ok=True)
    own = (HERE / "manifest.json", HERE / "questions" / "manifest.json")
    for manifest in (EVAL / "outline" / "manifest.json", *own):
        script = EVAL / "fetch_documents.py"
        if script.exists() and manifest.exists():
            command = [sys.executable, str(script), str(manifest), str(DOCUMENTS)]
            subprocess.run(command, check=False, stdout=subprocess.DEVNULL)


def run_for_seconds(code: str, *arguments: object) -> float:
    """What a piece of code in a process of its own prints, the better of two runs."""
    command = [sys.executable, "-c", code, *map(str, arguments)]
    return min(float(subprocess.check_output(command, text=True)) for _ in range(2))


def measure_first_page(table: Table) -> None:
    """From asking to open to the first page drawn, the workers already running."""
    from wide_margin.core.session import Session

    path, scale = DOCUMENTS / "fullrefman.pdf", 1.5
    base = run_for_seconds(FIRST_PAGE, path, scale)
    times = []
    for _ in range(3):
        with Session(path) as session:
            session.wait_for_workers()
            start = time.perf_counter()
            session.open().result(30)
            session.draw(0, scale).result(30)
            times.append(time.perf_counter() - start)
    table.ratio("open to first page drawn, fullrefman", sorted(times)[1], base, 3)


def measure_reading(table: Table) -> None:
    """Reading until one can ask, reading again from the cache, and memory.

    Processes run already, as for the floor the interpreter does.
    """
    from wide_margin.core.session import Session
    from wide_margin.core.session.pace import memory_of

    for name in LONG:
        path = DOCUMENTS / f"{name}.pdf"
        floor = run_for_seconds(FLOOR, path)
        with tempfile.TemporaryDirectory() as cache:
            os.environ["XDG_CACHE_HOME"] = cache
            with Session(path) as session:
                session.wait_for_workers()
                start = time.perf_counter()
                session.read().result(600)
                first = time.perf_counter() - start
                session.ask("What is this?").result(60)
                memory = memory_of([os.getpid(), *session.worker_ids.values()])
                n_chars = session.query("n_characters").result(60)
            table.ratio(f"reading until one can ask, {name}", first, floor, 3)
            with Session(path) as session:
                session.wait_for_workers()
                start = time.perf_counter()
                session.read().result(600)
                told = time.perf_counter() - start
                session.query("n_characters").result(60)
                second = time.perf_counter() - start
            table.ratio(f"second opening until the sections are there, {name}", told, first, 0.05)
            table.ratio(f"second opening until one can ask, {name}", second, first, 0.05)
            text_mb = n_chars / 1e6
            table.add(f"memory when ready, {name}", f"{memory:.0f} MB", f"{text_mb:.1f} M char",
                      "", "600 MB")  # fmt: skip
        _orientation(table, path, name)


def _orientation(table: Table, path: Path, name: str) -> None:
    try:
        start = time.perf_counter()
        subprocess.run(["pdftotext", "-bbox-layout", str(path), os.devnull], check=True)
    except (OSError, subprocess.CalledProcessError):
        return
    seconds = f"{time.perf_counter() - start:.2f} s"
    table.add(f"pdftotext -bbox-layout, {name} (orientation)", seconds, "", "", "")


def measure_start(table: Table) -> None:
    """From nothing to the first page drawn, and a command on a short paper, in cold processes."""
    path, paper = DOCUMENTS / "octave.pdf", DOCUMENTS / "bloodloss.pdf"
    base = sorted(_cold(BESIDE_START, path) for _ in range(RUNS))[RUNS // 2]
    ours = sorted(_cold(TO_FIRST_PAGE, path) for _ in range(RUNS))[RUNS // 2]
    table.ratio("command to first page drawn, octave", ours, base, 1.8)
    times = []
    for _ in range(RUNS):
        with tempfile.TemporaryDirectory() as home:
            start = time.perf_counter()
            command = [sys.executable, "-m", "wide_margin.start", "outline", str(paper)]
            environment = os.environ | {"XDG_CACHE_HOME": home}
            subprocess.run(command, check=True, env=environment, stdout=subprocess.DEVNULL)
            times.append(time.perf_counter() - start)
    seconds = f"{sorted(times)[RUNS // 2]:.2f} s"
    table.add("outline of a paper of 19 pages, whole command", seconds, "", "", "1 s")


def _cold(code: str, path: Path) -> float:
    """Seconds that a piece of code tells, run in a process of its own with folders of its own."""
    with tempfile.TemporaryDirectory() as home:
        folders = dict.fromkeys(("XDG_CACHE_HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME"), home)
        environment = os.environ | folders | {"QT_QPA_PLATFORM": "offscreen"}
        command = [sys.executable, "-c", code, str(path), str(time.time())]
        return float(subprocess.check_output(command, text=True, env=environment, timeout=60))


def measure_find(table: Table) -> None:
    """A word with some five hundred hits in the longest document."""
    from wide_margin.core.session import Session

    with Session(DOCUMENTS / "fullrefman.pdf") as session:
        session.read().result(600)
        word = "probability"
        session.find(word).result(60)
        start = time.perf_counter()
        hits = session.find(word).result(60)
        ms = 1000 * (time.perf_counter() - start)
    table.add(f"find “{word}”, {len(hits)} hits, fullrefman", f"{ms:.0f} ms", "", "", "100 ms")


def measure_answers(table: Table) -> None:
    """A whole quoted answer, warm, and how right answers are."""
    import answers

    from wide_margin.core.session import Session

    questions = ["What is a parse error?", "How many bits per sample does audiowrite use?",
                 "Which section deals with sparse matrices?", "Why is the loop slow?",
                 "How can I continue profiling without losing the data?"]  # fmt: skip
    times = []
    with Session(DOCUMENTS / "octave.pdf") as session:
        session.read().result(600)
        session.ask("warm").result(60)
        for question in questions * 4:
            start = time.perf_counter()
            session.ask(question).result(60)
            times.append(1000 * (time.perf_counter() - start))
    times.sort()
    median, late = times[len(times) // 2], times[int(0.95 * len(times))]
    table.add("quoted answer, octave, median", f"{median:.0f} ms", "", "", "60 ms")
    table.add("quoted answer, octave, 95th percentile", f"{late:.0f} ms", "", "", "150 ms")
    answers.main()


def measure_lateness(table: Table) -> None:
    """How late a 5 ms timer of the window is while reading in and scrolling 300 pages."""
    runs = [_lateness_run() for _ in range(3)]
    idle = sorted(run[0] for run in runs)[1]
    busy = sorted(run[1] for run in runs)[1]
    table.add("largest lateness of a 5 ms timer, reading and scrolling", f"{busy:.0f} ms",
              f"{idle:.0f} ms idle", "", "50 ms")  # fmt: skip


def _lateness_run() -> tuple[float, float]:
    from PySide6.QtCore import QElapsedTimer, QEventLoop, Qt, QTimer

    from wide_margin.core.margin import Store
    from wide_margin.core.services import SettingsKeeper
    from wide_margin.desktop.app import make_application
    from wide_margin.desktop.main_window import MainWindow
    from wide_margin.desktop.sweeping import Sweeper

    Sweeper(make_application())
    with tempfile.TemporaryDirectory() as home:
        os.environ["XDG_CACHE_HOME"] = home
        window = MainWindow(Store(Path(home) / "entries.sqlite"), SettingsKeeper())
        window.show()
        clock, late = QElapsedTimer(), [0.0]
        timer = QTimer()
        timer.setTimerType(Qt.TimerType.PreciseTimer)

        def tick() -> None:
            late[0] = max(late[0], clock.nsecsElapsed() / 1e6 - 5)
            clock.restart()

        def wait(ms: int) -> None:
            """Let the window work, and its threads: QTest.qWait would hold those up."""
            loop = QEventLoop()
            QTimer.singleShot(ms, loop.quit)
            loop.exec()

        timer.timeout.connect(tick)
        wait(800)
        clock.start()
        timer.start(5)
        wait(1500)
        idle = late[0]
        window.open(DOCUMENTS / "fullrefman.pdf")
        wait(800)
        late[0] = 0.0
        pages = window.read_view.pages
        for page in range(300):
            pages.go_to(page)
            wait(16)
        busy = late[0]
        timer.stop()
        window.close()
    return idle, busy


def measure_outline(table: Table) -> None:
    """What finding the outline adds to reading, and how true outlines are."""
    import outline

    from wide_margin.core.session import Session

    for name in LONG:
        path = DOCUMENTS / f"{name}.pdf"
        document = outline.Prepared(path)
        document.outline(document.bookmarks)
        with tempfile.TemporaryDirectory() as cache:
            os.environ["XDG_CACHE_HOME"] = cache
            with Session(path) as session:
                session.wait_for_workers()
                start = time.perf_counter()
                session.read().result(600)
                whole = time.perf_counter() - start
        seconds = document.seconds
        share = seconds / max(whole - seconds, 1e-9)
        table.add(f"finding the outline, {name}", f"{seconds:.2f} s", f"{whole:.2f} s",
                  f"{100 * share:.0f} %", "25 %")  # fmt: skip
    outline.main()


MEASURES = {
    "start": measure_start,
    "first": measure_first_page,
    "reading": measure_reading,  # before what fills this process: its memory is counted too
    "outline": measure_outline,
    "find": measure_find,
    "answers": measure_answers,
    "lateness": measure_lateness,
}


def main() -> None:
    """Run the chosen measurements and print the table."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--only", default=",".join(MEASURES), help=", ".join(MEASURES))
    chosen = parser.parse_args().only.split(",")
    have_documents()
    table = Table()
    table.add("what", "ours", "against", "ratio", "at most")
    with tempfile.TemporaryDirectory() as home:
        os.environ["XDG_CACHE_HOME"] = home
        for name in chosen:
            MEASURES[name](table)


if __name__ == "__main__":
    main()
