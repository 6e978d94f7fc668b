"""How reading grows: a document of 1,000 pages and one of 10,000, made of the real ones joined.

    python bench/scale.py [PAGES …]

Told for each: seconds until one can ask, the most memory that all processes took together (PSS),
the time of questions and of finding, the second opening, and the size of what is kept on disk
beside that of the file. Afterwards the time a page of each against that of the first.
"""

import os
import sys
import tempfile
import threading
import time
from multiprocessing import Process
from pathlib import Path

import pikepdf
from run import DOCUMENTS, have_documents

SIZES = (1000, 10_000)
QUESTIONS = ("What is a parse error?", "How are packages installed?", "Why is the loop slow?",
             "Which section deals with sparse matrices?", "Who maintains the archive?",
             "How many bits does a sample have?", "What is a cell array?")  # fmt: skip
WORD = "matrix"


def joined(n_pages: int, target: Path) -> None:
    """Real documents one after the other, again and again, until there are so many pages."""
    sources = sorted(path for path in DOCUMENTS.glob("*.pdf") if path.stat().st_size < 20_000_000)
    with pikepdf.new() as made:
        while len(made.pages) < n_pages:
            for source in sources:
                with pikepdf.open(source) as pdf:
                    for page in pdf.pages:
                        if len(made.pages) < n_pages:
                            made.pages.append(page)
        made.save(target)


class Watched:
    """The most memory that some processes take together, looked at twice a second."""

    def __init__(self, session: object) -> None:
        self.most = 0.0
        self._session, self._ends = session, threading.Event()
        self._thread = threading.Thread(target=self._watch, daemon=True)
        self._thread.start()

    def _watch(self) -> None:
        from wide_margin.core.session.forking import FORK_SERVER
        from wide_margin.core.session.pace import memory_of

        while not self._ends.wait(0.5):
            ids = [os.getpid(), FORK_SERVER.process_id or 0, *self._session.worker_ids.values()]
            self.most = max(self.most, memory_of(ids))

    def end(self) -> float:
        """The most, in megabytes."""
        self._ends.set()
        self._thread.join()
        return self.most


def measure(path: Path, n_pages: int) -> float:
    """Print a line of figures; seconds of reading a page."""
    from wide_margin.core.session import Session

    with tempfile.TemporaryDirectory() as cache:
        os.environ["XDG_CACHE_HOME"] = cache
        with Session(path) as session:
            session.wait_for_workers()
            watched = Watched(session)
            start = time.perf_counter()
            session.read().result(3600)
            seconds = time.perf_counter() - start
            session.ask("warm").result(600)
            times = []
            for question in QUESTIONS:
                start = time.perf_counter()
                session.ask(question).result(600)
                times.append(time.perf_counter() - start)
            session.find(WORD).result(600)
            start = time.perf_counter()
            hits = session.find(WORD).result(600)
            finding = time.perf_counter() - start
            session.settle(600)
            most = watched.end()
        kept = sum(found.stat().st_size for found in Path(cache).rglob("*") if found.is_file())
        with Session(path) as session:
            session.wait_for_workers()
            start = time.perf_counter()
            session.read().result(3600)
            told = time.perf_counter() - start
            session.query("n_characters").result(600)
            again = time.perf_counter() - start
    median = 1000 * sorted(times)[len(times) // 2]
    print(
        f"{n_pages:,} pages, {path.stat().st_size / 1e6:.0f} MB: read in {seconds:.1f} s"
        f" ({1000 * seconds / n_pages:.1f} ms a page), at most {most:.0f} MB (of 1,200);"
        f" a question {median:.0f} ms (150), finding {len(hits)} hits"
        f" {1000 * finding:.0f} ms (300); second opening {told:.1f} s (1),"
        f" {again:.1f} s until one can ask,"
        f" kept {kept / 1e6:.0f} MB"
    )
    return seconds / n_pages


def main() -> None:
    """Measure the sizes asked for."""
    have_documents()
    sizes = [int(size) for size in sys.argv[1:]] or SIZES
    each = []
    with tempfile.TemporaryDirectory() as folder:
        for size in sizes:
            path = Path(folder) / f"{size}.pdf"
            joining = Process(target=joined, args=(size, path))  # its memory is not ours
            joining.start()
            joining.join()
            each.append(measure(path, size))
            path.unlink()
    for size, seconds in zip(sizes[1:], each[1:], strict=True):
        print(f"a page of {size:,} takes {seconds / each[0]:.2f} x one of {sizes[0]:,} (1.2)")


if __name__ == "__main__":
    main()
