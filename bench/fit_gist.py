"""Fit the weights of the gist on articles whose abstract is hidden, families left out in turn.

    python bench/fit_gist.py PDFS [--write]      (make fit)

PDFS holds articles called FAMILY__NAME.pdf (bench/articles.json names those used last, by Debian
package). The abstract that stands on the first pages is the truth; only what follows the first
page may be chosen. For every fold some families are left out of the fit and judged; with --write
the weights of all of them go to src/wide_margin/data/gist-weights.json, with the date, a hash of
what they were made of and the figures reached on the families left out.
"""

from __future__ import annotations

import hashlib
import itertools
import json
import pickle
import re
import sys
import tempfile
from collections import Counter
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

import numpy as np
import snowballstemmer
from answers import read

from wide_margin.core.digest import gist
from wide_margin.core.digest.roles import roles_of
from wide_margin.core.document import ReadDocument
from wide_margin.core.geometry import BoolArray, FloatArray, IntArray

ROOT = Path(__file__).resolve().parent.parent
WEIGHTS = ROOT / "src" / "wide_margin" / "data" / "gist-weights.json"
ARTICLES = ROOT / "bench" / "articles.json"
CACHE = Path(tempfile.gettempdir()) / "wide-margin-fit"
LEAST, MOST = 40, 350
"""Words of an abstract."""
N_FOLDS = 10
RIDGE_TERMS, RIDGE_SENTENCES = 3.0, 6.0
COVERAGES = (0.0, 1.0, 2.0, 5.0, 10.0)
"""What is tried for the worth of covering a term, against a word of prior."""
_STEM = snowballstemmer.stemmer("porter")
_ABSTRACT = re.compile(r"^\W*(?:abstract|summary)\b[\s.:—–-]*", re.I)
_ENDS = re.compile(
    r"^\W*(?:key ?words?|contents|\d+\.?\s+introduction|introduction|msc|jel)\b", re.I
)


@dataclass(eq=False)
class Article:
    """An article with its abstract set aside, and what the fit sees of it."""

    name: str
    family: str
    document: ReadDocument
    abstract: str
    terms: FloatArray
    is_content: BoolArray
    in_abstract: BoolArray
    usable: BoolArray
    sentences: FloatArray
    own: tuple[IntArray, ...]
    worth: FloatArray


def abstract_of(document: ReadDocument) -> str:
    """The abstract that stands on the first two pages, "" without one."""
    parts: list[str] = []
    found = False
    for row, paragraph in enumerate(document.paragraphs):
        if paragraph.page > 1:
            break
        text = " ".join(paragraph.text.split())
        if not found:
            match = _ABSTRACT.match(text)
            if match and paragraph.page == 0:
                found = True
                parts.append(text[match.end() :])
            continue
        heading = any(s.first_paragraph == row for s in document.outline.sections)
        if heading or _ENDS.match(text) or paragraph.kind not in ("body", "item"):
            break
        parts.append(text)
        if sum(len(part.split()) for part in parts) > MOST:
            break
    words = " ".join(parts).split()
    return " ".join(words) if LEAST <= len(words) <= MOST else ""


def article(name: str, document: ReadDocument) -> Article | None:
    """What the fit needs of a document; None where it has no abstract, or too little to choose."""
    abstract = abstract_of(document)
    if not abstract or document.index.language != "en":
        return None
    roles = roles_of(document.outline)
    features, is_content = gist.term_features(document, roles)
    said = {
        document.index.term_ids[t] for t in document.index.analyser.terms(abstract)
        if t in document.index.term_ids
    }  # fmt: skip
    in_abstract = np.array([k in said for k in range(len(features))], dtype=bool)
    usable = np.array(
        [
            gist.stands_alone(s) and gist.says_something(s.text) and s.page > 0
            for s in document.text.sentences
        ],
        dtype=bool,
    )
    if usable.sum() < 15:
        return None
    own = gist._terms_of(document, is_content.astype(float), usable)
    sentences = gist.sentence_features(document, roles, is_content * 0.1, own, usable)
    worth = np.array(
        [
            _worth(s.text, abstract) if ok else 0.0
            for s, ok in zip(document.text.sentences, usable, strict=True)
        ]
    )
    return Article(name, name.split("__")[0], document, abstract, features, is_content, in_abstract,
                   usable, sentences, own, worth)  # fmt: skip


