"""What a contents page names and how it is set on its page: descriptions, signatures, questions."""

import numpy as np
import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import STYLES, make_pdf, read_document, wrapped
from wide_margin.core.outline import build, headings
from wide_margin.core.outline.candidates import Candidate, Style
from wide_margin.core.outline.contents import ContentsEntry
from wide_margin.core.outline.headings import Heading
from wide_margin.core.outline.reconcile import Record
from wide_margin.core.outline.titles import is_called, words_differ

TEXT = (
    "text",
    "The keeper signs for every bucket that leaves the well, by day and by night, and so does"
    " whoever takes it back to the shed when the work of the day is done and the lid is down.",
)
NAMES = ("lift", "pump", "drain", "cover", "clean", "close")


def outline_of(path, pages):
    make_pdf(path, pages)
    return read_document(path).outline


def titles_of(path, pages):
    return [s.title for s in outline_of(path, pages).sections]


def with_contents(entries, pages):
    """A title page with its contents, and a page for each of the others."""
    return [[("h1", "Contents"), *(("toc0", f"{e}|{k + 2}") for k, e in enumerate(entries))],
            *pages]  # fmt: skip


@pytest.mark.parametrize(
    ("text", "name"),
    [
        ("hclust (d, method='complete')", "hclust"),
        ("5.1.3 int getName ( int rank )", "getName"),
        ("6.2.1 struct text Container::alias", "alias"),
        ("boat.single (X)", "single"),
    ],
)
def test_a_signature_is_called_by_its_name(text, name):
    assert is_called(text, name)
    assert not words_differ(text, name)


@pytest.mark.parametrize(
    ("text", "name"),
    [("int rename ( int rank )", "name"), ("Lids and ropes", "ropes"), ("lift (old)", "(old)")],
)
def test_other_words_are_no_name_of_a_signature(text, name):
    assert not is_called(text, name)


def test_a_section_is_called_as_the_contents_page_calls_it(tmp_path):
    pages = [[("h2", f"{k + 1} int {name} ( int depth )"), TEXT, TEXT]
             for k, name in enumerate(NAMES)]  # fmt: skip
    listed = [f"{k + 1} {name}" for k, name in enumerate(NAMES)]
    outline = outline_of(tmp_path / "a.pdf", with_contents(listed, pages))
    assert [s.title for s in outline.sections] == listed
    assert not outline.disputed


def test_a_title_with_its_description_under_it_is_found_by_its_first_line(tmp_path):
    use = "what it is for, said in so many words that they take a second line of their own"
    pages = [[("h2", f"{name} {use} under it"), TEXT, TEXT] for name in NAMES]
    assert titles_of(tmp_path / "a.pdf", with_contents(NAMES, pages)) == list(NAMES)
    declared = [[("text", "Lids"), ("h2", f"{name} (depth, width)"), TEXT] for name in NAMES]
    assert titles_of(tmp_path / "b.pdf", with_contents(NAMES, declared)) == list(NAMES)


def test_contents_are_believed_whose_words_stand_on_the_pages_they_name(tmp_path):
    pages = [[("text", f"shed.{name} is what moves the bucket, as the next lines tell."), TEXT]
             for name in NAMES]  # fmt: skip
    outline = outline_of(tmp_path / "a.pdf", with_contents(NAMES, pages))
    assert [(s.title, s.page) for s in outline.sections] == [
        (name, k + 1) for k, name in enumerate(NAMES)
    ]
    elsewhere = [[("text", "Nothing of the sort is told on this page of the book."), TEXT]
                 for _ in NAMES]  # fmt: skip
    other = outline_of(tmp_path / "b.pdf", with_contents(NAMES, elsewhere))
    assert not any("contents" in s.witnesses for s in other.sections)


def test_questions_much_larger_than_the_text_are_headings(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "asked", ("Times-Roman", 15))
    asked = [
        "Why is the well shut?",
        "How can I lift a bucket that has been under the ice since the first frost, when the rope"
        " is too short to be tied to the hook and nobody is there to hold the lid?",
        "What do I do with a broken lid?",
        "Who pays for the rope?",
    ]
    pages = [[("asked", asked[k]), TEXT, TEXT, ("asked", asked[k + 1]), TEXT, TEXT]
             for k in (0, 2)]  # fmt: skip
    assert titles_of(tmp_path / "a.pdf", pages) == asked


