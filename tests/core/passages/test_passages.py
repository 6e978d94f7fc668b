from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from reportlab.lib.pagesizes import A4
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.cidfonts import UnicodeCIDFont
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document
from wide_margin.core.layout import tidy
from wide_margin.core.passages import split_sentences
from wide_margin.core.passages.build import _rows_under_headings


def parts(text):
    return [text[a:b] for a, b in split_sentences(text)]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("One ends. Two starts.", ["One ends.", "Two starts."]),
        ("Written by Anna S. Dahl. It ends.", ["Written by Anna S. Dahl.", "It ends."]),
        ("As Arthur C. Dahl observed, it ends.", ["As Arthur C. Dahl observed, it ends."]),
        ("It is Visual C. Lids are not.", ["It is Visual C.", "Lids are not."]),
        ("It took 4 S. Ropes are written in C. Lids are not.",
         ["It took 4 S.", "Ropes are written in C.", "Lids are not."]),
        ("It is 4.5 m high. Why? Nobody knows!", ["It is 4.5 m high.", "Why?", "Nobody knows!"]),
        ("See sect. 8.4, e.g. a table. It is.", ["See sect. 8.4, e.g. a table.", "It is."]),
        ("Dr. Holm and J. Eaton came. They left.", ["Dr. Holm and J. Eaton came.", "They left."]),
        ("By Holm, N., J.A. Eaton and A.B. Reed. It is.",
         ["By Holm, N., J.A. Eaton and A.B. Reed.", "It is."]),
        ("A lid (a.k.a. Cover) of oak. It is.", ["A lid (a.k.a. Cover) of oak.", "It is."]),
        ("Es ist nass, d. h. Wasser steht. Und.", ["Es ist nass, d. h. Wasser steht.", "Und."]),
        ("It took 4 s. Then it fell.", ["It took 4 s.", "Then it fell."]),
        ("He said “No.” Then he left.", ["He said “No.”", "Then he left."]),
        ("Ropes, pipes, etc. These fail.", ["Ropes, pipes, etc.", "These fail."]),
        ("Das ist z.B. so. Und so weiter.", ["Das ist z.B. so.", "Und so weiter."]),
        ("2. Read the staff. Then sign.", ["2. Read the staff.", "Then sign."]),
        ("wells. ropes go on", ["wells. ropes go on"]),
        ("It is part of the stack . It is small.", ["It is part of the stack .", "It is small."]),
        ("leaders . . . . Then page 3", ["leaders . . . . Then page 3"]),
        ("It keeps wells. . . dry. It is new.", ["It keeps wells. . . dry.", "It is new."]),
        ("It has (n - 1)! ways. Stop! he cried.", ["It has (n - 1)! ways.", "Stop!", "he cried."]),
        ("It was dry. . . The keeper came.", ["It was dry. . .", "The keeper came."]),
        ("   ", []),
    ],
)  # fmt: skip
def test_sentences_end_where_a_reader_would_stop(text, expected):
    assert parts(text) == expected


@given(st.text(alphabet="abAB .!?\"'()19", max_size=80))
def test_sentences_cover_everything_but_white_space(text):
    ranges = split_sentences(text)
    assert all(a < b for a, b in ranges)
    assert all(b <= c for (_, b), (c, _) in pairwise(ranges))
    assert "".join(text[a:b] for a, b in ranges).replace(" ", "") == text.replace(" ", "")


def test_every_sentence_leads_back_to_its_very_words(handbook):
    for sentence in handbook.text.sentences:
        paragraph = handbook.paragraphs[sentence.paragraph]
        words = tidy(paragraph.unmarked[sentence.start : sentence.end])
        if words != sentence.text:  # a mark of a footnote left a blank before a comma
            assert paragraph.unmarked != paragraph.text
            assert words.split() != sentence.text.split()
        assert "".join(words.split()) == "".join(sentence.text.split())
        assert " ," not in sentence.text or " ," in paragraph.text
        spans = paragraph.spans(sentence.start, sentence.end)
        assert spans
        assert spans[0].page == sentence.page


