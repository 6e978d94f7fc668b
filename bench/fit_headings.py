"""Grow the trees that tell headings, judged on families of documents left out in turn.

    python bench/fit_headings.py FOLDER [--write]

bench/outlines.json.gz names the documents by Debian package, path and checksum, with the outline of
each: its bookmarks, every title looked up on its page, those that are not printed there dropped.
FOLDER holds the files, each under its checksum (SHA-256) as SHA.pdf; ``--fetch`` gets them with
apt-get first. For each fold whole families are left out; with --write the trees grown on all go to
src/wide_margin/data/heading-trees.json, with the date, a hash and the figures reached.

Needs the packages of the extra "fit", which `make fit` installs.
"""

import argparse
import gzip
import hashlib
import json
import re
import subprocess
import tempfile
from collections import Counter, defaultdict
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from statistics import fmean
from typing import Any

import numpy as np
from outline import ROOT, Prepared

from wide_margin.core.geometry import FloatArray
from wide_margin.core.lexicon import bare, squashed
from wide_margin.core.outline import headings
from wide_margin.core.outline.build import between, listed_rows
from wide_margin.core.outline.candidates import body_face, find_candidates
from wide_margin.core.outline.heading_signs import SIGNS, signs_of
from wide_margin.core.outline.prominence import look_of, usual_headings
from wide_margin.core.outline.titles import forms_of, similarity
from wide_margin.core.outline.trees import read_trees

OUTLINES = ROOT / "bench" / "outlines.json.gz"
TREES = ROOT / "src" / "wide_margin" / "data" / headings.TREES
N_FOLDS = 6
GROWN = {
    "max_iter": 150, "max_leaf_nodes": 12, "learning_rate": 0.07, "l2_regularization": 5.0,
    "min_samples_leaf": 40, "max_features": 0.4, "early_stopping": False, "random_state": 0,
}  # fmt: skip
MOST_OF_ONE = 300
"""A document counts for at most so many of its candidates."""
_DECIMAL = re.compile(r"^\d+(?:\.\d+)+\b")
_NUMBERED = re.compile(r"^[\dA-Z.]+\s+")
_OFTEN_UNLISTED = squashed("contents", "list_of", "abstract", "summary", "preface", "references",
                           "acknowledgements", "index", "glossary")  # fmt: skip


@dataclass(eq=False)
class Judged:
    """The candidates of a document, and which of them its outline names."""

    family: str
    signs: FloatArray
    unlisted: FloatArray
    """The signs where there is no contents page to ask."""
    is_heading: FloatArray
    weight: FloatArray
    """0 for what may be a heading though no bookmark names it: parts of the front matter, and
    numbers deeper than any bookmark's."""
    is_usual: FloatArray
    n_headings: int


def judge(item: dict[str, Any], path: Path) -> Judged:
    """Read a document and tell its headings by its outline."""
    document = Prepared(path)
    paragraphs, size = document.paragraphs, document.size
    contents = document.contents()
    listings = between(document.listings | contents.pages)
    passed_over = listed_rows(contents, paragraphs) | {
        row for row, p in enumerate(paragraphs)
        if p.page in listings and p.pieces[0].line.size < 1.25 * size
    }  # fmt: skip
    face = body_face(paragraphs)
    candidates = find_candidates(paragraphs, size, face, frozenset(passed_over))
    look = look_of(candidates, paragraphs, size)
    titles = frozenset(form for e in contents.entries for form in forms_of(e.title) if form)
    signs = signs_of(candidates, paragraphs, size, face, look, titles, document.n_pages)
    unlisted = signs_of(candidates, paragraphs, size, face, look, frozenset(), document.n_pages)
    usual = usual_headings(candidates, look, size, len(paragraphs), face)
    by_page: dict[int, list[str]] = defaultdict(list)
    for _, page, title in item["outline"]:
        by_page[page].append(title)
    is_heading = np.zeros(len(candidates))
    # Of a heading and a running head that repeats it, the larger is the heading.
    order = sorted(range(len(candidates)), key=lambda k: (-candidates[k].style.size, k))
    for k in order:
        left = by_page[candidates[k].page + 1]
        match = next((t for t in left if similarity(t, candidates[k].title) > 0), None)
        if match is not None:
            left.remove(match)
            is_heading[k] = 1
    depths = [len(m[0].split(".")) for *_, t in item["outline"] if (m := _DECIMAL.match(t))]
    weight = np.ones(len(candidates))
    for k, candidate in enumerate(candidates):
        number = _DECIMAL.match(candidate.title)
        deeper = number and depths and len(number[0].split(".")) > max(depths)
        front = bare(_NUMBERED.sub("", candidate.title)) in _OFTEN_UNLISTED
        if not is_heading[k] and (deeper or front):
            weight[k] = 0.0
    return Judged(item["family"], signs, unlisted, is_heading, weight, np.array(usual),
                  len(item["outline"]))  # fmt: skip


