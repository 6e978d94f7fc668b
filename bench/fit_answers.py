"""Fit what makes a page and a sentence the answer to a question, documents left out in turn.

    python bench/fit_answers.py PDFS [--write]      (make fit)

PDFS holds the manuals of bench/questions/manifest.json; the demo handbook is in the project. For
every document the weights are fitted to the others' questions and judged on its own. With --write
the weights of all of them go to src/wide_margin/data/answer-weights.json, with the date, a hash
of what they were made of and the figures reached on the documents left out.
"""

import hashlib
import json
import re
import sys
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

import numpy as np
from answers import ALONE, HANDBOOK, QUESTIONS, ROOT, Item, read, read_items
from scipy.optimize import minimize

from wide_margin.core.answers import read_question
from wide_margin.core.answers.candidates import find_candidates, signs_of
from wide_margin.core.answers.evidence import ENOUGH, EVIDENCE, evidence_of, evidence_weights
from wide_margin.core.answers.question import topic_of
from wide_margin.core.document import ReadDocument
from wide_margin.core.geometry import BoolArray, FloatArray, IntArray
from wide_margin.core.search import rank, read_terms, weigh
from wide_margin.core.search.fine import (
    ANSWER_SIGNALS,
    PAGE_SIGNALS,
    ranking_weights,
    read_signals,
)

WEIGHTS = ROOT / "src" / "wide_margin" / "data" / "answer-weights.json"
USED = ", weights in use before"
REFUSED = 0.04
"""Share of the answered questions that may be declined; the bias of the odds is set by it."""
RIDGE = 0.002
"""Against large weights, for each question of the fit."""
BY_HAND = {"code": -2.0, "works": -1.0, "absent name": -4.0}
"""Weights that signals which the sets hardly have are drawn to; all others are drawn to none."""
SCALE = {"code": 0.3, "works": 0.1}
"""How far these may go from there."""


@dataclass(eq=False)
class Case:
    """One question asked of its document."""

    pages: FloatArray
    """(n, PAGE_SIGNALS)."""
    answers: FloatArray
    """(n, ANSWER_SIGNALS)."""
    page_of: IntArray
    """(n,) page index of each sentence."""
    on_gold: BoolArray
    """(n,) whether it stands on a page that answers."""
    is_answer: BoolArray
    """(n,) whether it holds the answer, too."""


def plain(text: str) -> str:
    """Letters and digits alone, for finding an answer in a sentence."""
    opened = unicodedata.normalize("NFKD", text).casefold()
    return re.sub(r"[^a-z0-9]+", "", opened)


def case_of(document: ReadDocument, item: Item) -> Case | None:
    """The signals of a question that its document answers; None where nothing is found."""
    question = read_question(item["question"])
    query = read_terms(topic_of(question), document.index)
    if not query.terms:
        return None
    ranked = rank(document.index, document.text, query)
    found = read_signals(document.index, document.text, query, ranked,
                         lambda rows: signs_of(document, question, rows))  # fmt: skip
    sentences = [document.text.sentences[row] for row in found.sentences]
    page_of = np.array([s.page for s in sentences], dtype=np.int64)
    on_gold = np.isin(page_of, [page - 1 for page in item["pages"]])
    wanted = [plain(answer) for answer in item["answers"]]
    is_answer = on_gold & np.array(
        [any(w and w in plain(s.text) for w in wanted) for s in sentences], dtype=bool
    )
    return Case(found.pages, found.answers, page_of, on_gold, is_answer) if len(page_of) else None


def prior(names: Sequence[str]) -> FloatArray:
    """What weights are drawn to: nothing from an earlier fit, so that fits can be repeated."""
    return np.array([BY_HAND.get(name, 0.0) for name in names])