def test_passages_hold_every_sentence_once_and_stay_in_their_section(handbook):
    rows = [row for p in handbook.text.passages for row in range(p.first, p.end)]
    assert rows == list(range(len(handbook.text.sentences)))
    for passage in handbook.text.passages:
        sections = {s.section for s in handbook.text.sentences[passage.first : passage.end]}
        assert sections == {passage.section}


def test_what_is_said_over_the_contents_is_read(tmp_path):
    said = (
        "This book tells how the wells of the valley were dug, who drew water from them in the dry"
        " years, and why the last of them was closed. It is meant for those who will open them."
    )
    rows = [
        ("toc1", f"{k} On the well of {name}|{k + 1}")
        for k, name in enumerate(
            ("Ash", "Birch", "Cedar", "Elm", "Fir", "Hazel", "Larch", "Maple", "Oak"), start=1
        )
    ]
    pages = [[("h1", f"{k} On the well of it"), ("text", "It was dug by hand and is dry.")]
             for k in range(1, 10)]  # fmt: skip
    path = tmp_path / "over.pdf"
    make_pdf(path, [[("title", "Wells"), ("text", said), ("h1", "Contents"), *rows], *pages])
    document = read_document(path)
    assert 0 in document.listings
    first = [s for s in document.text.sentences if s.page == 0]
    assert [s.text for s in first if s.kind == "body"][-2:] == [
        said[: said.index(".") + 1], said[said.index(".") + 2 :],
    ]  # fmt: skip
    assert {s.kind for s in first if "On the well" in s.text} == {"listing"}


def test_text_between_the_contents_and_the_first_section_is_read(tmp_path):
    said = [
        f"The well of {name} was dug by hand when the river stood low, and those who dug it wrote"
        f" down what they found in every fathom of it, so that {name} might know its own ground."
        for name in ("Ash", "Birch", "Cedar", "Elm", "Fir", "Hazel", "Larch", "Maple", "Oak")
    ]
    rows = [("toc1", f"{k} On wells|{k + 3}") for k in range(1, 10)]
    text = [block for each in said for block in (("text", each), ("text", "Note"))]
    pages = [[("h1", f"{k} On wells"), ("text", "It was dug by hand.")] for k in range(1, 10)]
    path = tmp_path / "preface.pdf"
    make_pdf(path, [[("text", "Contents"), *rows], text[:10], text[10:], *pages])
    sentences = read_document(path).text.sentences
    told = [s for s in sentences if "was dug by hand when" in s.text]
    assert len(told) == len(said)
    assert {s.kind for s in told} == {"body"}
    assert {s.kind for s in sentences if s.page == 0 and "On wells" in s.text} == {"listing"}


def test_the_printed_contents_are_a_listing(handbook):
    kinds = {p.kind for p in handbook.text.passages if p.page in (1, 2, 3)}
    assert "listing" in kinds
    assert not any(p.kind == "text" for p in handbook.text.passages if p.page == 2)


@pytest.mark.parametrize(
    ("title", "lines", "kind"),
    [
        ("2 Refractive index", ["The refractive index of glass is 1.5. It bends light."], "body"),
        ("Consumer Price Index", ["The index rose by 2 per cent in the year. It fell."], "body"),
        ("Cross references", ["A reference names a section. It is checked by the editor."], "body"),
        ("Subject index", [f"word{k}, {k}, {k + 7}" for k in range(20)], "listing"),
        ("References", [f"Author, A. B. ({1990 + k}). On wells, vol. {k}. Well Press, pp. 1–9."
                        for k in range(9)], "works"),
    ],
)  # fmt: skip
def test_a_section_is_a_listing_or_works_by_what_it_holds(tmp_path, title, lines, kind):
    path = tmp_path / "sections.pdf"
    blocks = [("h1", title), *(("text", line) for line in lines)]
    make_pdf(path, [[("h1", "1 Wells"), ("text", "A well is a hole. It holds water.")], blocks])
    document = read_document(path)
    section = next(k for k, s in enumerate(document.outline.sections) if s.title == title)
    kinds = {s.kind for s in document.text.sentences if s.section == section} - {"heading"}
    assert (kind in kinds) if kind != "body" else not kinds & {"listing", "works"}


