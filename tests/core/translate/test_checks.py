"""What the checks find in translations, and what they let pass."""

import json
from pathlib import Path

import pytest

from wide_margin.core.translate import TermRule, faults_of


def kinds(source: str, target: str, language: str = "de", **more) -> set[str]:
    return {str(fault.kind) for fault in faults_of(source, target, language, **more)}


@pytest.mark.parametrize(
    ("source", "target", "language", "kind"),
    [
        ("It stands 3.5 m above the datum.", "Es steht 5,3 m über dem Nullpunkt.", "de", "number"),
        ("It stands above the datum.", "Es steht 7 m über dem Nullpunkt.", "de", "number"),
        ("It has 2 lids of oak.", "Den har andra lock av ek.", "sv", "number"),
        ("It stands 3.5 m above it.", "Es steht 3,5 km darüber.", "de", "unit"),
        ("It was on 12 March 1990.", "Es war am 12. April 1990.", "de", "date"),
        ("It was on Monday at noon.", "Es war am Dienstag gegen Mittag.", "de", "date"),
        ("See table 3 for the rest.", "Siehe Abbildung 3 für den Rest.", "de", "reference"),
        ("It was proposed by Hornik first.", "Il fut proposé en premier.", "fr", "name"),
        ("Use --force with care.", "Utilisez l’option avec soin.", "fr", "sign"),
        ("It must not be opened.", "Es darf geöffnet werden.", "de", "negation"),
        ("It may be opened at once.", "Es darf nicht sofort geöffnet werden.", "de", "negation"),
        ("The keeper reads the gauge by night.", "The keeper reads the gauge by night.", "fr", "untranslated"),
        ("The keeper reads the gauge three times a day and writes it down.", "Er liest.", "de", "length"),
        ("Anything at all.", "", "de", "empty"),
    ],
)  # fmt: skip
def test_a_fault_is_found_and_named(source, target, language, kind):
    assert kind in kinds(source, target, language)


@pytest.mark.parametrize(
    ("source", "target", "language"),
    [
        ("About 1,250 ships, 40 % of them empty.", "Rund 1.250 Schiffe, 40 Prozent davon leer.", "de"),
        ("He reads it three times a day.", "Il le relève 3 fois par jour.", "fr"),
        ("It fell to -12 °C on 3 February 1953.", "Am 3. Februar 1953 fiel sie auf -12 °C.", "de"),
        ("Packages without a maintainer are removed.", "Les paquets sans responsable sont supprimés.", "fr"),
        ("Neither the old nor the new one was read.", "Ni l’ancien ni le nouveau ne fut relevé.", "fr"),
        ("In 1872 it cost 48 000 marks.", "1872 kostete es 48.000 Mark.", "de"),
        ("Der Deich ist undicht.", "The dyke is not tight.", "en"),
    ],
)  # fmt: skip
def test_a_sound_translation_passes(source, target, language):
    assert kinds(source, target, language) == set()


def test_a_term_is_rendered_as_the_reader_wants_it():
    rules = [TermRule("gauge", "Pegel"), TermRule("Sound datum", "")]
    assert kinds("The gauge is old.", "Die Uhr ist alt.", rules=rules) == {"term"}
    assert kinds("The gauge is old.", "Der Pegel ist alt.", rules=rules) == set()
    assert "term" in kinds("It is in Sound datum.", "Es ist im Sundnull.", rules=rules)


def test_most_spoiled_pairs_are_found_and_few_sound_ones_marked():
    import pairs

    n_found = n_spoiled = 0
    for seed in (11, 12):
        for _, pair, text in pairs.spoiled(seed):
            n_spoiled += 1
            n_found += bool(faults_of(pair["source"], text, pair["to"]))
    assert n_found >= 0.95 * n_spoiled
    sound = [json.loads(line) for line in Path(pairs.PAIRS).read_text("utf-8").splitlines()]
    marked = sum(bool(faults_of(p["source"], p["target"], p["to"])) for p in sound)
    assert marked <= 0.05 * len(sound)
