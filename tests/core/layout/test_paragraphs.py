from collections import Counter

import pytest
from hypothesis import example, given
from hypothesis import strategies as st
from reportlab.lib.pagesizes import A4
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from tests.making import STYLES, make_pdf, page_texts, read_document
from wide_margin.core.layout import (
    find_furniture,
    fold,
    folded_with_places,
    is_torn,
    lines_of,
    paragraphs_of,
    tidy,
    usual_size,
    vocabulary,
)
from wide_margin.core.layout.model import Line
from wide_margin.core.layout.paragraphs import _keeps_hyphen
from wide_margin.core.pages import LINE_END_HYPHEN


def paragraphs_in(path):
    pages = page_texts(path)
    lines = [lines_of(page) for page in pages]
    furniture = find_furniture(lines, [page.height for page in pages])
    text = [furniture.text_lines(k, on_page) for k, on_page in enumerate(lines)]
    return paragraphs_of(text, usual_size(text), vocabulary(text)), furniture, lines


def test_running_heads_and_page_numbers_are_set_aside(small_pdf):
    paragraphs, furniture, lines = paragraphs_in(small_pdf)
    set_aside = {lines[page][row].text for page, rows in enumerate(furniture.rows) for row in rows}
    assert set_aside == {"A small book", "1", "2", "3"}
    assert not any("small book" in p.text for p in paragraphs)


def test_lines_of_one_paragraph_are_one_text(small_pdf):
    paragraphs, *_ = paragraphs_in(small_pdf)
    texts = [tidy(p.text) for p in paragraphs]
    assert texts[:3] == [
        "1 Wells",
        "A well is a hole in the ground that holds water. It must be covered at night.",
        "The rope is changed every eighteen months, whether or not it looks worn.",
    ]


def test_a_paragraph_goes_on_over_a_page_end(tmp_path):
    path = tmp_path / "cut.pdf"
    long = " ".join(["word"] * 30)
    make_pdf(path, [[("text", f"{long} and this sentence")], [("text", f"goes on here. {long}.")]])
    paragraphs, *_ = paragraphs_in(path)
    assert len(paragraphs) == 1
    spans = paragraphs[0].spans(0, len(paragraphs[0].text))
    assert {span.page for span in spans} == {0, 1}


def test_a_new_sentence_on_a_new_page_is_a_new_paragraph(tmp_path):
    path = tmp_path / "two.pdf"
    make_pdf(path, [[("text", "This one ends.")], [("text", "This one starts.")]])
    assert len(paragraphs_in(path)[0]) == 2


def test_no_line_is_lost(small_pdf):
    paragraphs, furniture, lines = paragraphs_in(small_pdf)
    wanted = sum(len(furniture.text_lines(k, on_page)) for k, on_page in enumerate(lines))
    assert sum(len(p.pieces) for p in paragraphs) == wanted


def line(text, y=100.0, **changes):
    values = {"page": 0, "text": text, "spans": ((0, len(text)),), "box": (72.0, y, 400.0, y + 10),
              "size": 10.0, "is_bold": False, "is_italic": False, "is_fixed": False, "lead": 0,
              "column": 0}  # fmt: skip
    return Line(**{**values, **changes})


def test_a_hyphen_at_a_line_end_is_undone_and_the_places_still_fit():
    first = line("The under" + LINE_END_HYPHEN)
    second = line("standing grows.", 112.0, spans=((40, 55),))
    (paragraph,) = paragraphs_of([[first, second]], 10.0, Counter())
    assert paragraph.text == "The understanding grows."
    at = paragraph.text.index("understanding")
    spans = paragraph.spans(at, at + len("understanding"))
    assert [(s.start, s.end) for s in spans] == [(4, 9), (40, 48)]


@pytest.mark.parametrize(
    ("words", "kept"),
    [
        (Counter({"hand-made": 3}), True),
        (Counter({"handmade": 3}), False),
        (Counter(), False),
    ],
)
def test_the_document_says_whether_a_hyphen_belongs_to_the_word(words, kept):
    assert _keeps_hyphen("hand" + LINE_END_HYPHEN, "made paper", words) is kept


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("Table 3. The forms of the network", "caption"),
        ("Figure 12: A week at sea", "caption"),
        ("• the first of several", "item"),
        ("⋅ the first of several", "item"),
        ("2. then the second", "item"),
        ("Tables are turned in the evening", "body"),
    ],
)
def test_kinds_are_told_by_how_a_paragraph_starts(text, kind):
    (paragraph,) = paragraphs_of([[line(text)]], 10.0, Counter())
    assert paragraph.kind == kind