@pytest.mark.parametrize(
    ("text", "n"),
    [("The pole is 4 m. The next is longer.", 2), ("It took 5 s. Then it stopped.", 2),
     ("See p. 12 of it. It ends.", 2), ("Marked with c. Then it ends.", 2),
     ("Filter (FIR, IIR 1. bis 10. Ordnung) sind da. Sie sind alt.", 2),
     ("It (the well) is of 1890. It is old (very).", 2),
     ("It has appr. 180 ropes. They are old.", 2),
     ("Dr. Stone came, e.g. on foot. He left.", 2), ("See Fig. 3 and p. 4.", 1)],
)  # fmt: skip
def test_units_end_sentences_and_abbreviations_do_not(text, n):
    assert len(split_sentences(text)) == n


def test_the_text_after_a_heading_that_runs_into_it_is_text(tmp_path):
    path = tmp_path / "run-in.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    plain = [
        "Every spring a rope is soaked and weighed by the keeper of the well, who signs.",
        "It is changed every eighteen months, whether or not it looks worn to anyone.",
    ]
    for page, title in enumerate(("1.1 Ropes.", "2.1 Lids.", "3.1 Buckets.", "4.1 Fees.")):
        canvas.setFont("Times-Bold", 14)
        canvas.drawString(72, 760, f"{page + 1} Chapter of {title[4:-1].lower()}")
        for block in range(4):
            canvas.setFont("Times-Bold", 11)
            y = 730 - 60 * block
            if block == 1:
                canvas.drawString(72, y, title)
            canvas.setFont("Times-Roman", 11)
            start = 72 + (stringWidth(title, "Times-Bold", 11) + 6 if block == 1 else 0)
            canvas.drawString(start, y, plain[0])
            canvas.drawString(72, y - 14, plain[1])
        canvas.showPage()
    canvas.save()
    document = read_document(path)
    assert "2.1 Lids" in [section.title for section in document.outline.sections]
    told = [(s.kind, s.text) for s in document.text.sentences if s.page == 1]
    assert ("heading", "2.1 Lids.") in told
    assert told.count(("body", plain[0])) == 4
    assert told.count(("body", plain[1])) == 4


@pytest.mark.parametrize(
    ("text", "n"),
    [
        ("The gauge (is it right?) is read daily. It is old.", 2),
        ("“Why?” he asked. Nobody knew.", 2),
        ("(Is it right?) The gauge is read daily.", 2),
        ("Is it right? nobody knew.", 2),
    ],
)
def test_a_question_in_brackets_ends_no_sentence_that_goes_on(text, n):
    assert len(split_sentences(text)) == n


def test_works_are_told_where_their_title_is_no_section(tmp_path):
    works = [("item", f"[{k}] Author, A. B. ({1990 + k}). On wells. Well Press, pp. 1–9.")
             for k in range(1, 9)]  # fmt: skip
    said = ("text", "A well is a hole. It holds water. Nobody may sell it.")
    names = ["1 Wells", "2 Ropes", "3 Lids", "4 Buckets"]
    contents = [("h1", "Contents"), *(("toc0", f"{n}|{k}") for k, n in enumerate(names, start=2))]
    chapters = [[("h1", name), said, said] for name in names]
    for title, is_listed in (("References", True), ("Reference works", False)):
        path = tmp_path / f"{is_listed}.pdf"
        make_pdf(path, [contents, *chapters, [("text", title), *works]])
        document = read_document(path)
        assert title not in [section.title for section in document.outline.sections]
        sentences = document.text.sentences
        assert ({s.kind for s in sentences if s.page == 5} == {"works"}) == is_listed
        assert not any(s.kind == "works" for s in sentences if s.page != 5)