def test_functions_under_numbers_that_count_on_are_headings(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "call", ("Courier", 11))
    pages = [
        [("h1", "1 Lifting"), TEXT, ("h2", "1.1 By hand"), TEXT],
        [("call", "1.1.1 lift()"), TEXT, TEXT], [("call", "1.1.2 pump()"), TEXT, TEXT],
        [("call", "1.1.3 drain()"), TEXT, TEXT], [("h2", "1.2 By rope"), TEXT, TEXT],
    ]  # fmt: skip
    found = titles_of(tmp_path / "a.pdf", pages)
    assert [t for t in found if "()" in t] == ["1.1.1 lift()", "1.1.2 pump()", "1.1.3 drain()"]


def test_a_small_label_belongs_to_the_large_title_under_it(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "label", ("Times-Roman", 10))
    pages = [[TEXT, TEXT, ("label", f"CHAPTER {k + 1}"), ("h1", name), TEXT, TEXT]
             for k, name in enumerate(("Wells", "Ropes", "Lids"))]  # fmt: skip
    assert titles_of(tmp_path / "a.pdf", pages) == [
        "CHAPTER 1 Wells", "CHAPTER 2 Ropes", "CHAPTER 3 Lids"
    ]  # fmt: skip


def test_letters_in_a_figure_hold_no_chapters(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "mark", ("Helvetica", 20))
    pages = [[("h1", f"{k + 1} {name}"), TEXT, TEXT] for k, name in enumerate(NAMES)]
    pages[2].append(("mark", "C C C' C'"))
    outline = outline_of(tmp_path / "a.pdf", pages)
    assert {s.level for s in outline.sections if s.title[0].isdigit()} == {0}
    assert not any("C'" in s.title for s in outline.sections)


def test_large_headings_below_what_the_contents_page_lists_are_kept(tmp_path):
    parts = ("Name", "Use", "Returns")
    pages = [[("h1", f"{k + 1} {name}"), TEXT, *(b for part in parts for b in (("h3", part), TEXT))]
             for k, name in enumerate(NAMES)]  # fmt: skip
    listed = [f"{k + 1} {name}" for k, name in enumerate(NAMES)]
    with pytest.MonkeyPatch.context() as patch:
        patch.setitem(STYLES, "h3", ("Times-Bold", 16))
        outline = outline_of(tmp_path / "a.pdf", with_contents(listed, pages))
    assert [(s.level, s.title) for s in outline.sections[:4]] == [
        (0, "1 lift"), (1, "Name"), (1, "Use"), (1, "Returns")
    ]  # fmt: skip


def test_contents_over_text_are_no_section_and_no_text(tmp_path):
    listed = [f"{k + 1} {name}" for k, name in enumerate(NAMES)]
    pages = [[("h1", title), TEXT, TEXT] for title in listed]
    front = with_contents(listed, pages)
    front[0] = [("title", "A Book of Wells"), TEXT, *front[0], TEXT]
    make_pdf(tmp_path / "a.pdf", front)
    document = read_document(tmp_path / "a.pdf")
    titles = [s.title for s in document.outline.sections]
    assert set(listed) <= set(titles)
    assert "Contents" not in titles
    first = [s for s in document.text.sentences if s.page == 0]
    kinds = {s.text.split()[0]: s.kind for s in first}
    assert kinds["Contents"] == "listing"
    assert [s.kind for s in first if s.text.startswith("The keeper")] == ["body", "body"]
    assert all(s.kind == "listing" for s in first if s.text[0].isdigit())


def test_an_index_at_the_end_stays_a_section(tmp_path):
    pages = [[("h1", name), TEXT, TEXT] for name in ("Wells", "Ropes", "Lids")]
    rows = [("text", f"{name}, {k + 1}, {k + 2}") for k, name in enumerate(NAMES)]
    found = titles_of(tmp_path / "a.pdf", [*pages, [("h1", "Index"), *rows]])
    assert found == ["Wells", "Ropes", "Lids", "Index"]