@pytest.mark.parametrize(
    ("raw", "expected"),
    [
        ("of\ufb01ce \ufb02ood", "office flood"),
        ("B\ue0a8arenreiter", "Bärenreiter"),
        ("caf\ue0b4e  au\nlait", "café au lait"),
        ("Run `apt update` in ´s place", "Run `apt update` in ´s place"),
        ("a lone \ue060 sign", "a lone ` sign"),
        ("soft\u00adware", "software"),
        ("plain text", "plain text"),
    ],
)
def test_tidy_makes_text_readable(raw, expected):
    assert tidy(raw) == expected


@given(st.text(max_size=60))
@example("\ue0c6")
@example("a \ue0b4 b \ue0b4e")
def test_every_tidied_word_is_found_in_what_was_tidied(text):
    folded, places = folded_with_places(text)
    assert len(folded) == len(places)
    assert " ".join(fold(tidy(text)).split()) in folded


@given(st.text(st.characters(max_codepoint=126, min_codepoint=32), max_size=60))
def test_tidy_keeps_plain_text_as_it_is(text):
    assert tidy(text) == " ".join(text.split())


def test_a_small_numbered_heading_low_on_a_page_is_no_footnote():
    body = [line("The text of the page goes on and on.", 100.0 + 12 * k) for k in range(8)]
    heading = line("4.3.1 Moving by hand", 240.0, size=9.0, box=(72.0, 240.0, 180.0, 249.0))
    note = line("3 See the first edition.", 300.0, size=8.0, box=(72.0, 300.0, 180.0, 308.0))
    kinds = {p.text: p.kind for p in paragraphs_of([[*body, heading, note]], 10.0, Counter())}
    assert kinds["4.3.1 Moving by hand"] == "body"
    assert kinds["3 See the first edition."] == "note"


def test_a_title_in_italics_stands_apart_from_the_text_under_it():
    title = line("File names with spaces", is_italic=True, box=(72.0, 100.0, 200.0, 110.0))
    text = line("In the last release the names of files were changed.", 112.0)
    assert [p.text for p in paragraphs_of([[title, text]], 10.0, Counter())] == [
        title.text, text.text,
    ]  # fmt: skip


def test_italics_within_running_text_do_not_end_it():
    first = line("It is told in the second book, which is called", 100.0)
    second = line("The Wells of the North and of the South Country", 112.0, is_italic=True)
    third = line("and was printed twice.", 124.0)
    assert len(paragraphs_of([[first, second, third]], 10.0, Counter())) == 1


@pytest.mark.parametrize(
    ("before", "after", "kept"),
    [("a box-and", "rope diagram", True), ("a box-and-ro", "pe diagram", False)],
)
def test_a_compound_of_several_words_keeps_its_hyphens(before, after, kept):
    words = Counter(["and", "rope", "diagram"])
    assert _keeps_hyphen(before + LINE_END_HYPHEN, after, words) is kept


@pytest.mark.parametrize("hyphen", ["-", "\u2010", "\u00ad", LINE_END_HYPHEN])
def test_a_word_parted_by_any_hyphen_is_whole_again(hyphen):
    assert _keeps_hyphen(f"a quick in{hyphen}", "troduction to it", Counter()) is False


@pytest.mark.parametrize(
    ("last", "is_text"), [("when they meet again.", True), ("Meetings", False), ("meeting", None)]
)
def test_a_remark_at_the_margin_is_no_row(tmp_path, last, is_text):
    path = tmp_path / "remark.pdf"
    canvas = Canvas(str(path), pagesize=(400, 400))
    said = ["The old names of the gauges will still be known for a", "while,"
            " so that all keepers of them have the time to learn"]  # fmt: skip
    said = [f"{text} {'more' * (k + 1)}" for k, text in enumerate(said)]
    end = "." if is_text is None else ""
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(40, 340, said[0])
    canvas.drawString(40, 327, said[1] + end)
    canvas.drawString(40, 314, last)
    canvas.setFont("Times-Italic", 9)
    canvas.drawRightString(40 + canvas.stringWidth(said[1], "Times-Roman", 11), 314, "(order 648)")
    canvas.save()
    paragraphs, *_ = paragraphs_in(path)
    assert (len(paragraphs) == 1) is bool(is_text)
    assert paragraphs[-1].text.endswith("(order 648)")


