"""How right the answers are, how often what is not said is declined, and how quick ranking is.

    python bench/answers.py            the handbook's questions, and those of ../shared/eval

The handbook's questions are told by kind, with follow-ups, reach and form as they are meant; the
pairs of demo/backing.jsonl are judged too. Where the question sets of ../shared/eval are at hand,
each document is also asked the questions of the others, which it should decline. Then come the
questions of bench/questions: the weights were fitted to these and the handbook's.
"""

import importlib.util
import json
import sqlite3
import statistics
import sys
import time
from collections import defaultdict
from collections.abc import Callable, Iterable
from functools import partial
from pathlib import Path
from typing import Any, NamedTuple, Self

from wide_margin.core.answers import (
    WHOLE,
    Answer,
    check_backing,
    named_reach,
    read_question,
)
from wide_margin.core.answers.question import topic_of
from wide_margin.core.digest import Digester
from wide_margin.core.document import ReadDocument, understand
from wide_margin.core.jobs import CancelToken
from wide_margin.core.layout import lines_of
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.source import TextSource
from wide_margin.core.search import rank, read_terms
from wide_margin.core.search.analysis import words

ROOT = Path(__file__).resolve().parent.parent
DOCUMENTS = ROOT / ".eval-documents"
EVAL = ROOT.parent / "shared" / "eval"
QUESTIONS = ROOT / "bench" / "questions"
HANDBOOK = ROOT / "src" / "wide_margin" / "data" / "handbook.pdf"
ALONE = {"unanswerable", "follow-up", "reach"}
"""Kinds of question that cannot be put to another document."""
Item = dict[str, Any]
FIGURES = ("R@1", "R@5", "MRR", "answered", "first", "precise", "declines", "refusals", "words")


class Asked(NamedTuple):
    """A document and what answers questions on it."""

    document: ReadDocument
    digester: Digester

    @classmethod
    def of(cls, document: ReadDocument) -> Self:
        """A document that nothing was asked of yet."""
        return cls(document, Digester(document))


def read(path: Path) -> ReadDocument:
    """A document read in this process."""
    pdf = PdfFile(path)
    try:
        pages = map(partial(TextSource(pdf).told, only_edges=True), range(pdf.n_pages))
        lines = [lines_of(page.text, page.rules) for page in pages]
        return understand(
            pdf.facts(), list(pdf.bookmarks()), lines, (), CancelToken(), lambda done, total: None
        )
    finally:
        pdf.close()


def read_items(path: Path) -> list[Item]:
    """Questions or pairs, one a line."""
    return [json.loads(line) for line in path.read_text(encoding="utf-8").splitlines() if line]


def answer(of: Asked, item: Item, asked: dict[str, str], *, alone: bool) -> Answer:
    """The answer to a question as a window gives it, with reach, form and the one before."""
    text, reach, before = str(item["question"]), WHOLE, None
    if not alone:
        text = f"{text} {item.get('form', '')}".strip()
        before = asked.get(str(item.get("after", "")))
        if "reach" in item:
            reach = named_reach(of.document, item["reach"]) or WHOLE
    return of.digester.answer(text, reach, before)


def as_row(item: Item, given: Answer) -> Item:
    """In the form that the scorer reads."""
    return {
        "id": item["id"],
        "declined": given.declined,
        "answer": [
            {"text": q.text, "locators": [{"page": at.page + 1} for at in q.locators]}
            for q in given.quotes
        ],
        "excerpts": [{"page": e.locator.page + 1} for e in given.excerpts],
        "ms": None,
    }


def show(name: str, figures: dict[str, float]) -> None:
    """One line of the table."""
    cells = " ".join(f"{figures[key]:8.3f}" for key in FIGURES)
    print(f"{name:24s} {figures['n']:4.0f} {cells}")


def main() -> None:
    """Print the tables."""
    scorer = load_scorer()
    handbook = Asked.of(read(HANDBOOK))
    questions = read_items(ROOT / "demo" / "questions.jsonl")
    print(f"{'questions':24s} {'n':>4s} " + " ".join(f"{key:>8s}" for key in FIGURES))
    if scorer is not None:
        by_kind: dict[str, list[Any]] = defaultdict(list)
        rows = scored(scorer, handbook, questions)
        for row in rows:
            by_kind[row["question"]["kind"]].append(row)
        for kind, its in by_kind.items():
            show(f"  {kind}", scorer.summary(its))
        show("handbook", scorer.summary(rows))
        others(scorer, handbook, questions)
        written_here(scorer)
    pairs()