def test_works_are_told_with_tables_behind_them(tmp_path):
    path = tmp_path / "works.pdf"
    works = [("item", f"[{k}] Ann Bale and Cy Dow. On the keeping of wells, {1990 + k}.")
             for k in range(3)]  # fmt: skip
    behind = "The level of the well was taken each day, and the rope was measured with care. " * 3
    chapters = [[("h1", f"{n} Wells"), ("text", "Wells are deep. Ropes are long.")] for n in (1, 2)]
    make_pdf(
        path, [*chapters, [("h1", "References"), *works], [("text", behind)], [("text", behind)]]
    )
    sentences = read_document(path).text.sentences
    kinds = {(s.page, s.kind) for s in sentences if s.kind != "heading"}
    assert kinds == {(0, "body"), (1, "body"), (2, "works"), (3, "body"), (4, "body")}


def test_works_are_told_with_an_index_behind_them(tmp_path):
    path = tmp_path / "works.pdf"
    works = [("item", f"[{k}] Ann Bale and Cy Dow. On the keeping of wells, {1990 + k}.")
             for k in range(6)]  # fmt: skip
    rows = [("text", f"{name}, {k}, {k + 20}") for k in range(30, 40)
            for name in ("bucket", "drum", "gate")]  # fmt: skip
    text = ("text", "The gate of the well is opened in the morning, and the keeper notes it.")
    make_pdf(path, [[("h1", "1 Wells"), *[text] * 6], [("h1", "Bibliography"), *works], rows])
    sentences = read_document(path).text.sentences
    assert {s.kind for s in sentences if "Ann Bale" in s.text} == {"works"}


def test_rows_of_an_index_may_end_in_full_stops(tmp_path):
    path = tmp_path / "index.pdf"
    rows = [("text", f"{name} of the well: {k}, {k + 20}.") for k in range(30, 36)
            for name in ("bucket", "drum", "gate")]  # fmt: skip
    text = ("text", "The gate of the well is opened in the morning, and the keeper notes it.")
    make_pdf(path, [[("h1", "1. Wells"), *[text] * 6], [("h1", "2. Index."), *rows]])
    sentences = read_document(path).text.sentences
    assert {s.kind for s in sentences if "bucket" in s.text} == {"listing"}


ROWS = [("text", f"{title} . . . . . . . . . . . {page}") for title, page in (
    ("1 Wells", 1), ("1.1 Ropes of hemp", 2), ("1.2 Drums of oak", 3), ("2 Gates", 4),
    ("2.1 Lids of zinc", 5), ("2.2 Clocks", 6), ("3 Keepers", 7), ("3.1 Pay", 8),
)]  # fmt: skip
FILLING = ("text", "The gate of the well is opened in the morning, and the keeper notes it.")


def kinds_of(path, first_page):
    gates, keepers = [("h1", "2 Gates"), *[FILLING] * 4], [("h1", "3 Keepers"), FILLING]
    make_pdf(path, [first_page, gates, keepers])
    return {s.text: s.kind for s in read_document(path).text.sentences if s.page == 0}


def test_what_stands_over_the_contents_of_its_page_is_text(tmp_path):
    said = "This guide is on the keeping of wells."
    kinds = kinds_of(
        tmp_path / "a.pdf", [("title", "Wells"), ("text", said), ("h2", "Contents"), *ROWS]
    )
    assert kinds[said] == "body"
    assert {kind for text, kind in kinds.items() if ". . ." in text} == {"listing"}


@pytest.mark.parametrize(
    ("said", "is_text"),
    [
        ("Wells are kept by a guild of keepers.", True),
        ("Wells of stone, and of oak, 14, 52", False),
    ],
)
def test_what_begins_at_a_heading_under_the_contents_is_text(tmp_path, said, is_text):
    path = tmp_path / "a.pdf"
    make_pdf(path, [[("title", "A Guild"), ("h2", "Contents"), *ROWS, ("h1", "1 Wells"),
                     ("text", said)]])  # fmt: skip
    paragraphs = read_document(path).paragraphs
    at = [paragraph.text for paragraph in paragraphs].index("1 Wells")
    found = _rows_under_headings(paragraphs, {at}, frozenset({0}))
    assert (at + 1 in found) is is_text
    assert _rows_under_headings(paragraphs, {at}, frozenset()) == set()