@pytest.mark.parametrize(
    ("lines", "kinds"),
    [
        (["TABLE II", "HEIGHTS OF THE GAUGES IN SPRING"], ["caption"]),
        (["Figure 3.", "The weir from above"], ["caption"]),
        (["Table 4. Ropes", "The weir from above"], ["caption", "body"]),
        (["Example 5", "The weir from above"], ["caption", "body"]),
    ],
)
def test_the_title_under_the_number_of_a_caption_belongs_to_it(tmp_path, lines, kinds):
    path = tmp_path / "caption.pdf"
    canvas = Canvas(str(path), pagesize=(400, 400))
    canvas.setFont("Times-Bold", 11)
    canvas.drawCentredString(200, 340, lines[0])
    canvas.setFont("Times-Roman", 10)
    canvas.drawCentredString(200, 326, lines[1])
    canvas.save()
    paragraphs, *_ = paragraphs_in(path)
    assert [p.kind for p in paragraphs] == kinds
    assert " ".join(p.text for p in paragraphs) == " ".join(lines)


def test_headings_alone_on_a_page_are_not_one(tmp_path):
    path = tmp_path / "headings.pdf"
    canvas = Canvas(str(path), pagesize=(400, 500))
    titles = [f"The {thing} module" for thing in ("rope", "well", "bucket", "gate", "lamp")]
    for page in range(4):
        canvas.setFont("Times-Bold" if page == 3 else "Times-Roman", 10)
        if page == 3:
            for k, title in enumerate(titles * 2):
                canvas.drawString(40, 440 - 25 * k, title)
        else:
            for k in range(25):
                canvas.drawString(
                    40, 440 - 12 * k, f"Line {page} of the text goes on and on, {k} so"
                )
        canvas.showPage()
    canvas.save()
    paragraphs, *_ = paragraphs_in(path)
    assert [p.text for p in paragraphs if p.page == 3] == titles * 2


def test_a_running_head_far_from_the_edge_is_set_aside(tmp_path):
    path = tmp_path / "heads.pdf"
    canvas = Canvas(str(path), pagesize=(600, 800))
    canvas.setFont("Times-Roman", 10)
    for page in range(6):
        canvas.setFont("Times-Roman", 10)
        canvas.drawString(120, 680, "3.5 Wells and ropes")
        canvas.drawRightString(480, 680, str(60 + page))
        for k in range(20):
            y = 650 - 12 * k
            canvas.drawString(120, y, f"The keeper of well {page * 20 + k} goes round at noon, so")
        canvas.showPage()
    canvas.save()
    paragraphs, *_ = paragraphs_in(path)
    assert not any("Wells and ropes" in p.text for p in paragraphs)
    assert "The keeper of well 0 goes" in paragraphs[0].text


def test_a_running_head_that_comes_once_is_told_by_its_place_and_look(tmp_path):
    path = tmp_path / "heads.pdf"
    canvas = Canvas(str(path), pagesize=(500, 700))
    heads = ["1.1 Wells", "1.1 Wells", "1.1 Wells", "1.2 Ropes", "1.3 Gates", "1.3 Gates"]
    for page, head in enumerate(heads):
        canvas.setFont("Times-Italic", 10)
        canvas.drawString(60, 660, "Chapter 1. The keepers")
        canvas.drawRightString(440, 660, f"{head} of the harbour")
        canvas.setFont("Times-Roman", 10)
        for k in range(20):
            said = f"{chr(97 + page)}{chr(97 + k)} goes round at noon, so it is said."
            canvas.drawString(60, 625 - 12 * k, said)
        canvas.showPage()
    canvas.setFont("Times-Roman", 10)
    canvas.drawString(60, 660, "Alone at that height stands this, set like the text.")
    for k in range(20):
        canvas.drawString(60, 625 - 12 * k, f"gate {chr(97 + k)} is shut at night, as it is said.")
    canvas.save()
    paragraphs, *_ = paragraphs_in(path)
    told = [p.text for p in paragraphs]
    assert not any("of the harbour" in text for text in told)
    assert any("set like the text" in text for text in told)


def test_an_accent_over_nothing_is_no_part_of_a_text():
    assert (
        tidy("kept in a large  \u0300pool’, to make \u0300\nit")
        == "kept in a large pool’, to make it"
    )
    assert tidy("na\u0131\u0308ve") == "na\u0131\u0308ve"