def stems(text: str) -> list[str]:
    """Porter stems of a text's words."""
    return list(_STEM.stemWords(re.findall(r"[^\W_]+", text.casefold())))


def _worth(text: str, abstract: str) -> float:
    """Share of a sentence's words, and of its pairs of words, that the abstract has."""
    ours, gold = stems(text), stems(abstract)
    one = Counter(ours) & Counter(gold)
    two = Counter(itertools.pairwise(ours)) & Counter(itertools.pairwise(gold))
    n = max(len(ours), 1)
    return sum(one.values()) / n + 2.0 * sum(two.values()) / n


def rouge(text: str, abstract: str, n: int) -> float:
    """ROUGE-n F1 on stems (Lin 2004)."""

    def grams(words: list[str]) -> Counter[tuple[str, ...]]:
        return Counter(zip(*[words[k:] for k in range(n)], strict=False))

    ours, gold = grams(stems(text)), grams(stems(abstract))
    same = sum((ours & gold).values())
    if not same:
        return 0.0
    precision, recall = same / sum(ours.values()), same / sum(gold.values())
    return 2 * precision * recall / (precision + recall)


def logistic(features: FloatArray, labels: BoolArray, weights: FloatArray) -> FloatArray:
    """Weighted logistic regression with a ridge, by Newton's method."""
    beta = np.zeros(features.shape[1])
    ridge = RIDGE_TERMS * np.eye(features.shape[1])
    ridge[0, 0] = 0.0
    for _ in range(25):
        odds = 1 / (1 + np.exp(-np.clip(features @ beta, -30, 30)))
        gradient = features.T @ (weights * (labels - odds)) - ridge @ beta
        curve = (features * (weights * odds * (1 - odds))[:, None]).T @ features + ridge
        step = np.linalg.solve(curve, gradient)
        beta += step
        if np.abs(step).max() < 1e-6:
            break
    return beta


def fit(articles: list[Article]) -> tuple[FloatArray, FloatArray]:
    """Weights of terms and of sentences."""
    features = np.concatenate([a.terms[a.is_content] for a in articles])
    labels = np.concatenate([a.in_abstract[a.is_content] for a in articles])
    weights = np.concatenate(
        [np.full(int(a.is_content.sum()), 400.0 / max(a.is_content.sum(), 1)) for a in articles]
    )
    of_terms = logistic(features, labels, weights)
    rows = [with_mass(a, of_terms)[a.usable] for a in articles]
    x = np.concatenate(rows)
    y = np.concatenate([a.worth[a.usable] for a in articles])
    w = np.concatenate([np.full(len(r), 50.0 / len(r)) for r in rows])
    ridge = RIDGE_SENTENCES * np.eye(x.shape[1])
    ridge[0, 0] = 0.0
    of_sentences = np.linalg.solve((x * w[:, None]).T @ x + ridge, (x * w[:, None]).T @ y)
    return of_terms, of_sentences


def with_mass(a: Article, of_terms: FloatArray) -> FloatArray:
    """The sentence features with the mass of the terms by some weights."""
    weight = np.where(a.is_content, 1 / (1 + np.exp(-np.clip(a.terms @ of_terms, -30, 30))), 0.0)
    features = a.sentences.copy()
    mass = np.array([float(weight[own].sum()) for own in a.own])
    n_words = np.array([max(len(s.text.split()), 1) for s in a.document.text.sentences])
    features[:, gist.SENTENCE_FEATURES.index("mass")] = mass / 5.0
    features[:, gist.SENTENCE_FEATURES.index("mean mass")] = mass / np.sqrt(n_words)
    return features


