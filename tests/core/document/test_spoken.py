"""What is read aloud: sentences in reading order, without what only the eye needs."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.document.spoken import as_said, spoken


@pytest.fixture(scope="module")
def book(tmp_path_factory):
    path = tmp_path_factory.mktemp("said") / "book.pdf"
    pages = [
        [("head", "A small book"), ("h1", "1 Wells"),
         ("text", "A well is a hole in the ground that holds water, e.g. for sheep. It must be"
                  " covered at night, see p. 12, and the under-keeper signs for it."),
         ("code", "x = y + 1; print(x)"),
         ("text", "The rope is changed every eighteen months.")],
        [("head", "A small book"), ("h1", "2 Buckets"), ("text", "A bucket holds 12 litres.")],
    ]  # fmt: skip
    make_pdf(path, pages)
    return read_document(path)


def test_running_heads_page_numbers_and_code_are_not_said(book):
    said = [sentence.text for sentence in spoken(book)]
    assert said[0] == "1 Wells"
    assert not any("A small book" in text or "print" in text for text in said)
    assert not any(text.strip().isdigit() for text in said)
    assert said[-1] == "A bucket holds 12 litres."


def test_abbreviations_are_said_in_full(book):
    said = " ".join(sentence.text for sentence in spoken(book))
    assert "for example for sheep" in said
    assert "see page 12" in said


def test_every_sentence_knows_its_place_and_paragraph(book):
    said = spoken(book)
    assert [s.locator.page for s in said] == sorted(s.locator.page for s in said)
    assert len({s.paragraph for s in said}) >= 5
    assert all(s.locator.spans for s in said)


def test_the_marks_of_footnotes_are_not_said_and_their_notes_if_wished(handbook):
    plain = " ".join(s.text for s in spoken(handbook))
    assert "Eleven people and some four hundred sheep were drowned." in plain
    assert "Their names are on the board" not in plain
    said = [s.text for s in spoken(handbook, with_notes=True)]
    at = next(k for k, text in enumerate(said) if "Their names are on the board" in text)
    assert any("the best" in text or "drowned" in text for text in said[max(0, at - 6) : at])


def test_rows_of_tables_and_contents_pages_are_not_said(handbook):
    said = [s.text for s in spoken(handbook)]
    assert not any("3 November 1911" in text and "WSW" in text for text in said)
    assert not any(". . . ." in text for text in said)


@pytest.mark.parametrize(
    ("text", "language", "said"),
    [
        ("See Fig. 3 and p. 7.", "en", "See Figure 3 and page 7."),
        ("It stops.", "en", "It stops."),
        ("Water, i.e. rain [3, 4].", "en", "Water, that is rain."),
        ("Name ............ 7", "en", "Name 7"),
        ("Vgl. Abb. 2, z. B. S. 9.", "de", "Vgl. Abbildung 2, zum Beispiel Seite 9."),
        ("x² + y² = z² + 4/3", "en", ""),
        ("— — —", "en", ""),
        ("So no. It ends with no.", "en", "So no. It ends with no."),
    ],
)
def test_how_a_sentence_is_said(text, language, said):
    assert as_said(text, language) == said