def test_slightly_larger_italics_are_headings(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "slanted", ("Times-Italic", 12))
    names = ("Starting values", "Estimation problems", "Convergence codes", "Likelihood slices")
    pages = [[("h2", f"{k + 1} {name}"), TEXT, ("slanted", part), TEXT, TEXT]
             for k, (name, part) in enumerate(zip(NAMES, names, strict=False))]  # fmt: skip
    outline = outline_of(tmp_path / "a.pdf", pages)
    assert [s.title for s in outline.sections if s.level == 1] == list(names)


def test_headings_at_the_left_hang_under_centred_ones_of_their_style(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)
    middle = ("Ropes and Buckets", "Lids", "What Frost Does")
    lines = wrapped(TEXT[1] * 2, "Times-Roman", 11, A4[0] - 144)
    for row, line in enumerate(lines):
        canvas.drawString(72, 740 - 14 * row, line)
    canvas.showPage()
    for k, title in enumerate(middle):
        y = 740.0
        for n, heading in enumerate((title, f"Of {NAMES[2 * k]}", f"Of {NAMES[2 * k + 1]}")):
            canvas.setFont("Times-Bold", 11)
            draw = canvas.drawCentredString if n == 0 else canvas.drawString
            draw(A4[0] / 2 if n == 0 else 72, y, heading)
            canvas.setFont("Times-Roman", 11)
            for row, line in enumerate(lines):
                canvas.drawString(72, y - 22 - 14 * row, line)
            y -= 150
        canvas.showPage()
    canvas.save()
    outline = read_document(tmp_path / "a.pdf").outline
    assert [s.title for s in outline.sections if s.level == 0] == list(middle)
    assert [s.level for s in outline.sections] == [0, 1, 1] * 3


def test_headings_in_the_face_of_headings_are_kept_below_the_contents(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "h1", ("Helvetica-Bold", 14))
    monkeypatch.setitem(STYLES, "own", ("Helvetica-Bold", 11))
    parts = ("By hand", "By rope", "In frost")
    pages = [[("h1", f"{k + 1} {name}"), TEXT, ("own", f"{part} {name}"), TEXT, TEXT]
             for k, (name, part) in enumerate(zip(NAMES, parts * 2, strict=True))]  # fmt: skip
    listed = [f"{k + 1} {name}" for k, name in enumerate(NAMES)]
    outline = outline_of(tmp_path / "a.pdf", with_contents(listed, pages))
    assert [s.title for s in outline.sections if s.level == 1] == [
        f"{part} {name}" for name, part in zip(NAMES, parts * 2, strict=True)
    ]


def test_no_bullet_of_a_slide_is_a_heading(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "point", ("Helvetica", 16))
    monkeypatch.setitem(STYLES, "slide", ("Helvetica-Bold", 24))
    pages = [[("slide", f"What a {name} is"), ("point", "• made of wood"), ("small", "oak or elm"),
              ("point", "• held by a rope"), ("small", "of hemp")] for name in NAMES]  # fmt: skip
    assert titles_of(tmp_path / "a.pdf", pages) == [f"What a {name} is" for name in NAMES]


def test_a_part_under_its_contents_is_one_section(tmp_path):
    listed = ["I Wells", *(f"{k + 1} {name}" for k, name in enumerate(NAMES))]
    pages = [[("h1", title), TEXT, TEXT] for title in listed[1:]]
    front = [("h1", "Contents"), ("toc0", "I Wells|1"),
             *(("toc0", f"{title}|{k + 2}") for k, title in enumerate(listed[1:]))]  # fmt: skip
    first = [*front, TEXT, ("h2", "Part I"), ("h1", "Wells"), TEXT, TEXT]
    titles = titles_of(tmp_path / "a.pdf", [first, *pages])
    assert sum("Wells" in title for title in titles) == 1


def test_a_document_in_which_nothing_may_be_a_heading_has_no_sections(tmp_path):
    assert not outline_of(tmp_path / "a.pdf", [[TEXT, TEXT]] * 3).sections