def grow(documents: list[Judged]) -> dict[str, Any]:
    """Trees on the candidates of some documents, every family counting the same.

    Each document counts twice, with its contents page and without: where there is none, what
    stands on the page must tell.
    """
    from sklearn.ensemble import HistGradientBoostingClassifier

    n_of = Counter(d.family for d in documents)
    signs = np.concatenate([s for d in documents for s in (d.signs, d.unlisted)])
    labels = np.concatenate([d.is_heading for d in documents for _ in range(2)])
    weights = np.concatenate([
        d.weight * min(len(d.signs), MOST_OF_ONE) / max(len(d.signs), 1) / n_of[d.family]
        for d in documents for _ in range(2)
    ])  # fmt: skip
    used = weights > 0
    weights = weights[used] / weights[used].mean()
    model = HistGradientBoostingClassifier(**GROWN)
    model.fit(signs[used], labels[used], sample_weight=weights)
    return as_json(model)


def as_json(model: Any) -> dict[str, Any]:
    """A grown model as trees.read_trees takes it."""
    data: dict[str, Any] = {
        "signs": list(SIGNS), "start": float(np.ravel(model._baseline_prediction)[0]),
        "roots": [], "sign": [], "threshold": [], "left": [], "right": [], "value": [],
    }  # fmt: skip
    for (tree,) in model._predictors:
        base = len(data["sign"])
        data["roots"].append(base)
        for node in tree.nodes:
            leaf = bool(node["is_leaf"])
            data["sign"].append(-1 if leaf else int(node["feature_idx"]))
            data["threshold"].append(0.0 if leaf else float(f"{node['num_threshold']:.9g}"))
            data["left"].append(base if leaf else base + int(node["left"]))
            data["right"].append(base if leaf else base + int(node["right"]))
            data["value"].append(round(float(node["value"]), 5) if leaf else 0.0)
    return data


def f1(document: Judged, grown: dict[str, Any]) -> float:
    """F1 of the headings that trees and the usual look find together, before any contents page."""
    odds = read_trees(grown).log_odds(document.signs)
    capital = document.signs[:, SIGNS.index("capital")] > 0
    least = np.where(capital, headings.LEAST_CAPITAL, headings.LEAST)
    kept = (odds > headings.SURE) | (document.is_usual & (odds > least))
    right = float((kept & (document.is_heading > 0)).sum())
    wrong = float((kept & (document.is_heading == 0) & (document.weight > 0)).sum())
    return 2 * right / max(right + wrong + document.n_headings, 1.0)


def by_family(values: list[tuple[str, float]]) -> dict[str, float]:
    """The mean of each family."""
    found: dict[str, list[float]] = defaultdict(list)
    for family, value in values:
        found[family].append(value)
    return {family: fmean(each) for family, each in found.items()}


def fetch(items: list[dict[str, Any]], folder: Path) -> None:
    """Get what is missing from its Debian package."""
    folder.mkdir(parents=True, exist_ok=True)
    missing = [i for i in items if not (folder / f"{i['sha256']}.pdf").exists()]
    for package in sorted({i["package"] for i in missing}):
        with tempfile.TemporaryDirectory() as place:
            subprocess.run(["apt-get", "download", "-qq", package], cwd=place, check=False)
            for deb in Path(place).glob("*.deb"):
                subprocess.run(["dpkg-deb", "-x", str(deb), place], check=False)
            for item in missing:
                source = Path(place, item["path"])
                if item["package"] != package or not source.is_file():
                    continue
                target = folder / f"{item['sha256']}.pdf"
                data = source.read_bytes()
                target.write_bytes(gzip.decompress(data) if source.suffix == ".gz" else data)
                if hashlib.sha256(target.read_bytes()).hexdigest() != item["sha256"]:
                    target.unlink()
                    print(f"{package}: {item['path']} is another version")


def main() -> None:
    """Fit, judge on the families left out, and write where that is wanted."""
    parser = argparse.ArgumentParser(description="Grow the trees that tell headings.")
    parser.add_argument("folder", type=Path)
    parser.add_argument("--fetch", action="store_true", help="get missing files by apt-get")
    parser.add_argument("--write", action="store_true", help="keep the trees grown on all")
    parser.add_argument("--list", type=Path, default=OUTLINES, help="get these files alone")
    options = parser.parse_args()
    items = json.loads(gzip.decompress(options.list.read_bytes()))
    if options.fetch:
        fetch(items, options.folder)
    if options.list != OUTLINES:
        return
    there = [i for i in items if (options.folder / f"{i['sha256']}.pdf").exists()]
    print(f"{len(there)} of {len(items)} documents are at hand")
    documents = [judge(i, options.folder / f"{i['sha256']}.pdf") for i in there]
    families = sorted({d.family for d in documents})
    np.random.default_rng(1).shuffle(families)
    left_out: list[tuple[str, float]] = []
    for fold in range(N_FOLDS):
        out = set(families[fold::N_FOLDS])
        grown = grow([d for d in documents if d.family not in out])
        left_out += [(d.family, f1(d, grown)) for d in documents if d.family in out]
    means = by_family(left_out)
    figures = {"heading F1": round(fmean(means.values()), 4),
               "families below 0.75": sum(value < 0.75 for value in means.values())}  # fmt: skip
    print(json.dumps(figures))
    if options.write:
        digest = hashlib.sha256("".join(sorted(i["sha256"] for i in there)).encode()).hexdigest()
        head = {
            "made": datetime.now(tz=UTC).date().isoformat(),
            "of": {"documents": len(there), "families": len(families), "sha256": digest},
            "left out": figures,
        }
        text = json.dumps({**head, **grow(documents)}, separators=(",", ":"))
        TREES.write_text(text + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