@pytest.mark.parametrize(("gaps", "kind"), [((90, 90), "body"), ((60, 120), "row")])
def test_a_line_of_few_words_spread_to_the_margin_is_text(tmp_path, gaps, kind):
    path = tmp_path / "spread.pdf"
    canvas = Canvas(str(path), pagesize=(500, 400))
    canvas.setFont("Times-Roman", 10)
    x = 40.0
    for word, gap in zip(
        ("The", "procedure", "unbound-harbour-variable-"), (*gaps, 0), strict=True
    ):
        canvas.drawString(x, 300, word)
        x += canvas.stringWidth(word, "Times-Roman", 10) + gap
    canvas.drawString(40, 288, "procedure returns the one that was called.")
    canvas.save()
    paragraphs, *_ = paragraphs_in(path)
    assert paragraphs[0].kind == kind


@given(st.text(alphabet=st.characters(max_codepoint=127), max_size=40))
def test_plain_letters_are_folded_as_any_others(text):
    folded, places = folded_with_places(text)
    among_others, where = folded_with_places(f"{text} \u00e9")  # goes the way of all letters
    assert among_others == f"{folded} e".lstrip()
    assert where[: len(places)] == places


@pytest.mark.parametrize(
    ("text", "torn"),
    [
        ("p MH g 1H", True), ("ٔ ﬁl m g f Jl W", True), ("[\\> p M' F> m g H[\\,>", True),
        ("W e l l s", False), ("Wells and ropes", False),
        ("A to Z", False), ("Part 2", False), ("", False),
    ],
)  # fmt: skip
def test_bits_of_letters_are_told_from_words(text, torn):
    assert is_torn(text) is torn


def set_lines(tmp_path, lines):
    """The texts of the paragraphs of lines set flush, each a run of (face, words)."""
    canvas = Canvas(str(tmp_path / "flush.pdf"), invariant=1)
    for k, runs in enumerate(lines):
        text = canvas.beginText(72, 700 - 14 * k)
        for face, words in runs:
            text.setFont(face, 11)
            text.textOut(words)
        canvas.drawText(text)
    canvas.save()
    return [p.text for p in paragraphs_in(tmp_path / "flush.pdf")[0]]


PLAIN_FACE, BOLD_FACE = "Times-Roman", "Times-Bold"
FIRST = (PLAIN_FACE, "The keeper of the gauge writes down what he has read on every single day")
LAST = (PLAIN_FACE, "and nobody but the keeper may take these books out of the house again.")


def test_a_line_of_stressed_words_within_a_sentence_parts_no_paragraph(tmp_path):
    bold = [
        (BOLD_FACE, "in the red book of the harbour, the black book of the mill, "),
        (PLAIN_FACE, "or both,"),
    ]
    assert len(set_lines(tmp_path, [[FIRST], bold, [LAST]])) == 1


def test_a_dash_that_goes_on_in_a_sentence_begins_no_item(tmp_path):
    dash = [(PLAIN_FACE, "– and he does so before breakfast, whatever the weather may be like –")]
    assert len(set_lines(tmp_path, [[FIRST], dash, [LAST]])) == 1


@pytest.mark.parametrize("cited", ["[9] and [13] alike, whatever the weather", "[3], as it has"])
def test_the_number_of_a_work_within_a_sentence_begins_no_item(tmp_path, cited):
    of_work = [(PLAIN_FACE, f"{cited} ever been in the harbour of that town")]
    assert len(set_lines(tmp_path, [[FIRST], of_work, [LAST]])) == 1


def test_the_numbers_of_works_under_each_other_are_a_list(tmp_path):
    works = [
        [(PLAIN_FACE, f"[{n}] bale and storm on the books of the harbour and the mill of old")]
        for n in (1, 2, 3)
    ]
    assert len(set_lines(tmp_path, works)) == 3
    ended = (PLAIN_FACE, "The keeper of the gauge writes down what he has read on each such day.")
    assert len(set_lines(tmp_path, [[ended], *works])) == 4


def test_a_bold_line_that_begins_anew_is_a_paragraph_of_its_own(tmp_path):
    head = [(BOLD_FACE, "Where the books of the harbour and of the mill are kept by the keeper")]
    texts = set_lines(tmp_path, [[(PLAIN_FACE, f"{FIRST[1]}.")], head, [LAST]])
    assert texts[1] == head[0][1]


