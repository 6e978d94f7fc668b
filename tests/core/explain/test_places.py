"""References of every sort, led to their places."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.explain import Explainer, explain_section
from wide_margin.core.explain.references import find_references
from wide_margin.core.explain.targets import Targets

FILL = "The days went by, and the gauge was read as before by whoever was there to read it."


@pytest.fixture(scope="module")
def document(tmp_path_factory):
    path = tmp_path_factory.mktemp("places") / "places.pdf"
    titles = [
        ("1 Gauges", 0, 0), ("1.1 Floats", 1, 0), ("1.2 Locking", 1, 1), ("2 Marks", 0, 2),
        ("2.1 Old marks", 1, 2), ("References", 0, 3), ("Appendix A Forms", 0, 4),
    ]  # fmt: skip
    make_pdf(path, [
        [("h1", "1 Gauges"), ("text", FILL), ("h2", "1.1 Floats"), ("text", FILL),
         ("small", "Table 1. Floats by station."), ("text", "Table 2 provides nothing but names.")],
        [("h2", "1.2 Locking"), ("text", "The drum is locked by a pin. " + FILL),
         ("small", "Figure 3. A pin and its drum.")],
        [("h1", "2 Marks"), ("text", "As said in the previous section, a pin is needed. " + FILL),
         ("h2", "2.1 Old marks"), ("text", "This section names Table 2. " + FILL),
         ("small", "Table 2. Marks by age.")],
        [("h1", "References"),
         ("text", "Author A, Bauthor B (2004). On the reading of gauges. Journal of Tides, 7, 1-9."),
         ("text", "Cauthor, C. (1980). Marks and their movement. Harbour Press."),
         ("text", "Cauthor, C. (1994). More marks and their movement. Harbour Press."),
         ("text", "Dauthor D (1990a). Floats. In Notes on Tides, pp. 3-8.")],
        [("h1", "Appendix A Forms"), ("text", FILL)],
    ], bookmarks=titles)  # fmt: skip
    return read_document(path)


@pytest.fixture(scope="module")
def targets(document):
    return Targets(document)


def led(document, targets, text, row=-1):
    return {r.text: r for r in find_references(document, text, targets, row)}


def row_of(document, words):
    return next(k for k, s in enumerate(document.text.sentences) if words in s.text)


@pytest.mark.parametrize(
    ("text", "written", "title"),
    [
        ("see Sections 1.1 and 2.1", "Sections 1.1", "1.1 Floats"),
        ("see Sections 1.1 and 2.1", "sections 2.1", "2.1 Old marks"),
        ("in Table 2 below", "Table 2", "Table 2. Marks by age."),
        ("in Figs. 3", "Figs. 3", "Figure 3. A pin and its drum."),
        ("as Author and Bauthor (2004) say", "Author and Bauthor (2004)", "Author A, Bauthor B (2004)"),
        ("long ago (Cauthor 1980, p. 104)", "Cauthor 1980", "Cauthor, C. (1980)"),
        ("(Dauthor, 1990a)", "Dauthor, 1990a", "Dauthor D (1990a)"),
        ("by floats (3LS, Author and Bauthor 2004)", "Author and", "Author A, Bauthor B (2004)"),
        ("of marks (Cauthor 1980, 1994)", "Cauthor 1980", "Cauthor, C. (1980)"),
        ("of marks (Cauthor 1980, 1994)", "Cauthor 1994", "Cauthor, C. (1994)"),
        ("the section on locking", "the section on locking", "1.2 Locking"),
        ("forms are in the appendix", "the appendix", "Appendix A Forms"),
    ],
)  # fmt: skip
def test_references_lead_to_their_places(document, targets, text, written, title):
    found = led(document, targets, text)
    key = next((k for k in found if k.lower().startswith(written.lower())), None)
    assert key is not None, found
    assert found[key].title.startswith(title)


def test_a_page_within_a_citation_is_no_page_of_this_document(document, targets):
    found = led(document, targets, "long ago (Cauthor 1980, p. 104)")
    assert not any(text.startswith("p.") for text in found)


def test_a_sentence_that_begins_with_a_tables_name_is_not_its_caption(document, targets):
    assert led(document, targets, "Table 2")["Table 2"].locator.page == 2


@pytest.mark.parametrize(
    ("text", "title"),
    [("the previous section", "1.2 Locking"), ("the next chapter", "References"), ("this chapter", "2 Marks")],
)  # fmt: skip
def test_places_are_told_from_where_the_text_stands(document, targets, text, title):
    row = row_of(document, "As said in the previous section")
    found = led(document, targets, text, row)
    if text == "the previous section":
        assert found[text].title in (title, "1 Gauges")
    else:
        assert found[text].title == title


def test_places_told_from_here_need_a_here(document, targets):
    assert led(document, targets, "see the next chapter") == {}


def test_what_is_not_there_is_told_to_be_missing(document, targets):
    assert led(document, targets, "see Table 9")["Table 9"].locator is None


def test_a_section_tells_what_refers_to_it(document):
    explainer = Explainer(document)
    row = [s.title for s in document.outline.sections].index("1.2 Locking")
    told = explain_section(document, explainer, row)
    assert told.begins.text == "The drum is locked by a pin."
    assert told.title == "1.2 Locking"


def test_an_equation_is_found_by_its_number(tmp_path):
    path = tmp_path / "equation.pdf"
    from reportlab.pdfgen.canvas import Canvas

    canvas = Canvas(str(path), invariant=1)
    canvas.setFont("Times-Roman", 11)
    for k in range(3):
        canvas.drawString(72, 750 - 14 * k, FILL)
    canvas.drawString(230, 690, "h = 2k + r")
    canvas.drawRightString(520, 690, "(4)")
    canvas.drawString(
        72, 660, "By (4) the height is known, which nobody had thought of before that day."
    )
    canvas.save()
    document = read_document(path)
    found = {r.text: r for r in find_references(document, "By (4) the height is known.")}
    assert found["(4)"].title.startswith("h = 2k + r")


def test_a_footnote_of_the_selection_is_shown(handbook):
    from wide_margin.core.document import find_notes

    ties = find_notes(handbook.paragraphs)
    assert ties, "the handbook has footnotes"
    tie = ties[0]
    sentence = next(
        s for s in handbook.text.sentences
        if s.paragraph == tie.paragraph and s.start <= tie.start <= s.end + 1
    )  # fmt: skip
    references = Explainer(handbook).explain(sentence.text, sentence.page).references
    assert any(r.text.startswith("note ") for r in references)
