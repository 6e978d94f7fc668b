"""Fit what makes a page and a sentence the answer to a question, documents left out in turn.

    python bench/fit_answers.py PDFS [--write]      (make fit)

PDFS holds the manuals of bench/questions/manifest.json; the demo handbook is in the project. For
every document the weights are fitted to the others' questions and judged on its own, once for the
signals of words alone, once with the meaning of sentences. With --write the weights of all of them
go to src/wide_margin/data/answer-weights.json, with the date, a hash of what they were made of and
the figures reached on the documents left out. Which sentences are held against a question in their
meaning depends on the weights of words alone, and the evidence for an answer on those of pages:
where they have changed, fit twice.
"""

import hashlib
import json
import re
import sys
import unicodedata
from collections.abc import Callable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from multiprocessing import get_context
from pathlib import Path

import numpy as np
from answers import ALONE, HANDBOOK, QUESTIONS, ROOT, Item, read, read_items
from scipy.optimize import minimize

from wide_margin.core.answers import WHOLE, answer_quoted, read_question
from wide_margin.core.answers.candidates import find_candidates, signs_of
from wide_margin.core.answers.evidence import ENOUGH, EVIDENCE, evidence_of
from wide_margin.core.answers.question import topic_of
from wide_margin.core.answers.within import allowed_passages
from wide_margin.core.document import ReadDocument
from wide_margin.core.geometry import BoolArray, FloatArray, IntArray
from wide_margin.core.search import rank, read_terms, weigh
from wide_margin.core.search.fine import (
    ANSWER_SIGNALS,
    MEANING,
    PAGE_SIGNALS,
    ranking_weights,
    read_signals,
    with_meaning,
)

WEIGHTS = ROOT / "src" / "wide_margin" / "data" / "answer-weights.json"
USED = ", weights in use before"
BY_WORDS, WITH_MEANING = "by words", "with meaning"
"""The two sets of weights."""
REFUSED = {BY_WORDS: 0.09, WITH_MEANING: 0.1}
"""Share of the answered questions that may be declined, mean of the documents; the bias of the odds
is set by it. Some of them are answered all the same by what a document says in so many words."""
SHARES = {"asked": 0.75, "withheld": 0.12, "not said": 0.08, "strange": 0.05}
"""Of what readers ask: what is answered, what is on the topic and not answered (the pages that
answer taken away; asked so on purpose), what belongs to another document."""
TO_WORDS = 0.25
"""How far the weights with meaning are drawn to those of words alone. Where a document has words
that the encoder knows little of, more pages come first then (of the handbook's, whose names are
made up, 0.59 in place of 0.56), and no fewer elsewhere (0.770 of all in place of 0.765)."""
RIDGE = 0.002
"""Against large weights, for each question of the fit."""
BY_HAND = {"code": -2.0, "works": -1.0, "absent name": -4.0}
"""Weights that signals which the sets hardly have are drawn to; all others are drawn to none."""
SCALE = {"code": 0.3, "works": 0.1, "meaning": 5.0, "nearer": 5.0}
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
    if not len(found.sentences):
        return None
    found = with_meaning(found, document.text, question.text)
    sentences = [document.text.sentences[row] for row in found.sentences]
    page_of = np.array([s.page for s in sentences], dtype=np.int64)
    on_gold = np.isin(page_of, [page - 1 for page in item["pages"]])
    wanted = [plain(answer) for answer in item["answers"]]
    is_answer = on_gold & np.array(
        [any(w and w in plain(s.text) for w in wanted) for s in sentences], dtype=bool
    )
    return Case(found.pages, found.answers, page_of, on_gold, is_answer)


def by_words(case: Case) -> Case:
    """The same without what is told of meaning."""
    pages, answers = case.pages.copy(), case.answers.copy()
    pages[:, MEANING] = answers[:, MEANING] = 0
    return replace(case, pages=pages, answers=answers)


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


