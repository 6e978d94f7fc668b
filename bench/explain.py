"""How well terms are explained: is the page that defines a term the first one shown?

    python bench/explain.py [--verbose]

bench/terms.jsonl names terms that two documents of .eval-documents define, with the labels of the
pages where they do, found by reading. Told too: how long a selection takes on the larger one.
"""

import argparse
import json
import random
import statistics
import time
from collections import defaultdict

from answers import DOCUMENTS, ROOT, read

from wide_margin.core.explain import Explainer

TERMS = ROOT / "bench" / "terms.jsonl"
N_SELECTIONS = 60


def main() -> None:
    """Explain every term, and some sentences by lot."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--verbose", action="store_true")
    verbose = parser.parse_args().verbose
    by_document: dict[str, list[dict[str, object]]] = defaultdict(list)
    for line in TERMS.read_text("utf-8").splitlines():
        item = json.loads(line)
        by_document[item["document"]].append(item)
    right = whole = 0
    for name, items in by_document.items():
        document = read(DOCUMENTS / f"{name}.pdf")
        explainer = Explainer(document)
        for item in items:
            meanings = explainer.explain(str(item["term"])).meanings
            label = meanings[0].locator.label if meanings else None
            whole += 1
            right += label in item["pages"]
            if verbose and label not in item["pages"]:
                print(name, item["term"], item["pages"], label, meanings[:1])
    print(f"defining page first: {right} of {whole}, {right / whole:.3f} (at least 0.85)")
    lot = random.Random(1)
    sentences = [s for s in document.text.sentences if s.kind == "body" and len(s.text) > 80]
    _ = explainer.targets, explainer.explain(sentences[0].text)
    times, told = [], []
    for sentence in lot.sample(sentences, min(N_SELECTIONS, len(sentences))):
        start = time.perf_counter()
        told.append(explainer.explain(sentence.text, sentence.page).n_told)
        times.append(1000 * (time.perf_counter() - start))
    print(f"a selection: median {statistics.median(times):.0f} ms, longest {max(times):.0f} ms")
    print(f"two things told, or more: {statistics.fmean(n >= 2 for n in told):.2f}")


if __name__ == "__main__":
    main()
