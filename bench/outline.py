"""How true the outlines are: with bookmarks hidden, used and damaged, and what they cost.

    python bench/outline.py            the documents in .eval-documents against their outlines
    python bench/outline.py FOLDER     those of bench/unseen.json.gz, of which nothing was learned

The true outlines of the first and their scorer are those of ../shared/eval, where that is at hand.
FOLDER holds the others under their checksums; bench/fit_headings.py tells how such a list is made
and gets the files (``--fetch --list bench/unseen.json.gz``).
"""

import gzip
import importlib.util
import json
import sys
import tempfile
import time
from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import Any

from damage import damage

from wide_margin.core.layout import (
    as_typed,
    find_furniture,
    label_pages,
    lines_of,
    paragraphs_of,
    usual_size,
    vocabulary,
)
from wide_margin.core.outline import (
    Contents,
    Outline,
    build_outline,
    find_contents,
    listing_pages,
)
from wide_margin.core.pages import Bookmark
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.source import TextSource

ROOT = Path(__file__).resolve().parent.parent
DOCUMENTS = ROOT / ".eval-documents"
EVAL = ROOT.parent / "shared" / "eval"
UNSEEN = ROOT / "bench" / "unseen.json.gz"
SEEDS = (11, 12, 13)
Rows = list[dict[str, Any]]


class Prepared:
    """A document read as far as its paragraphs."""

    def __init__(self, path: Path) -> None:
        pdf = PdfFile(path)
        try:
            facts = pdf.facts()
            self.bookmarks = list(pdf.bookmarks())
            pages = map(partial(TextSource(pdf).told, only_edges=True), range(pdf.n_pages))
            lines = [lines_of(page.text, page.rules) for page in pages]
        finally:
            pdf.close()
        self.n_pages = len(lines)
        self._heights = facts.heights
        furniture = find_furniture(lines, self._heights, is_wide=facts.is_wide)
        self._labels = label_pages(facts.labels, lines, self._heights)
        self._text = as_typed(furniture.texts(lines))
        self.size = usual_size(self._text)
        self.paragraphs = paragraphs_of(self._text, self.size, vocabulary(self._text))
        self.listings = listing_pages(lines)
        self.seconds = 0.0

    def contents(self) -> Contents:
        """What its contents pages say."""
        return find_contents(self._text, self.listings)

    def outline(
        self, bookmarks: Sequence[Bookmark], *, use_contents: bool = True
    ) -> tuple[Outline, Contents]:
        """The outline from these bookmarks and the pages; the time it took is kept."""
        start = time.perf_counter()
        contents = find_contents(self._text, self.listings)
        listings = self.listings | contents.pages
        used = contents if use_contents else replace(contents, entries=())
        made = build_outline(
            self.paragraphs, bookmarks, used, self.size, listings, self._heights, self._labels
        )
        self.seconds = time.perf_counter() - start
        return made


def rows_of(outline: Outline) -> Rows:
    """An outline as the scorer reads it."""
    return [{"title": s.title, "level": s.level, "page": s.page + 1} for s in outline.sections]


def listed(bookmarks: Sequence[Bookmark]) -> Rows:
    """Bookmarks as the scorer reads an outline."""
    return [{"title": b.title, "level": b.level, "page": (b.page or 0) + 1} for b in bookmarks]


def _scorer() -> Callable[[Path, Rows], dict[str, Any]] | None:
    script = EVAL / "score_outline.py"
    if not script.exists():
        return None
    spec = importlib.util.spec_from_file_location("score_outline", script)
    assert spec is not None
    assert spec.loader is not None
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)

    def score(truth: Path, rows: Rows) -> dict[str, Any]:
        with tempfile.NamedTemporaryFile("w", suffix=".json", encoding="utf-8") as file:
            json.dump(rows, file)
            file.flush()
            found: dict[str, Any] = module.score(truth, file.name)
        return found

    return score


def conflicts_found(outline: Outline, bookmarks: Sequence[Bookmark]) -> set[tuple[int, str]]:
    """(index of the bookmark, what about) of every disagreement of an outline.

    Those that do not blame a bookmark have an index of their own below 0: they were not planted.
    """
    index = {(b.title, b.page, b.level): k for k, b in reversed(list(enumerate(bookmarks)))}
    found = set()
    for n, section in enumerate(outline.sections):
        reading = section.reading("bookmark")
        for conflict in section.disagreements:
            key = (reading.title, reading.page, reading.level) if reading else None
            at = index.get(key, -n - 1) if key and conflict.witness == "bookmark" else -n - 1  # type: ignore[arg-type]
            found.add((at, conflict.about))
    return found