def load_scorer() -> Any:
    """The scorer of ../shared/eval, None where it is not at hand."""
    path = EVAL / "score_answers.py"
    if not path.exists():
        print("The scorer is not at hand: answers are not scored.")
        return None
    spec = importlib.util.spec_from_file_location("score_answers", path)
    assert spec is not None
    assert spec.loader is not None
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def scored(scorer: Any, of: Asked, questions: list[Item]) -> list[Any]:
    """The scorer's rows for a document asked its own questions."""
    asked = {str(item["id"]): str(item["question"]) for item in questions}
    given = [as_row(item, answer(of, item, asked, alone=False)) for item in questions]
    rows: list[Any] = scorer.score(questions, given)
    return rows


def written_here(scorer: Any) -> None:
    """The documents that questions were written for here, where they are at hand."""
    together: list[Any] = []
    for path in sorted(QUESTIONS.glob("*.jsonl")):
        document = DOCUMENTS / f"{path.stem}.pdf"
        if document.exists():
            rows = scored(scorer, Asked.of(read(document)), read_items(path))
            together += rows
            show(path.stem, scorer.summary(rows))
    if together:
        show("ALL", scorer.summary(together))


def others(scorer: Any, handbook: Asked, questions: list[Item]) -> None:
    """The real documents: their own questions, and those of the others."""
    sets = {p.stem: read_items(p) for p in sorted((EVAL / "qa").glob("*.jsonl"))}
    sets = {name: items for name, items in sets.items() if (DOCUMENTS / f"{name}.pdf").exists()}
    documents = {name: Asked.of(read(DOCUMENTS / f"{name}.pdf")) for name in sets}
    together: list[Any] = []
    for name, document in documents.items():
        rows = scored(scorer, document, sets[name])
        together += rows
        show(name, scorer.summary(rows))
    if not together:
        return
    show("ALL", scorer.summary(together))
    strange = [
        answer(documents[name], item, {}, alone=True).declined
        for name in documents
        for other, items in sets.items()
        if other != name
        for item in items
        if item["kind"] not in ALONE
    ]
    own = [row["declined"] for row in together if row["question"]["kind"] == "unanswerable"]
    print(f"declined of what is not said: {share(strange + own):.3f} of {len(strange + own)}")
    if "octave" in documents:
        speed(documents["octave"], [str(item["question"]) for item in sets["octave"]])


def share(values: Iterable[bool]) -> float:
    """Share of what is true."""
    return statistics.fmean(values)


def pairs() -> None:
    """Verdicts on the pairs of demo/backing.jsonl, by what was changed."""
    found: dict[str, list[str]] = defaultdict(list)
    for pair in read_items(ROOT / "demo" / "backing.jsonl"):
        backing = check_backing(pair["sentence"], [pair["excerpt"]])
        found[pair["change"]].append(backing.verdict)
    for change, verdicts in found.items():
        counts = {v: verdicts.count(v) for v in ("backed", "partly", "unbacked")}
        print(f"backing, {change:12s} {counts}")
    false = [v for change in ("number", "unit", "name", "negation") for v in found[change]]
    print(f"unbacked found {share(v == 'unbacked' for v in false):.3f} (at least 0.9)")
    true = found["paraphrase"]
    print(f"true ones called unbacked {share(v == 'unbacked' for v in true):.3f} (at most 0.1)")


def speed(of: Asked, questions: list[str]) -> None:
    """From the question to ranked passages, beside a full-text query on the same passages."""
    table = sqlite3.connect(":memory:")
    table.execute("create virtual table p using fts5(body, tokenize='porter unicode61')")
    document = of.document
    passages = document.text.passages
    table.executemany("insert into p values (?)", [(document.text.words_of(p),) for p in passages])

    def ours(question: str) -> None:
        query = read_terms(topic_of(read_question(question)), document.index)
        rank(document.index, document.text, query)

    def theirs(question: str) -> None:
        wanted = " OR ".join(f'"{word}"' for word in words(question))
        table.execute(
            "select rowid from p where p match ? order by bm25(p) limit 20", (wanted,)
        ).fetchall()

    ours_ms, theirs_ms = milliseconds(ours, questions), milliseconds(theirs, questions)
    print(f"ranking passages: {ours_ms:.1f} ms, full-text query {theirs_ms:.1f} ms,"
          f" ratio {ours_ms / theirs_ms:.2f} (at most 3)")  # fmt: skip
    whole = sorted(seconds(lambda q: of.digester.answer(q, WHOLE, None), q) for q in questions * 2)
    late = whole[int(0.95 * len(whole))]
    print(f"whole quoted answer: median {1000 * statistics.median(whole):.0f} ms (at most 60),"
          f" 95th percentile {1000 * late:.0f} ms (at most 150)")  # fmt: skip


def milliseconds(run: Callable[[str], object], questions: list[str]) -> float:
    """Median over the questions, after one round to warm up."""
    for question in questions:
        run(question)
    return 1000 * statistics.median(seconds(run, question) for question in questions * 3)


def seconds(run: Callable[[str], object], question: str) -> float:
    """How long one takes."""
    start = time.perf_counter()
    run(question)
    return time.perf_counter() - start


if __name__ == "__main__":
    sys.exit(main())