def gist_of(a: Article, of_terms: FloatArray, of_sentences: FloatArray, coverage: float) -> str:
    """The gist of what follows the first page, as long as the abstract."""
    weight = np.where(a.is_content, 1 / (1 + np.exp(-np.clip(a.terms @ of_terms, -30, 30))), 0.0)
    prior = np.where(a.usable, with_mass(a, of_terms) @ of_sentences, -np.inf)
    n_words = np.array(
        [len(gist.without_asides(s.text).split()) for s in a.document.text.sentences]
    )
    scored = gist.Scored(prior, weight, n_words, a.own, ())
    gist.gist_weights = lambda: {"coverage": np.array([coverage])}  # type: ignore[assignment]
    rows = gist.choose(scored, np.flatnonzero(a.usable).tolist(), n_words=len(a.abstract.split()))
    return " ".join(gist.without_asides(a.document.text.sentences[row].text) for row in rows)


def judged(
    articles: list[Article], of_terms: FloatArray, of_sentences: FloatArray, coverage: float
) -> FloatArray:
    """(2,) mean ROUGE-1 and ROUGE-2."""
    values = [
        (rouge(text, a.abstract, 1), rouge(text, a.abstract, 2))
        for a in articles
        for text in (gist_of(a, of_terms, of_sentences, coverage),)
    ]
    return np.mean(np.array(values), axis=0)


def load(folder: Path) -> list[Article]:
    """The articles of a folder that have an abstract."""
    CACHE.mkdir(exist_ok=True)
    found = []
    for path in sorted(folder.glob("*.pdf")):
        kept = CACHE / f"{path.stem}.document"
        if kept.exists():
            document = pickle.loads(kept.read_bytes())
        else:
            document = read(path)
            kept.write_bytes(pickle.dumps(document, protocol=5))
        if (made := article(path.stem, document)) is not None:
            found.append(made)
    return found


def main() -> None:
    """Fit, judge on families left out, write."""
    folder = Path(next(a for a in sys.argv[1:] if not a.startswith("--")))
    articles = load(folder)
    families = sorted({a.family for a in articles})
    print(f"{len(articles)} articles of {len(families)} families")
    tries: dict[float, list[FloatArray]] = {c: [] for c in COVERAGES}
    n_of: list[int] = []
    for fold in range(N_FOLDS):
        out = {family for k, family in enumerate(families) if k % N_FOLDS == fold}
        held = [a for a in articles if a.family in out]
        weights = fit([a for a in articles if a.family not in out])
        n_of.append(len(held))
        for coverage in COVERAGES:
            tries[coverage].append(judged(held, *weights, coverage))
    means = {c: np.average(np.array(v), axis=0, weights=n_of) for c, v in tries.items()}
    for c, mean in means.items():
        print(f"coverage {c:5.1f}   left out: R1 {mean[0]:.3f}  R2 {mean[1]:.3f}")
    best = max(means, key=lambda c: float(means[c].sum()))
    of_terms, of_sentences = fit(articles)
    if "--write" not in sys.argv:
        return
    made_of = hashlib.sha256("\n".join(a.name + a.abstract for a in articles).encode())
    data = {
        "made": datetime.now(UTC).date().isoformat(),
        "of": {"articles": len(articles), "families": len(families),
               "sha256": made_of.hexdigest()},
        "left out": {"R1": round(float(means[best][0]), 4), "R2": round(float(means[best][1]), 4)},
        "coverage": best,
        "term": dict(zip(gist.TERM_FEATURES, np.round(of_terms, 5).tolist(), strict=True)),
        "sentence": dict(
            zip(gist.SENTENCE_FEATURES, np.round(of_sentences, 5).tolist(), strict=True)
        ),
    }  # fmt: skip
    WEIGHTS.write_text(json.dumps(data, indent=1) + "\n", encoding="utf-8")
    ARTICLES.write_text(json.dumps([a.name for a in articles], indent=0) + "\n", encoding="utf-8")
    print(f"written to {WEIGHTS.relative_to(ROOT)}")


if __name__ == "__main__":
    main()