def test_dashes_under_a_colon_are_items(tmp_path):
    intro = (
        PLAIN_FACE,
        "The keeper of the gauge writes down with every reading of the gauge also:",
    )
    items = [
        [(PLAIN_FACE, f"– the {what} of the day, as it stands in the older of the two books;")]
        for what in ("hour", "wind", "tide")
    ]
    assert len(set_lines(tmp_path, [[intro], *items])) == 4


def test_a_numbered_title_does_not_go_on_from_the_title_of_the_contents(tmp_path):
    text = ("text", "The keeper signs for every bucket that leaves the well, by day and night.")
    pages = [[text, ("large", "Contents"), ("toc0", "1 Wells|2"), ("toc0", "2 Ropes|3")],
             [("large", "1 Wells"), text, text], [("large", "2 Ropes"), text, text]]  # fmt: skip
    with pytest.MonkeyPatch.context() as patch:
        patch.setitem(STYLES, "large", ("Times-Roman", 15))
        make_pdf(tmp_path / "a.pdf", pages)
    document = read_document(tmp_path / "a.pdf")
    assert [s.title for s in document.outline.sections] == ["1 Wells", "2 Ropes"]
    assert "Contents" in [p.text for p in document.paragraphs]


def test_a_few_words_set_in_as_the_first_line_under_them_are_a_paragraph(tmp_path):
    path = tmp_path / "set_in.pdf"
    canvas = Canvas(str(path), invariant=1)
    canvas.setFont(PLAIN_FACE, 11)
    full = FIRST[1]
    for k, (x, text) in enumerate(
        [(90, "Foreword"), (90, full[:-4]), (72, full.lower()), (72, full.lower()),
         (72, "in the red book."), (90, full[:-4]), (72, full.lower()), (72, LAST[1])]
    ):  # fmt: skip
        canvas.drawString(x, 700 - 14 * k, text)
    canvas.save()
    texts = [p.text for p in paragraphs_in(path)[0]]
    assert [text[:12] for text in texts] == ["Foreword", "The keeper o", "The keeper o"]


@pytest.mark.parametrize(("left", "is_head"), [(280.0, True), (110.0, False)])
def test_a_word_in_the_middle_over_the_text_is_no_part_of_it(left, is_head):
    said = "The keeper reads the staff every morning and writes the height into the book then"
    rows = [("Abstract", left, left + 40.0), (said, 115.0, 500.0), (said, 100.0, 500.0),
            (said, 100.0, 500.0), (said, 100.0, 500.0), (said, 100.0, 500.0)]  # fmt: skip
    lines = [
        Line(0, text, ((0, len(text)),), (x0, 100.0 + 12 * k, x1, 110.0 + 12 * k), 10.0, False,
             False, False, 0, 0)
        for k, (text, x0, x1) in enumerate(rows)
    ]  # fmt: skip
    found = paragraphs_of([lines], 10.0, Counter())
    assert (found[0].text == "Abstract") == is_head


@pytest.mark.parametrize(("first", "n"), [("Ropes that were found in well MCF-", 1), ("Ropes", 2)])
def test_a_number_after_a_hyphen_begins_no_heading(first, n):
    rows = [(first, 100.0), ("7 Wells of the moor", 122.0)]
    lines = [
        Line(0, text, ((0, len(text)),), (72.0, y, 72.0 + 8 * len(text), y + 16.0), 16.0, True,
             False, False, 0, 0)
        for text, y in rows
    ]  # fmt: skip
    assert len(paragraphs_of([lines], 10.0, Counter())) == n


ENTRIES = [
    ("Aas B, Holm A (2004). The Wells of Hallan and What Was Found in Them, and Other", 0, 500),
    ("Notes on Water. Holm Press.", 12, 260),
    ("Lind M (2011). Ropes of Three Kinds. Journal of Village Wells, 12(2), 10–24. Brunn.", 0, 499),
    ("Third edition, with plates. Wells House.", 12, 300),
    ("Vik C (1998). Buckets. Lids Press, Hallan.", 0, 300),
    ("Wold D, Aas B (1987). The Height of Water in Open Barrels, and How It Is Read at", 0, 500),
    ("Night. Staff and Rope, 3, 1–9.", 12, 250),
]


def lines_set(rows, left=100.0):
    return [
        Line(0, text, ((0, len(text)),),
             (left + x0, 100.0 + 12 * k, x1, 110.0 + 12 * k), 10.0, False, False, False, 0, 0)
        for k, (text, x0, x1) in enumerate(rows)
    ]  # fmt: skip