@dataclass(eq=False)
class Odds:
    """What speaks for an answer to each of some questions, and whether it was right."""

    evidence: FloatArray
    """(q, EVIDENCE)."""
    sort: list[str]
    """One of SHARES for each."""
    is_right: BoolArray

    @property
    def is_asked(self) -> BoolArray:
        """Which of them the document answers."""
        return np.array([sort == "asked" for sort in self.sort])


def odds_of(document: ReadDocument, asked: Sequence[tuple[str, Item]], weights: str) -> Odds:
    """The evidence for each question of a sort, and whether what is quoted then is right."""
    rows, sorts, right = [], [], []
    for sort, item in asked:
        question = read_question(item["question"])
        query = read_terms(topic_of(question), document.index)
        allowed = allowed_passages(document, WHOLE)
        if sort == "withheld":
            gold = {page - 1 for page in item["pages"]}
            sentences = document.text.sentences
            allowed &= np.array([
                not any(sentences[row].page in gold for row in range(p.first, p.end))
                for p in document.text.passages
            ])  # fmt: skip
        if not query.terms or not allowed.any():
            continue
        weighed = weigh(
            document.index, document.text, query,
            rank(document.index, document.text, query, allowed=allowed),
            lambda found, question=question: signs_of(document, question, found),
            question.text if weights == WITH_MEANING else "",
        )  # fmt: skip
        if candidates := find_candidates(document, weighed, about_works=False):
            rows.append(evidence_of(question, query, weighed, candidates, document))
            sorts.append(sort)
            right.append(sort == "asked" and _answers_rightly(document, item, weights))
    return Odds(np.array(rows).reshape(-1, len(EVIDENCE)), sorts, np.array(right, dtype=bool))


def _answers_rightly(document: ReadDocument, item: Item, weights: str) -> bool:
    """Whether what is quoted, however unsure, stands on a right page and holds the answer."""
    by_meaning = weights == WITH_MEANING
    given = answer_quoted(document, item["question"], whatever=True, by_meaning=by_meaning)
    pages = {page - 1 for page in item["pages"]}
    said = [q.text for q in given.quotes if any(at.page in pages for at in q.locators)]
    wanted = [plain(answer) for answer in item["answers"]]
    return bool(said) and (not wanted or any(w in plain(" ".join(said)) for w in wanted))


def fit_logistic(cases: Sequence[Odds], wanted: Callable[[Odds], BoolArray]) -> FloatArray:
    """Logistic weights of the chance of something; every document counts the same."""
    start = prior(EVIDENCE)
    held = np.array([0.0 if n == "bias" else 2.0 if n in BY_HAND else 0.1 for n in EVIDENCE])
    x = np.concatenate([case.evidence for case in cases])
    y = np.concatenate([wanted(case) for case in cases])
    w = np.concatenate([weights_of(case) for case in cases])
    w *= 400 / w.sum()

    def loss(weights: FloatArray) -> tuple[float, FloatArray]:
        apart = weights - start
        odds = 1 / (1 + np.exp(-np.clip(x @ weights, -30, 30)))
        right = np.where(y, odds, 1 - odds)
        slope = x.T @ (w * (odds - y)) + 2.0 * held * apart
        return -float(w @ np.log(right + 1e-12)) + float(held @ apart**2), slope

    weights: FloatArray = minimize(loss, start, jac=True, method="L-BFGS-B").x
    return weights


def fit_odds(cases: Sequence[Odds], refused: float) -> FloatArray:
    """Weights of the odds that a question is answered, so that few answered ones are declined."""
    weights = fit_logistic(cases, lambda case: case.is_asked)
    odds = [case.evidence[case.is_asked] @ weights for case in cases]
    low, high = min(map(np.min, odds)), max(map(np.max, odds))
    for least in np.linspace(high, low, 2000):  # the highest that declines few enough
        if np.mean([np.mean(o < least) for o in odds]) <= refused:
            weights[0] += ENOUGH - least
            break
    return weights


def fit_sure(cases: Sequence[Odds]) -> FloatArray:
    """Weights of the chance that an answer is right."""
    return fit_logistic(cases, lambda case: case.is_right)