class _Means:
    """Figures of several documents, averaged."""

    def __init__(self) -> None:
        self._seen: dict[str, list[float]] = {}

    def add(self, name: str, value: float) -> float:
        self._seen.setdefault(name, []).append(value)
        return value

    def of(self, name: str) -> float:
        values = self._seen.get(name, [])
        return sum(values) / len(values) if values else 0.0

    def n(self, name: str) -> int:
        return len(self._seen.get(name, []))

    def worst(self, name: str) -> float:
        return min(self._seen.get(name, [0.0]))


def _truth(name: str) -> Path:
    return EVAL / "outline" / f"{name}.json"


def unseen(folder: Path, score: Callable[[Path, Rows], dict[str, Any]]) -> None:
    """Print how true the outlines of documents are of which nothing was learned."""
    means = _Means()
    for item in json.loads(gzip.decompress(UNSEEN.read_bytes())):
        path = folder / f"{item['sha256']}.pdf"
        if not path.exists():
            continue
        outline, _ = Prepared(path).outline([])
        with tempfile.NamedTemporaryFile("w", suffix=".json", encoding="utf-8") as file:
            json.dump([{"title": title, "level": level, "page": page}
                       for level, page, title in item["outline"]], file)  # fmt: skip
            file.flush()
            found = score(Path(file.name), rows_of(outline))
        heading = means.add("heading", found["heading"]["f1"])
        nested = means.add("nested", found["nested"]["f1"])
        print(f"{item['package']:32} {item['pages']:5} {heading:.3f} ({nested:.3f})", flush=True)
    print(f"{means.n('heading')} documents {means.of('heading'):.3f} ({means.of('nested'):.3f})")


def main() -> None:
    """Print the table."""
    score = _scorer()
    if score is None:
        sys.exit("The true outlines are not at hand.")
    if len(sys.argv) > 1:
        unseen(Path(sys.argv[1]), score)
        return
    means = _Means()
    names = sorted(p.stem for p in (EVAL / "outline").glob("*.json") if p.stem != "manifest")
    documents = {name: Prepared(DOCUMENTS / f"{name}.pdf") for name in names}
    print(
        f"{'heading F1 (nested F1)':16} {'hidden':>15} {'headings only':>15} {'used':>15} {'s':>6}"
    )
    for name, document in documents.items():
        cells = []
        for label, bookmarks, use in (
            ("hidden", [], True), ("headings only", [], False), ("used", document.bookmarks, True),
        ):  # fmt: skip
            outline, _ = document.outline(bookmarks, use_contents=use)
            found = score(_truth(name), rows_of(outline))
            heading = means.add(f"{label} heading", found["heading"]["f1"])
            nested = means.add(f"{label} nested", found["nested"]["f1"])
            cells.append(f"{heading:.3f} ({nested:.3f})")
        print(f"{name:22} {' '.join(f'{cell:>15}' for cell in cells)} {document.seconds:6.2f}")
    cells = [f"{means.of(f'{k} heading'):.3f} ({means.of(f'{k} nested'):.3f})"
             for k in ("hidden", "headings only", "used")]  # fmt: skip
    print(f"{'macro average':22} {' '.join(f'{cell:>15}' for cell in cells)}")
    print(f"{'lowest heading F1':22} {means.worst('hidden heading'):15.3f}\n")
    _damaged(documents, score, means)


def _damaged(
    documents: dict[str, Prepared],
    score: Callable[[Path, Rows], dict[str, Any]],
    means: _Means,
) -> None:
    columns = ("reconciled", "bookmarks", "contents", "headings")
    print(
        f"{'damaged, heading F1':22} {' '.join(f'{c:>11}' for c in columns)}   planted found  false"
    )
    n_planted = n_right = n_found = 0
    for name, document in documents.items():
        if not document.bookmarks:
            continue
        for seed in SEEDS:
            broken = damage(document.bookmarks, document.n_pages, seed)
            outline, contents = document.outline(broken.bookmarks)
            entries = [{"title": e.title, "level": e.level, "page": e.page + 1}
                       for e in contents.entries if e.page is not None]  # fmt: skip
            alone, _ = document.outline([], use_contents=False)
            cells = [
                means.add(column, score(_truth(name), rows)["heading"]["f1"])
                for column, rows in zip(
                    columns,
                    (rows_of(outline), listed(broken.bookmarks), entries, rows_of(alone)),
                    strict=True,
                )
            ]
            found = conflicts_found(outline, broken.bookmarks)
            right = len(found & broken.planted)
            n_planted, n_right = n_planted + len(broken.planted), n_right + right
            n_found += len(found)
            print(f"{name:18} {seed:3} {' '.join(f'{cell:11.3f}' for cell in cells)}"
                  f"   {len(broken.planted):7} {right:5} {len(found) - right:6}")  # fmt: skip
    print(f"{'macro average':22} {' '.join(f'{means.of(column):11.3f}' for column in columns)}")
    print(f"planted disagreements: precision {n_right / max(n_found, 1):.3f},"
          f" recall {n_right / max(n_planted, 1):.3f} (at least 0.9 each)")  # fmt: skip


if __name__ == "__main__":
    main()