def test_an_entry_that_hangs_on_its_first_line_is_one():
    found = paragraphs_of([lines_set(ENTRIES)], 10.0, Counter())
    assert [p.text[:4] for p in found] == ["Aas ", "Lind", "Vik ", "Wold"]
    assert found[1].text.endswith("Wells House.")


def test_paragraphs_whose_first_line_is_set_in_do_not_hang():
    rows = [("The keeper reads the staff every morning, and writes its height down", 12, 500),
            ("in the book of the well.", 0, 220)] * 3  # fmt: skip
    found = paragraphs_of([lines_set(rows)], 10.0, Counter())
    assert len(found) == 3
    assert all(p.text.endswith("of the well.") for p in found)


def test_quotes_set_in_between_paragraphs_are_no_entries():
    said = ("The keeper reads the staff every morning and writes the height down", 0, 500)
    rows = [said, said, ("in the book. It says so:", 0, 230),
            ("Read the staff at dawn.", 12, 230), ("Then ring the bell of the well.", 12, 260),
            said, said, ("in the book of the well.", 0, 220),
            ("Ring it twice.", 12, 180)]  # fmt: skip
    texts = [p.text for p in paragraphs_of([lines_set(rows)], 10.0, Counter())]
    assert not any("book. It says so: Read" in text for text in texts)
    assert any(text.endswith("in the book of the well.") for text in texts)


def test_bold_words_in_brackets_over_whole_lines_leave_a_paragraph_whole(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)
    lines = [
        ("Times-Roman", "Diese Klasse wurde erstellt, um Brunnen zu setzen, die bei Weir Research"),
        ("Times-Bold", "(Weir Gauge Research, Weir Lid Research) oder bei der Gilde (Weir"),
        ("Times-Roman", "Forschung) gebaut werden sollen. Mit ihr werden die Vorgaben umgesetzt,"),
        ("Times-Roman", "und der Wart der Gilde schreibt sie am Abend in das Buch der Gilde ein."),
    ]
    for k, (face, text) in enumerate(lines):  # each as wide as the column
        line = canvas.beginText(72, 700 - 12 * k)
        line.setFont(face, 10)
        line.setCharSpace((400 - stringWidth(text, face, 10)) / len(text))
        line.textOut(text)
        canvas.drawText(line)
    canvas.save()
    assert len(read_document(tmp_path / "a.pdf").paragraphs) == 1


def test_a_line_set_in_stands_over_a_paragraph_that_begins_as_far_in(tmp_path):
    path = tmp_path / "notice.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont("Times-Roman", 11)
    lines = (
        (92, "Copyright 2020 by Aino Holm and the guild of the keepers"),
        (92, "Permission is granted to copy and to change this text under the terms of the Guild"),
        (
            72,
            "Licence, as it is printed at the end of the book, and to lend it to anybody who asks",
        ),
        (72, "for it at the door of the guild, where the book is kept in a box of oak by the wall"),
        (72, "of the house."),
    )
    for k, (x, text) in enumerate(lines):
        canvas.drawString(x, 700 - 14 * k, text)
    canvas.save()
    texts = [tidy(p.text) for p in paragraphs_in(path)[0]]
    assert texts == [lines[0][1], " ".join(text for _, text in lines[1:])]


def told_apart(*said):
    """Paragraphs under three full lines, to 400 points; each line is (left, right, text)."""
    full = [line("The keeper signs for every bucket that leaves the well by day and", y=40 + 12 * k)
            for k in range(3)]  # fmt: skip
    rows = [
        line(text, box=(left, 100.0 + 12 * k, right, 110.0 + 12 * k))
        for k, (left, right, text) in enumerate(said)
    ]
    return [p.text for p in paragraphs_of([[*full, *rows]], 10.0, Counter())][1:]


@pytest.mark.parametrize(
    "said",
    [
        [(112, 180, "Of oak or elm"), (72, 104, "Weight")],  # the word had room beside it
        [(112, 390, "What the keeper has to sign for at noon."), (72, 104, "Weight")],
    ],
)
def test_what_is_said_of_a_term_ends_before_the_next(said):
    assert told_apart(*said) == [text for _, _, text in said]


@pytest.mark.parametrize(
    "said",
    [
        [(86, 396, "Nobody may draw any water while the lid is off"), (72, 300, "and the rope up")],
        [(86, 396, "Nobody may draw while the pump is out of it."), (72, 300, "Its rope is up.")],
    ],
)
def test_the_first_line_of_a_paragraph_is_none_of_its_own(said):
    assert told_apart(*said) == [" ".join(text for _, _, text in said)]