def weights_of(case: Odds) -> FloatArray:
    """(q,) so that the sorts of questions have their shares in every document."""
    sorts = np.array(case.sort)
    weights = np.zeros(len(sorts))
    for sort, share in SHARES.items():
        if (is_sort := sorts == sort).any():
            weights[is_sort] = share / is_sort.sum()
    return weights / weights.sum()


def judge_odds(cases: dict[str, Odds], refused: float) -> dict[str, float]:
    """Calibration error, how right the surest half is, and what is declined, documents left out."""
    sure, odds, right, sorts, weights = [], [], [], [], []
    for name, case in cases.items():
        others = [other for key, other in cases.items() if key != name]
        sure.append(1 / (1 + np.exp(-np.clip(case.evidence @ fit_sure(others), -30, 30))))
        odds.append(case.evidence @ fit_odds(others, refused))
        right.append(case.is_right)
        sorts += case.sort
        weights.append(weights_of(case))
        told = {
            sort: f"{np.mean(odds[-1][np.array(case.sort) == sort] < ENOUGH):.2f}"
            for sort in dict.fromkeys(case.sort)
        }
        print(f"{name}: declined {told}", flush=True)
    s, y, w = np.concatenate(sure), np.concatenate(right).astype(float), np.concatenate(weights)
    o, kinds = np.concatenate(odds), np.array(sorts)
    error = 0.0
    for low in np.arange(0, 1, 0.1):
        if (inside := (s >= low) & (s < low + 0.1)).any():
            error += float(w[inside].sum() * abs(
                np.average(s[inside], weights=w[inside]) - np.average(y[inside], weights=w[inside])
            ))  # fmt: skip
    answered = np.flatnonzero((o >= ENOUGH) & (kinds == "asked"))
    half = answered[np.argsort(-s[answered])][: len(answered) // 2]
    figures = {
        "calibration error": error / float(w.sum()), "surest half right": float(y[half].mean()),
        "area": area(s[y > 0], s[y == 0]),
    }  # fmt: skip
    for sort in SHARES:
        figures[f"declined of {sort}"] = float(np.mean(o[kinds == sort] < ENOUGH))
    return figures


def area(yes: FloatArray, no: FloatArray) -> float:
    """How often a right answer is surer than one that is not."""
    return float(np.mean(yes[:, None] > no[None, :])) if len(yes) and len(no) else float("nan")


def main() -> None:
    """Fit, judge on the documents left out, and write where that is wanted."""
    folder = Path(sys.argv[1])
    sets = {"handbook": read_items(ROOT / "demo" / "questions.jsonl")}
    sets |= {path.stem: read_items(path) for path in sorted(QUESTIONS.glob("*.jsonl"))}
    sets |= {path.stem: read_items(path) for path in sorted(folder.glob("faq-*.jsonl"))}
    paths = {name: HANDBOOK if name == "handbook" else folder / f"{name}.pdf" for name in sets}
    sets = {name: items for name, items in sets.items() if paths[name].exists()}
    with ProcessPoolExecutor(mp_context=get_context("spawn")) as pool:
        gathered = pool.map(gathered_of, sets, [paths[name] for name in sets], [sets] * len(sets))
        found = dict(zip(sets, gathered, strict=True))
    cases = {name: own for name, (own, _) in found.items()}
    odds = {
        weights: {name: by[weights] for name, (_, by) in found.items()}
        for weights in (BY_WORDS, WITH_MEANING)
    }
    digest = hashlib.sha256(json.dumps(sets, sort_keys=True).encode())
    for name in sorted(paths):
        if paths[name].exists():
            digest.update(paths[name].read_bytes())
    data: dict[str, object] = {
        "made": datetime.now(tz=UTC).date().isoformat(),
        "of": {
            "documents": len(sets), "questions": sum(map(len, cases.values())),
            "sha256": digest.hexdigest(),
        },
    }  # fmt: skip
    plain = {name: [by_words(c) for c in its] for name, its in cases.items()}
    words = data[BY_WORDS] = fitted(plain, odds[BY_WORDS], BY_WORDS)
    meant = data[WITH_MEANING] = fitted(cases, odds[WITH_MEANING], WITH_MEANING)
    for kind in ("page", "answer"):
        for name, weight in meant[kind].items():
            meant[kind][name] = round(weight + TO_WORDS * (words[kind][name] - weight), 3)
    print(json.dumps(data, indent=1))
    if "--write" in sys.argv:
        WEIGHTS.write_text(json.dumps(data, indent=1) + "\n", encoding="utf-8")


def gathered_of(
    name: str, path: Path, sets: dict[str, list[Item]]
) -> tuple[list[Case], dict[str, Odds]]:
    """The signals of a document's own questions, and the evidence for all it is asked."""
    document, items = read(path), sets[name]
    own = [i for i in items if i["kind"] not in ALONE and "reach" not in i and i["pages"]]
    cases = [c for i in own if (c := case_of(document, i)) and c.on_gold.any()]
    asked = [("asked", i) for i in own] + [("withheld", i) for i in own]
    asked += [("not said", i) for i in items if i["kind"] == "unanswerable"]
    asked += [("strange", i) for other in sets if other != name for i in sets[other][::6]
              if i["kind"] not in ALONE and i["pages"]]  # fmt: skip
    odds = {weights: odds_of(document, asked, weights) for weights in (BY_WORDS, WITH_MEANING)}
    print(f"{name}: {len(cases)} questions", flush=True)
    return cases, odds


def fitted(
    cases: dict[str, list[Case]], odds: dict[str, Odds], weights: str
) -> dict[str, dict[str, float]]:
    """One set of weights, with the figures reached on documents left out."""
    print(f"Weights {weights}:", flush=True)
    figures = judge(cases, ranking_weights(with_meaning=weights == WITH_MEANING))
    figures |= judge_odds(odds, REFUSED[weights])
    page, answer = fit_all([c for its in cases.values() for c in its])
    answered, sure = fit_odds(list(odds.values()), REFUSED[weights]), fit_sure(list(odds.values()))
    return {
        "left out": {key: round(value, 3) for key, value in figures.items() if USED not in key},
        "page": dict(zip(PAGE_SIGNALS, page.round(3).tolist(), strict=True)),
        "answer": dict(zip(ANSWER_SIGNALS, answer.round(3).tolist(), strict=True)),
        "answered": dict(zip(EVIDENCE, answered.round(3).tolist(), strict=True)),
        "sure": dict(zip(EVIDENCE, sure.round(3).tolist(), strict=True)),
    }


def fit_all(cases: list[Case]) -> tuple[FloatArray, FloatArray]:
    """Weights of pages and of sentences."""
    page = fit_choice([c.pages for c in cases], [c.on_gold for c in cases], PAGE_SIGNALS)
    inside = [c for c in cases if c.is_answer.any()]
    answer = fit_choice(
        [c.answers[c.on_gold] for c in inside], [c.is_answer[c.on_gold] for c in inside],
        ANSWER_SIGNALS,
    )  # fmt: skip
    return page, answer


def judge(cases: dict[str, list[Case]], now: dict[str, FloatArray]) -> dict[str, float]:
    """Figures on each document with the weights of the others; beside them those in use."""
    right: list[tuple[bool, bool]] = []
    holds: list[tuple[bool, bool]] = []
    for name, its in cases.items():
        page, answer = fit_all([c for o in cases if o != name for c in cases[o]])
        right += [(first_right(c, page), first_right(c, now["page"])) for c in its]
        with_answer = [c for c in its if c.is_answer.any()]
        holds += [(first_holds(c, answer), first_holds(c, now["answer"])) for c in with_answer]
        fitted, before = np.mean(right[-len(its) :], axis=0)
        print(f"{name}: page first {fitted:.3f} (in use {before:.3f})", flush=True)
    figures = {}
    for key, pairs in (("page first", right), ("sentence first", holds)):
        fitted, before = np.mean(pairs, axis=0)
        figures[key] = float(fitted)
        figures[f"{key}{USED}"] = float(before)
    return figures


if __name__ == "__main__":
    sys.exit(main())