def fit_choice(
    signals: Sequence[FloatArray],
    gold: Sequence[BoolArray],
    names: Sequence[str],
) -> FloatArray:
    """Weights under which the softmax over each list puts most on what is gold.

    Source:
        Listwise ranking by the likelihood of the right one (Cao et al. 2007, top one), with a
        ridge; by L-BFGS.
    """
    lists = [
        (x.astype(float), y) for x, y in zip(signals, gold, strict=True) if 0 < y.sum() < len(y)
    ]
    held = np.array([1.0 / SCALE.get(name, 1.0) ** 2 for name in names])
    start = prior(names)

    def loss(weights: FloatArray) -> tuple[float, FloatArray]:
        apart = weights - start
        total = 0.5 * RIDGE * len(lists) * float(held @ apart**2)
        slope = RIDGE * len(lists) * held * apart
        for x, y in lists:
            scores = x @ weights
            odds = np.exp(scores - scores.max())
            right = odds * y
            total -= float(np.log(right.sum() / odds.sum() + 1e-12))
            slope += x.T @ (odds / odds.sum() - right / max(float(right.sum()), 1e-12))
        return total, slope

    weights: FloatArray = minimize(loss, start, jac=True, method="L-BFGS-B").x
    return weights


def first_right(case: Case, weights: FloatArray) -> bool:
    """Whether the page with most evidence answers."""
    scores = case.pages @ weights
    odds = np.exp(scores - scores.max())
    best = max(set(case.page_of.tolist()), key=lambda page: odds[case.page_of == page].sum())
    return bool(case.on_gold[case.page_of == best].any())


def first_holds(case: Case, weights: FloatArray) -> bool:
    """Whether the best sentence of the right pages holds the answer."""
    scores = np.where(case.on_gold, case.answers @ weights, -np.inf)
    return bool(case.is_answer[int(scores.argmax())])


def evidence_cases(document: ReadDocument, items: list[Item]) -> FloatArray:
    """(q, EVIDENCE) what speaks for each question being answered by a document."""
    rows = []
    for item in items:
        question = read_question(item["question"])
        query = read_terms(topic_of(question), document.index)
        if not query.terms:
            continue
        weighed = weigh(
            document.index, document.text, query, rank(document.index, document.text, query),
            lambda found, question=question: signs_of(document, question, found),
        )  # fmt: skip
        if candidates := find_candidates(document, weighed, about_works=False):
            language = document.index.language
            rows.append(evidence_of(question, query, weighed, candidates, language))
    return np.array(rows).reshape(-1, len(EVIDENCE))


def fit_odds(yes: FloatArray, no: FloatArray) -> FloatArray:
    """Logistic weights that tell answered from not answered, both sides of equal weight."""
    start = prior(EVIDENCE)
    held = np.array([0.0 if n == "bias" else 2.0 if n in BY_HAND else 0.1 for n in EVIDENCE])
    x = np.concatenate([yes, no])
    y = np.concatenate([np.ones(len(yes)), np.zeros(len(no))])
    w = np.where(y > 0, 0.5 / max(len(yes), 1), 0.5 / max(len(no), 1)) * 400

    def loss(weights: FloatArray) -> tuple[float, FloatArray]:
        apart = weights - start
        odds = 1 / (1 + np.exp(-np.clip(x @ weights, -30, 30)))
        right = np.where(y > 0, odds, 1 - odds)
        slope = x.T @ (w * (odds - y)) + 2.0 * held * apart
        return -float(w @ np.log(right + 1e-12)) + float(held @ apart**2), slope

    weights: FloatArray = minimize(loss, start, jac=True, method="L-BFGS-B").x
    weights[0] += ENOUGH - float(np.quantile(yes @ weights, REFUSED))
    return weights


def area(yes: FloatArray, no: FloatArray) -> float:
    """How often an answered question has better odds than one that is not."""
    return float(np.mean(yes[:, None] > no[None, :])) if len(yes) and len(no) else float("nan")