def test_a_preface_and_appendices_set_larger_hold_no_chapters(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "h0", ("Times-Bold", 24))
    monkeypatch.setitem(STYLES, "h1", ("Times-Bold", 20))
    chapters = [f"{k + 1} {name.capitalize()} of the wells" for k, name in enumerate(NAMES)]
    pages = [
        [("h0", "Preface"), TEXT, ("h2", "For whom it is"), TEXT],
        *([("h1", title), TEXT, ("h2", f"{k}.1 Ropes"), TEXT, ("h2", f"{k}.2 Lids"), TEXT]
          for k, title in enumerate(chapters, 1)),
        *([("h0", f"Appendix {letter}. {what}"), TEXT] for letter, what in
          (("A", "Tools"), ("B", "Forms"), ("C", "Prices"))),
    ]  # fmt: skip
    listed = ["Preface", *chapters, "Appendix A. Tools", "Appendix B. Forms", "Appendix C. Prices"]
    inner = [(f"{k}.{n} {what}", k) for k in range(1, 7) for n, what in ((1, "Ropes"), (2, "Lids"))]
    rows = [("toc0", f"{entry}|{k + 2}") for k, entry in enumerate(listed)]
    for title, chapter in reversed(inner):
        rows.insert(chapter + 1, ("toc1", f"{title}|{chapter + 2}"))
    found = outline_of(tmp_path / "a.pdf", [[("h1", "Contents"), *rows], *pages])
    level = {section.title: section.level for section in found.sections}
    assert {level[title] for title in listed if title in level} == {0}
    assert level["3.2 Lids"] == 1


def test_a_label_that_is_listed_once_is_no_title_under_each_entry(tmp_path):
    names = (*NAMES, "rope", "wheel")
    entries = [[("h1", f"The {name} of a well"), TEXT, ("h2", "Notes"), TEXT] for name in names]
    often = [*(f"The {name} of a well" for name in names), "Notes"]
    each = [title for name in names for title in (f"The {name} of a well", "Notes")]
    for k, (listed, is_title) in enumerate(((often, False), (each, True))):
        path = tmp_path / f"{k}.pdf"
        make_pdf(path, with_contents(listed, [*entries, [("h2", "Notes"), TEXT, TEXT]]))
        document = read_document(path)
        titles = build._titles_of(document.contents, document.paragraphs)
        assert ("notes" in titles) == is_title
        assert "theliftofawell" in titles


@pytest.mark.parametrize(
    ("under", "is_kept"),
    [
        (("Ropes for the {}", "Lids of the {}"), True),
        (("Usage", "Value"), False),  # labels under each
    ],
)
def test_what_is_set_below_all_bookmarks_is_kept_where_its_titles_differ(
    tmp_path, monkeypatch, under, is_kept
):
    monkeypatch.setitem(STYLES, "h1", ("Helvetica-Bold", 20))
    monkeypatch.setitem(STYLES, "h2", ("Helvetica-Bold", 14))
    pages = [
        [("h1", f"The {name}"), TEXT,
         *(block for title in under for block in (("h2", title.format(name)), TEXT, TEXT))]
        for name in NAMES
    ]  # fmt: skip
    bookmarks = [(f"The {name}", 0, k) for k, name in enumerate(NAMES)]
    make_pdf(tmp_path / "a.pdf", pages, bookmarks=bookmarks)
    titles = [(s.title, s.level) for s in read_document(tmp_path / "a.pdf").outline.sections]
    wanted = [
        entry for name in NAMES for entry in
        ((f"The {name}", 0), *((title.format(name), 1) for title in under))
    ]  # fmt: skip
    assert titles == (wanted if is_kept else [(f"The {name}", 0) for name in NAMES])


def test_two_numbered_headings_close_together_stay_two(tmp_path, monkeypatch):
    """The contents page names the second alone, which does not make it the half of a title."""
    monkeypatch.setitem(STYLES, "h3", ("Helvetica-Bold", 12))
    pages = [
        [("h1", "1 Wells"), TEXT, ("h2", "1.1 Lids"), TEXT, ("h3", "1.1.1 Old lids"), TEXT],
        [("h3", "1.1.2 More"), ("text", "Others are in the shed."),
         ("h2", "1.2 Differences between old lids and new ones"), TEXT],
        [("h1", "2 Ropes"), TEXT, ("h2", "2.1 Old ropes"), TEXT, ("h2", "2.2 New ropes"), TEXT],
    ]  # fmt: skip
    listed = ["1 Wells", "1.1 Lids", "1.2 Differences between old lids and new ones", "2 Ropes",
              "2.1 Old ropes", "2.2 New ropes"]  # fmt: skip
    on = [2, 2, 3, 4, 4, 4]
    contents = [
        ("h1", "Contents"),
        *(("toc0", f"{e}|{n}") for e, n in zip(listed, on, strict=True)),
    ]
    titles = titles_of(tmp_path / "a.pdf", [contents, *pages])
    assert titles[titles.index("1.1.1 Old lids") + 1] == "1.1.2 More"
    assert "1.2 Differences between old lids and new ones" in titles


