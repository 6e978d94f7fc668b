import json
from pathlib import Path

import pytest

from wide_margin.core.answers import check_backing

EXCERPT = (
    "The pump of the lower lock is greased every six weeks by Jon Berg, with 40 grams of tallow,"
    " and must not be started dry."
)


@pytest.mark.parametrize(
    ("sentence", "verdict", "reason"),
    [
        ("Jon Berg greases the pump of the lower lock every six weeks.", "backed", ""),
        ("Every six weeks the pump gets 40 grams of tallow.", "backed", ""),
        ("The pump is greased every nine weeks by Jon Berg.", "unbacked", "number nine"),
        ("The pump is greased every six days by Jon Berg.", "unbacked", "another unit"),
        ("The pump is greased with 40 kilograms of tallow.", "unbacked", "another unit"),
        ("The pump is greased every six weeks by Ola Holt.", "unbacked", "“Ola”"),
        ("The pump of the lower lock must be started dry.", "unbacked", "denies"),
        ("The pump of the lower lock is never greased.", "unbacked", "denies"),
        (
            "The crane of the lower lock is greased every six weeks by Jon Berg.",
            "unbacked",
            "crane",
        ),
        ("The pump is greased every six weeks and painted yellow for the festival.", "partly", ""),
        ("Visitors admire the rose garden behind the chapel.", "unbacked", "not in the excerpt"),
    ],
)
def test_a_sentence_is_checked_against_its_excerpt(sentence, verdict, reason):
    backing = check_backing(sentence, [EXCERPT])
    assert backing.verdict == verdict
    assert reason in " ".join(backing.reasons)


@pytest.mark.parametrize(
    ("excerpt", "sentence"),
    [
        ("Reports are due each quarter.", "Reports are due every 3 months."),
        ("Reports have at most twelve pages.", "Reports have no more than 12 pages."),
        ("Nobody enters unless the lamp is lit.", "Nobody enters unless the lamp is lit."),
        ("It holds not more than 1,500 litres.", "It holds 1,500 litres at most."),
    ],
)
def test_the_same_said_otherwise_is_not_unbacked(excerpt, sentence):
    assert check_backing(sentence, [excerpt]).verdict != "unbacked"


def test_any_of_several_excerpts_may_back_a_sentence():
    others = ["Ropes are made of hemp.", EXCERPT]
    assert check_backing("The pump is greased every six weeks.", others).verdict == "backed"


def test_the_pairs_of_the_handbook_are_judged_as_by_a_careful_reader():
    path = Path(__file__).resolve().parents[3] / "demo" / "backing.jsonl"
    pairs = [json.loads(line) for line in path.read_text(encoding="utf-8").splitlines()]
    verdicts = [(p, check_backing(p["sentence"], [p["excerpt"]]).verdict) for p in pairs]
    false = [verdict for p, verdict in verdicts if p["verdict"] == "unbacked"]
    true = [verdict for p, verdict in verdicts if p["change"] == "paraphrase"]
    assert false.count("unbacked") >= 0.9 * len(false)
    assert true.count("unbacked") <= 0.2 * len(true)


@pytest.mark.parametrize(
    ("sentence", "excerpt", "verdict"),
    [
        ("Mail is looked for once a minute.", "Mail is looked for every 60 seconds.", "backed"),
        ("New releases take over a year.", "New releases take over 12 months.", "backed"),
        ("Sheets are changed each quarter.", "Sheets are changed each month.", "unbacked"),
        ("Sheets are changed every week.", "Sheets are changed at noon.", "unbacked"),
        ("The disk is partitioned again.", "The disk is repartitioned.", "backed"),
    ],
)
def test_lengths_of_time_and_prefixes_are_understood(sentence, excerpt, verdict):
    assert check_backing(sentence, [excerpt]).verdict == verdict
