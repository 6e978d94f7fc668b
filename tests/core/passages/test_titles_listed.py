"""Contents without pages, as at the top of a manual on the web, are listings and no text."""

import pytest

from tests.making import make_pdf, read_document

NAMES = ("Wells", "Ropes of hemp", "Lids", "Wooden buckets", "Keys", "Handles of iron")
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
        [("text", "Wells Ropes of hemp Lids"), ("text", "Wooden buckets Keys Handles of iron")],
        [("text", "Ropes of hemp Handles of iron Wooden buckets")],
        [("item", f"\u2022 {name}") for name in NAMES],
        # Of parts that stand elsewhere only the numbers tell.
        [
            ("text", "1.1. Oars 1.2. Sails and masts 1.3. Anchors"),
            ("text", "2.1. Nets 2.2. Floats"),
        ],
    ],
)
def test_titles_one_after_the_other_are_contents(tmp_path, top):
    kinds = kinds_of(tmp_path, [("text", "Read all of it."), *top])
    assert kinds["Read all of it."] == "body"
    others = [text for text in kinds if not text.startswith(("Keeping", "Read", "Next"))]
    assert {kinds[text] for text in others} == {"listing"}


@pytest.mark.parametrize(
    "top",
    [
        [("item", f"\u2022 {name}") for name in NAMES[:4]],
        [("text", "Wells Lids")],
        [("text", f"{name} and their care") for name in NAMES],
        [
            (
                "text",
                "1.1. Oars are long. 1.2. Sails are wide. 1.3. Anchors are heavy. 1.4. No nets.",
            )
        ],
        [("text", "These are needed:"), *[("item", f"\u2022 {name}") for name in NAMES]],
    ],
)
def test_few_titles_other_words_and_lists_that_are_led_in_to_are_text(tmp_path, top):
    kinds = kinds_of(tmp_path, top)
    assert "listing" not in {kinds[text] for _, text in top if text in kinds}


def test_links_to_the_next_page_are_no_text(tmp_path):
    kinds = kinds_of(tmp_path, [("text", SAID)])
    assert kinds["Next: Lids, Previous: Wells, Up: Keeping [Contents]"] == "listing"
