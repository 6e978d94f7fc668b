"""Contents without pages, as at the top of a manual on the web, are listings and no text."""

import pytest

from tests.making import make_pdf, read_document

NAMES = ("Wells", "Ropes of hemp", "Lids", "Buckets", "Keys", "Handles of iron")
SAID = "It is looked at by the keeper every spring, and is mended before the first frost comes."


def kinds_of(tmp_path, top, *, names=NAMES):
    sections = [
        [
            ("h2", name),
            ("text", SAID),
            ("text", "Next: Lids, Previous: Wells, Up: Keeping [Contents]"),
        ]
        for name in names
    ]
    make_pdf(tmp_path / "a.pdf", [[("title", "Keeping Wells"), *top], *sections])
    sentences = read_document(tmp_path / "a.pdf").text.sentences
    return {sentence.text: sentence.kind for sentence in sentences if sentence.page == 0} | {
        sentence.text: sentence.kind for sentence in sentences if sentence.text.startswith("Next")
    }


@pytest.mark.parametrize(
    "top",
    [
        [("text", name) for name in NAMES],
        [("text", "Wells Ropes of hemp Lids"), ("text", "Buckets Keys Handles of iron")],
        [("item", f"\u2022 {name}") for name in NAMES],
    ],
)
def test_titles_one_after_the_other_are_contents(tmp_path, top):
    kinds = kinds_of(tmp_path, [("text", "Read all of it."), *top])
    assert kinds["Read all of it."] == "body"
    first = " ".join(top[0][1].split()[:2])
    assert {kind for text, kind in kinds.items() if text.startswith(first)} == {"listing"}


@pytest.mark.parametrize(
    "top",
    [
        [("text", name) for name in NAMES[:4]],
        [("text", f"{name} and their care") for name in NAMES],
        [("text", "These are needed:"), *[("item", f"\u2022 {name}") for name in NAMES]],
    ],
)
def test_few_titles_other_words_and_lists_that_are_led_in_to_are_text(tmp_path, top):
    kinds = kinds_of(tmp_path, top)
    assert "listing" not in {kinds[text] for _, text in top if text in kinds}


def test_links_to_the_next_page_are_no_text(tmp_path):
    kinds = kinds_of(tmp_path, [("text", SAID)])
    assert kinds["Next: Lids, Previous: Wells, Up: Keeping [Contents]"] == "listing"
