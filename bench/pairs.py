"""How many spoiled translations the checks find, and how many sound ones they mark.

    python bench/pairs.py [--verbose]

bench/pairs.jsonl holds sound pairs. Each is spoiled here in one way, by lot among those that fit
it: a number, unit, month, label or name changed or dropped, a denial taken out or put in, a half
left out, words left as they were.
"""

import argparse
import json
import random
import re
from collections import Counter
from collections.abc import Callable, Iterator
from pathlib import Path

from wide_margin.core.translate.checks import faults_of

PAIRS = Path(__file__).resolve().parent / "pairs.jsonl"
_DENIALS = r"\b(?:nicht|not|never|cannot|n’|ne|pas|nunca|No|no|Ni|ni|ne|No|sans|without)\b ?"
_MONTHS = "Mai mayo May Oktober October Februar juillet March mars".split()  # noqa: SIM905
_LABELS = {
    "Tabelle": "Abbildung", "Abbildung": "Tabelle", "Figure": "Table", "figura": "tabla",
    "Kapitel": "Abschnitt", "chapitre": "tableau", "tableau": "figure", "Chapter": "Table",
}  # fmt: skip
_UNITS = {
    " m ": " km ", " kPa": " bar", " km": " m", " kg": " g", "°C": "°F", " %": " kg", " s,": " h,",
}  # fmt: skip


def spoilers() -> dict[str, Callable[[str, str], str]]:
    """Ways to spoil a translation; one that does not fit gives it back as it is."""
    return {
        "number changed": lambda s, t: re.sub(r"\d+", lambda m: str(int(m[0]) + 3), t, count=1),
        "number dropped": lambda s, t: re.sub(r" ?\d+(?:[.,]\d+)?", "", t, count=1),
        "unit changed": lambda s, t: _swapped(t, _UNITS),
        "month changed": lambda s, t: _swapped(t, dict.fromkeys(_MONTHS, "August")),
        "label changed": lambda s, t: _swapped(t, _LABELS),
        "denial dropped": lambda s, t: re.sub(_DENIALS, "", t),
        "half left out": lambda s, t: t[: int(0.4 * len(t))],
        "left as it was": lambda s, t: s,
        "name dropped": lambda s, t: re.sub(r"\b(?:Hornik|Bergström|Lindqvist)\b", "", t),
        "sign dropped": lambda s, t: re.sub(r"--force|/etc/fstab|max_size|\$HOME", "", t, count=1),
    }


def _swapped(text: str, pairs: dict[str, str]) -> str:
    for one, other in pairs.items():
        if one in text:
            return text.replace(one, other, 1)
    return text


def spoiled(seed: int) -> Iterator[tuple[str, dict[str, str], str]]:
    """The way, the pair and the spoiled translation, for every pair."""
    lot = random.Random(seed)
    for line in PAIRS.read_text("utf-8").splitlines():
        pair = json.loads(line)
        ways = list(spoilers().items())
        lot.shuffle(ways)
        for way, spoil in ways:
            text = spoil(pair["source"], pair["target"])
            if text != pair["target"]:
                yield way, pair, text
                break


def main() -> None:
    """Check all, and tell the shares."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--verbose", action="store_true")
    verbose = parser.parse_args().verbose
    found: Counter[str] = Counter()
    whole: Counter[str] = Counter()
    marked = sound = 0
    for seed in range(5):
        for way, pair, text in spoiled(seed):
            faults = faults_of(pair["source"], text, pair["to"])
            whole[way] += 1
            found[way] += bool(faults)
            if verbose and not faults:
                print(way, "|", pair["source"], "|", text)
    for line in PAIRS.read_text("utf-8").splitlines():
        pair = json.loads(line)
        sound += 1
        faults = faults_of(pair["source"], pair["target"], pair["to"])
        marked += bool(faults)
        if verbose and faults:
            print("sound but marked", pair["target"], faults)
    for way, n in sorted(whole.items()):
        print(f"{way:18s} {found[way]} of {n}")
    print(f"spoiled found {found.total() / whole.total():.3f} (at least 0.95)")
    print(f"sound marked  {marked / sound:.3f} of {sound} (at most 0.05)")


if __name__ == "__main__":
    main()