CHAPTER = Style(13.5, is_bold=True, is_italic=False, is_capital=False, face="Sans")
LOWER, LARGER = CHAPTER._replace(size=12.0), CHAPTER._replace(size=14.5)


def record_of(title, level, page, style, y, *, is_listed=False):
    """A heading that is not sure by itself, and the entry of the contents page that names it."""
    heading = Heading(title, level, page, y, 10 * page + int(y / 100), (72, y, 300, y + 14), style)
    entry = ContentsEntry(title, level, str(page), page, 0, (72, 100, 300, 110))
    return Record(heading=heading, contents=entry if is_listed else None)


def test_what_is_set_as_a_chapter_under_an_appendix_is_kept():
    chapters = [record_of(name, 0, k + 1, CHAPTER, 80.0, is_listed=True)
                for k, name in enumerate(NAMES)]  # fmt: skip
    appendix = record_of("Appendix", 0, 8, LARGER, 80.0, is_listed=True)
    asked = [record_of(f"Who has the {name}?", 1, 8 + k, CHAPTER, 200.0)
             for k, name in enumerate(NAMES)]  # fmt: skip
    other = [record_of(f"To {name}", 1, 8 + k, LOWER, 300.0) for k, name in enumerate(NAMES)]
    kept = build._worth_listing([*chapters, appendix, *asked, *other], ("contents", "heading"))
    assert kept == [*chapters, appendix, *asked]
    few = build._worth_listing([*chapters, appendix, *asked[:2]], ("contents", "heading"))
    assert few == [*chapters, appendix]


@pytest.mark.parametrize(
    ("title", "is_sure", "is_kept"),
    [("7 Lids", True, True), ("9 Lids", True, False), ("7 Lids", False, False)],
)
def test_the_last_chapter_is_kept_that_the_contents_page_misses(title, is_sure, is_kept):
    chapters = [record_of(f"{k + 1} {name}", 0, k + 1, CHAPTER, 80.0, is_listed=True)
                for k, name in enumerate(NAMES)]  # fmt: skip
    heading = record_of(title, 0, 8, CHAPTER, 80.0).heading
    last = Record(heading=heading._replace(is_sure=is_sure))
    kept = build._worth_listing([*chapters, last], ("contents", "heading"))
    assert (last in kept) == is_kept


def test_the_chapter_of_two_headings_of_a_name_is_the_listed_one():
    last = record_of("Other things", 1, 4, LOWER, 80.0)
    chapter = record_of("Other things", 0, 4, CHAPTER, 300.0)
    next_page = record_of("Other things", 0, 5, CHAPTER, 80.0)
    assert build._outermost_of([last, chapter], 0) is chapter
    assert build._outermost_of([last, next_page], 0) is last
    assert build._outermost_of([record_of("Lids", 0, 4, CHAPTER, 80.0), last], 1) is last


def test_one_of_many_that_is_called_as_a_chapter_makes_none_of_them_unsure():
    chapters = [Candidate(name, CHAPTER, k, k, 80.0, 2 * k, 80.0) for k, name in enumerate(NAMES)]
    lower = [Candidate(f"To {name}", LOWER, k, k, 90.0, 2 * k + 1, 90.0)
             for k, name in enumerate(NAMES * 2)]  # fmt: skip
    candidates = [*chapters, *lower]
    odds = np.array([3.0] * len(chapters) + [0.0] * len(lower))
    for n, are_sure in ((1, True), (4, False)):
        listed = np.array([True] * len(chapters) + [k < n for k in range(len(lower))])
        sure = headings._sure(candidates, range(len(candidates)), odds, listed, 10.0, "Serif")
        assert ({c.paragraph for c in lower} <= sure) == are_sure