def test_a_preface_after_the_contents_is_text_where_no_blanks_part_words(tmp_path):
    path = tmp_path / "a.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    pdfmetrics.registerFont(UnicodeCIDFont("STSong-Light"))
    canvas.setFont("STSong-Light", 18)
    canvas.drawString(72, 760, "目录")
    canvas.setFont("STSong-Light", 11)
    for k in range(12):
        canvas.drawString(72, 720 - 20 * k, f"{k + 1} 水井的维护 . . . . . . . . . . . . {k + 3}")
    canvas.showPage()
    canvas.setFont("STSong-Light", 11)
    said = [
        "本指南介绍了水井的维护方法，面向所有的井夫。",
        "井盖每天早上打开一次。",
        "绳子是麻做的。",
    ]
    for k, text in enumerate(said):
        canvas.drawString(72, 760 - 60 * k, text)
    canvas.save()
    sentences = read_document(path).text.sentences
    assert [s.kind for s in sentences if s.page == 1] == ["body"] * 3
    assert {s.kind for s in sentences if ". . ." in s.text} == {"listing"}


def test_numbers_with_a_point_are_no_places_of_contents(tmp_path):
    said = "Wellkeep is a tool that lists all ropes of a well, and whoever keeps one may wind it."
    rows = [("toc1", f"{k} On wells|{k + 3}") for k in range(1, 10)]
    pages = [[("h1", f"{k} On wells"), ("text", "It was dug by hand.")] for k in range(1, 10)]
    about = [
        ("text", said),
        ("text", "If you use it, cite Moore 2017, doi:10.1016/j.w.2017.05.004"),
    ]
    make_pdf(tmp_path / "a.pdf", [[("text", "Contents"), *rows], about, *pages])
    sentences = read_document(tmp_path / "a.pdf").text.sentences
    assert next(s.kind for s in sentences if s.text == said) == "body"


@pytest.mark.parametrize(
    ("label", "title"), [("Chapter 1", "Wells and Ropes"), ("ONE", "WELLS AND ROPES")]
)
def test_a_title_below_its_label_is_no_sentence_of_the_text(tmp_path, label, title):
    path = tmp_path / "book.pdf"
    text = ("text", "A well is a hole in the ground that holds water, and it has a lid of oak.")
    second = label.replace("1", "2").replace("ONE", "TWO")
    make_pdf(path, [
        [("h1", label), ("h1", title), text, text],
        [("h1", second), ("h1", title.replace("W", "B")), text, text],
    ])  # fmt: skip
    document = read_document(path)
    said = {s.text: s.kind for s in document.text.sentences if s.page == 0}
    assert said[title] == "heading"
    assert "body" in said.values()
    under = [document.under_heading(section) for section in document.outline.sections]
    assert all(document.paragraphs[row].text.startswith("A well is a hole") for row in under)


def test_a_title_that_looks_like_one_run_in_is_whole(tmp_path):
    names = ("wind_up_the_drum_of_the_well", "dip_the_bucket_in_the_well", "lift_it_out_of_there")
    ends = ": fill the drum of hemp"
    canvas = Canvas(str(tmp_path / "a.pdf"), invariant=1)
    for k, name in enumerate(names, 1):
        x = 72.0
        for face, part in (("Times-Bold", f"{k}.1   "), ("Courier", name), ("Times-Bold", ends)):
            canvas.setFont(face, 14)
            canvas.drawString(x, 700, part)
            x += stringWidth(part, face, 14)
        canvas.setFont("Times-Roman", 11)
        for at in range(30):
            canvas.drawString(72, 660 - 14 * at, "A well is a hole in the ground that has a lid.")
        canvas.bookmarkPage(name)
        canvas.addOutlineEntry(f"{name}{ends}", name, 0)
        canvas.showPage()
    canvas.save()
    said = {s.text: s.kind for s in read_document(tmp_path / "a.pdf").text.sentences}
    titles = [f"{k}.1 {name}{ends}" for k, name in enumerate(names, 1)]
    assert [said.get(title) for title in titles] == ["heading"] * 3