def main() -> None:
    """Fit, judge on the documents left out, and write where that is wanted."""
    folder = Path(sys.argv[1])
    sets = {"handbook": read_items(ROOT / "demo" / "questions.jsonl")}
    sets |= {path.stem: read_items(path) for path in sorted(QUESTIONS.glob("*.jsonl"))}
    paths = {name: HANDBOOK if name == "handbook" else folder / f"{name}.pdf" for name in sets}
    sets = {name: items for name, items in sets.items() if paths[name].exists()}
    documents = {name: read(paths[name]) for name in sets}
    cases: dict[str, list[Case]] = {}
    yes, no = {}, {}
    for name, items in sets.items():
        own = [i for i in items if i["kind"] not in ALONE and "reach" not in i and i["pages"]]
        cases[name] = [c for i in own if (c := case_of(documents[name], i)) and c.on_gold.any()]
        strange = [i for i in items if i["kind"] == "unanswerable"]
        strange += [i for other in sets if other != name for i in sets[other][::4]
                    if i["kind"] not in ALONE]  # fmt: skip
        yes[name] = evidence_cases(documents[name], own)
        no[name] = evidence_cases(documents[name], strange)
        print(f"{name}: {len(cases[name])} questions, {len(no[name])} not answered", flush=True)
    now = ranking_weights()
    figures = judge(cases, yes, no, now)
    page, answer = fit_all([c for its in cases.values() for c in its])
    odds = fit_odds(np.concatenate(list(yes.values())), np.concatenate(list(no.values())))
    digest = hashlib.sha256(json.dumps(sets, sort_keys=True).encode())
    for name in sorted(paths):
        if paths[name].exists():
            digest.update(paths[name].read_bytes())
    data = {
        "made": datetime.now(tz=UTC).date().isoformat(),
        "of": {
            "documents": len(sets), "questions": sum(map(len, cases.values())),
            "sha256": digest.hexdigest(),
        },
        "left out": {key: round(value, 3) for key, value in figures.items() if USED not in key},
        "page": dict(zip(PAGE_SIGNALS, page.round(3).tolist(), strict=True)),
        "answer": dict(zip(ANSWER_SIGNALS, answer.round(3).tolist(), strict=True)),
        "answered": dict(zip(EVIDENCE, odds.round(3).tolist(), strict=True)),
    }  # fmt: skip
    print(json.dumps(data, indent=1))
    if "--write" in sys.argv:
        WEIGHTS.write_text(json.dumps(data, indent=1) + "\n", encoding="utf-8")


def fit_all(cases: list[Case]) -> tuple[FloatArray, FloatArray]:
    """Weights of pages and of sentences."""
    page = fit_choice([c.pages for c in cases], [c.on_gold for c in cases], PAGE_SIGNALS)
    inside = [c for c in cases if c.is_answer.any()]
    answer = fit_choice(
        [c.answers[c.on_gold] for c in inside], [c.is_answer[c.on_gold] for c in inside],
        ANSWER_SIGNALS,
    )  # fmt: skip
    return page, answer


def judge(
    cases: dict[str, list[Case]],
    yes: dict[str, FloatArray],
    no: dict[str, FloatArray],
    now: dict[str, FloatArray],
) -> dict[str, float]:
    """Figures on each document with the weights of the others; beside them those in use."""
    right: list[tuple[bool, bool]] = []
    holds: list[tuple[bool, bool]] = []
    areas: list[tuple[float, float]] = []
    used = evidence_weights()
    for name, its in cases.items():
        page, answer = fit_all([c for o in cases if o != name for c in cases[o]])
        odds = fit_odds(
            np.concatenate([yes[o] for o in yes if o != name]),
            np.concatenate([no[o] for o in no if o != name]),
        )
        right += [(first_right(c, page), first_right(c, now["page"])) for c in its]
        with_answer = [c for c in its if c.is_answer.any()]
        holds += [(first_holds(c, answer), first_holds(c, now["answer"])) for c in with_answer]
        areas.append(
            (area(yes[name] @ odds, no[name] @ odds), area(yes[name] @ used, no[name] @ used))
        )
        fitted, before = np.mean(right[-len(its) :], axis=0)
        print(f"{name}: page first {fitted:.3f} (in use {before:.3f})", flush=True)
    figures = {}
    for key, pairs in (("page first", right), ("sentence first", holds), ("area", areas)):
        fitted, before = np.mean(pairs, axis=0)
        figures[key] = float(fitted)
        figures[f"{key}{USED}"] = float(before)
    return figures


if __name__ == "__main__":
    sys.exit(main())
