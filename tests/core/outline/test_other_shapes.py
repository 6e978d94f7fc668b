"""Shapes of real documents that once misled the outline, made small."""

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.core.outline.test_contents import CHAPTERS, PLAIN, book
from tests.making import STYLES, make_pdf, read_document
from wide_margin.core.outline.page_titles import page_titles

BODY = "It says in plain words what the command is for and how long it may take to run."


def reference(path, names):
    """A page for each command: its name at the left and what it does at the right, then parts
    that are called the same everywhere. Bookmarks name the commands alone."""
    canvas = Canvas(str(path), pagesize=A4)
    for k, name in enumerate(names):
        canvas.bookmarkHorizontal(f"k{k}", 0, 770)
        canvas.addOutlineEntry(name, f"k{k}")
        canvas.setFont("Times-Roman", 10)
        canvas.drawString(72, 740, name)
        canvas.drawString(260, 740, f"What {name} is good for, in a few words")
        for part, y in (("Description", 700), ("Usage", 640), ("Examples", 580)):
            canvas.setFont("Times-Bold", 10)
            canvas.drawString(72, y, part)
            canvas.setFont("Times-Roman", 10)
            canvas.drawString(72, y - 16, BODY)
            canvas.drawString(72, y - 28, f"{BODY[:40]} {k}")
        canvas.showPage()
    canvas.save()


def test_a_bookmark_is_not_taken_for_a_title_that_comes_again_and_again(tmp_path):
    names = ("lift", "pump", "drain", "cover", "clean", "close")
    reference(tmp_path / "a.pdf", names)
    outline = read_document(tmp_path / "a.pdf").outline
    marked = [s for s in outline.sections if "bookmark" in s.witnesses]
    assert [s.title for s in marked] == list(names)
    assert all("heading" in s.witnesses for s in marked)
    assert not outline.disputed


def test_a_figure_that_only_the_list_names_is_among_the_figures(tmp_path):
    from wide_margin.core.document import find_figures

    listed = [("h1", "List of Figures"), ("toc0", "1 A well seen from above|1"),
              ("toc0", "2 A bucket|4")]  # fmt: skip
    document = book(tmp_path / "a.pdf", [[*PLAIN, *listed]])
    assert [(f.caption, f.page) for f in find_figures(document)] == [
        ("1 A well seen from above", 1), ("2 A bucket", 4)
    ]  # fmt: skip


def test_bookmarks_said_twice_count_once(tmp_path):
    marks = [(title, int("." in title.split()[0]), k + 1) for k, title in enumerate(CHAPTERS)]
    document = book(tmp_path / "a.pdf", [PLAIN], bookmarks=[*marks[:2], marks[1], *marks[2:]])
    assert [s.title for s in document.outline.sections] == list(CHAPTERS)


def test_an_edited_outline_is_anchored_to_the_paragraphs_at_its_places(tmp_path):
    from wide_margin.core.document import with_outline
    from wide_margin.core.outline.editing import OutlineEditor

    document = book(tmp_path / "a.pdf", [PLAIN])
    editor = OutlineEditor(document.facts.heights)
    ropes = next(k for k, s in enumerate(document.outline.sections) if s.title == "1.1 Ropes")
    edited = editor.rename(document.outline, ropes, "1.1 Cords").outline
    edited = editor.add(edited, 5, 400.0, "Half a page down").outline
    after = with_outline(document, edited)
    starts = [s.first_paragraph for s in after.outline.sections]
    assert starts == sorted(starts)
    titles = [s.title for s in after.outline.sections]
    assert titles.count("1.1 Cords") == 1
    row = after.outline.sections[titles.index("1.1 Cords")].first_paragraph
    assert after.paragraphs[row].text == "1.1 Ropes"
    assert {p.section for p in after.text.passages} <= set(range(-1, len(titles)))


def test_a_number_hangs_under_the_nearest_one_above_it(tmp_path):
    path = tmp_path / "gap.pdf"
    text = ("text", "The keeper signs for every bucket that leaves the well, by day and by night.")
    titles = ["1 Wells", "1.1 Ropes", "2 Lids", "2.2.1 Wood", "2.2.2 Stone", "3 Fees"]
    make_pdf(path, [[("h2", title), text, text] for title in titles])
    found = [(s.level, s.title) for s in read_document(path).outline.sections]
    assert found == [(0, "1 Wells"), (1, "1.1 Ropes"), (0, "2 Lids"), (1, "2.2.1 Wood"),
                     (1, "2.2.2 Stone"), (0, "3 Fees")]  # fmt: skip


def test_a_place_of_work_with_a_number_is_no_section(tmp_path, monkeypatch):
    path = tmp_path / "stray.pdf"
    text = ("text", "The keeper signs for every bucket that leaves the well, by day and by night.")
    first = [("h1", "Keeping Wells"), ("h3", "2 Institute of Wells"), ("h2", "1 Ropes"), text, text]
    rest = [[("h2", title), text, text] for title in ("2 Lids", "3 Fees", "4 Frost")]
    monkeypatch.setitem(STYLES, "h3", ("Times-BoldItalic", 12))
    make_pdf(path, [first, *rest])
    titles = [s.title for s in read_document(path).outline.sections]
    assert "2 Lids" in titles
    assert "2 Institute of Wells" not in titles


def test_what_is_set_smaller_lies_under_all_levels_that_are_set_alike(tmp_path):
    text = ("text", "The keeper signs for every bucket that leaves the well, by day and by night.")
    titles = [("h1", "1 Wells"), ("h1", "1.1 Ropes"), ("h2", "Oiling a rope"),
              ("h2", "Tying a rope"), ("h1", "1.2 Buckets"), ("h2", "Painting a bucket"),
              ("h1", "2 Sheds"), ("h1", "2.1 Locks"), ("h2", "Turning a lock")]  # fmt: skip
    path = tmp_path / "alike.pdf"
    make_pdf(path, [[title, text, text] for title in titles])
    levels = [section.level for section in read_document(path).outline.sections]
    assert levels == [0, 1, 2, 2, 1, 2, 0, 1, 2]


SLIDES = ["Wells", "How a well is dug", "How a well is dug", "Ropes", "Knots", "Buckets", "Lids",
          "Locks", "Sheds", "The end"]  # fmt: skip


def deck(path, titles):
    """Slides whose largest type is in what stands under their titles."""
    said = "Dig it by day, and never alone; the keeper signs for the lid when it is done."
    make_pdf(path, [
        [("h2", title), ("title", f"{k + 3} metres"), ("text", said), ("h1", "Never alone")]
        for k, title in enumerate(titles)
    ])  # fmt: skip
    return read_document(path)


def test_slides_are_called_by_what_stands_first_on_them(tmp_path):
    outline = deck(tmp_path / "deck.pdf", SLIDES).outline
    wanted = list(dict.fromkeys(SLIDES))
    assert [s.title for s in outline.sections] == wanted
    assert {s.level for s in outline.sections} == {0}
    assert [s.page for s in outline.sections] == [SLIDES.index(title) for title in wanted]


def test_few_pages_and_full_ones_are_no_slides(tmp_path):
    said = ("text", "The keeper signs for every bucket that leaves the well. " * 30)
    pages = [[("h2", title), said] for title in SLIDES]
    make_pdf(tmp_path / "full.pdf", pages)
    assert page_titles(deck(tmp_path / "deck.pdf", SLIDES).paragraphs)
    assert not page_titles(read_document(tmp_path / "full.pdf").paragraphs)
    assert not page_titles(deck(tmp_path / "few.pdf", SLIDES[:6]).paragraphs)


def test_numbered_chapters_on_short_pages_are_no_slides(tmp_path):
    text = ("text", "The keeper signs for every bucket that leaves the well, by day and by night.")
    make_pdf(tmp_path / "notes.pdf", [
        [("h1", f"{k} {title}"), text, ("h2", f"{k}.1 Old {title.lower()}"), text]
        for k, title in enumerate(("Wells", "Ropes", "Lids", "Keys", "Hoops", "Locks", "Knots",
                                   "Sheds", "Staves"), 1)
    ])  # fmt: skip
    document = read_document(tmp_path / "notes.pdf")
    assert not page_titles(document.paragraphs)
    assert "3.1 Old lids" in [section.title for section in document.outline.sections]


def plain_deck(path, titles, *, gap=70):
    """Slides whose titles are set like their points, and stand apart from them."""
    canvas = Canvas(str(path), pagesize=(720, 540))
    for k, title in enumerate(titles):
        canvas.setFont("Helvetica", 28)
        canvas.drawString(20, 480, title)
        for row in range(4):
            canvas.setFont("Helvetica", 28 if k % 2 else 24)
            canvas.drawString(60, 480 - gap - row * 40, f"\u2022 point {k * 4 + row} of the keeper")
        canvas.showPage()
    canvas.save()
    return read_document(path)


def test_titles_that_go_on_over_slides_and_are_set_like_their_points_are_titles(tmp_path):
    titles = ["Wells", "Ropes", "Ropes", "Ropes", "Lids", "Lids (cont.)", "Keys", "Staves", "Hoops",
              "Locks", "Knots"]  # fmt: skip
    new = [title for k, title in enumerate(titles) if title not in titles[:k] and "(" not in title]
    document = plain_deck(tmp_path / "deck.pdf", titles)
    found = [(section.title, section.page) for section in document.outline.sections]
    assert found == [(title, titles.index(title)) for title in new]
    kinds = {s.kind for s in document.text.sentences if s.text.split(" (")[0] in titles}
    assert kinds == {"heading"}
    assert "heading" not in {s.kind for s in document.text.sentences if "point" in s.text}


def test_lines_that_begin_pages_like_the_lines_under_them_are_no_titles(tmp_path):
    titles = ["Wells", "Ropes", "Chains", "Rings", "Lids", "Bolts", "Keys", "Staves", "Hoops"]
    canvas = Canvas(str(tmp_path / "verse.pdf"), pagesize=(720, 540))
    for title in titles:
        canvas.setFont("Helvetica", 20)
        for row, line in enumerate([f"{title} of the keeper", *["the water and the stone"] * 5]):
            canvas.drawString(20, 480 - row * 26, line)
        canvas.showPage()
    canvas.save()
    assert not page_titles(read_document(tmp_path / "verse.pdf").paragraphs)


PARTS = ("Wells of stone", "Ropes of hemp", "Buckets of oak")


def talk(path, shown):
    """Slides with their titles, and the agenda at each of some places."""
    said = ("text", "Dig it by day, and never alone; the keeper signs for the lid.")
    agenda = [("h1", "Agenda"), *(("text", part) for part in PARTS)]
    titles = iter(("Digging", "Lining", "Spinning", "Knots", "Staves", "Hoops", "Handles", "Locks",
                   "Keys", "End"))  # fmt: skip
    pages = [agenda if k in shown else [("h1", next(titles)), said, said] for k in range(11)]
    make_pdf(path, pages)
    return [(s.title, s.level, s.page) for s in read_document(path).outline.sections]


def test_an_agenda_that_comes_again_begins_the_sections_of_a_talk(tmp_path):
    sections = talk(tmp_path / "talk.pdf", (0, 3, 6))
    assert [(title, page) for title, level, page in sections if level == 0] == [
        (PARTS[0], 0), (PARTS[1], 3), (PARTS[2], 6),
    ]  # fmt: skip
    assert [title for title, level, _ in sections if level == 1][:3] == [
        "Digging", "Lining", "Spinning"
    ]  # fmt: skip


@pytest.mark.parametrize("shown", [(0, 3), (0, 2, 4, 6, 8), (3,)])
def test_pages_that_come_again_at_other_times_are_no_agenda(tmp_path, shown):
    sections = talk(tmp_path / "talk.pdf", shown)
    assert not {title for title, _, _ in sections} & set(PARTS)


def test_a_name_set_larger_between_chapters_holds_none_of_them(tmp_path):
    text = ("text", "The keeper signs for every bucket that leaves the well, by day and by night.")
    titles = [("h2", "1 Wells"), ("h2", "2 Ropes"), ("h1", "Lids"), ("h1", "Nets"),
              ("h2", "3 Locks"), ("h2", "4 Sheds")]  # fmt: skip
    path = tmp_path / "between.pdf"
    make_pdf(path, [[title, text, text, text, text] for title in titles])
    levels = {s.title: s.level for s in read_document(path).outline.sections}
    assert {levels[title] for style, title in titles if style == "h2"} == {0}


@pytest.mark.parametrize(("n", "others"), [(3, False), (2, False), (3, True)])
def test_bold_lines_that_end_in_a_colon_are_the_sections_of_a_text_without_others(
    tmp_path, n, others
):
    titles = ["Program Features:", "Care of the rope:", "How to wind:"][:n]
    page = [
        ("title", "Quorble 5.5"),
        ("text", "a winch to wind ropes"),
        ("bold", "Ann Bale and Bo Cy"),
    ]
    for title in titles:
        page += [("text", f"{BODY} {BODY} {BODY}"), ("bold", title)]
    page += [("text", f"{BODY} {BODY}")]
    pages = [page, [("h1", "1 Ropes"), ("text", BODY)]] if others else [page]
    make_pdf(tmp_path / "a.pdf", pages)
    sections = [s.title for s in read_document(tmp_path / "a.pdf").outline.sections]
    assert ("Care of the rope:" in sections) is (n == 3 and not others)
    assert "Ann Bale and Bo Cy" not in sections


@pytest.mark.parametrize("n", [3, 2])
def test_one_line_over_all_of_them_is_none(tmp_path, n):
    titles = ["Program features:", "Care of the rope:", "How to wind:"][:n]
    page = [("text", "March 6"), ("title", "Quorble 5.5"), ("text", "a winch to wind ropes"),
            ("text", "by"), ("h2", "Larry Bale, Martin Cy and Brian Dow")]  # fmt: skip
    for title in titles:
        page += [("text", f"{BODY} {BODY} {BODY}"), ("bold", title)]
    make_pdf(tmp_path / "a.pdf", [[*page, ("text", f"{BODY} {BODY}")]])
    sections = [s.title for s in read_document(tmp_path / "a.pdf").outline.sections]
    assert ("Care of the rope:" in sections) is (n == 3)
    assert n == 2 or "Larry Bale, Martin Cy and Brian Dow" not in sections


def test_chapters_that_are_set_otherwise_are_chapters_where_the_contents_page_says_so(tmp_path):
    names = ["Ropes", "Drums", "Lids", "Gates", "Wells", "Winches"]
    listed, pages = [], []
    for k, name in enumerate(names, start=1):
        listed.append(("toc0", f"{k} {name}|{k + 1}"))
        head = "h1" if k % 2 else "bold"
        page = [(head, name.upper()), ("text", f"{BODY} {BODY}")]
        for j in (1, 2):
            listed.append(("toc1", f"{k}.{j} Care of {name} {j}|{k + 1}"))
            page += [("h2", f"{k}.{j} Care of {name} {j}"), ("text", f"{BODY} {BODY}")]
        pages.append(page)
    make_pdf(tmp_path / "a.pdf", [[("h1", "Contents"), *listed], *pages])
    sections = read_document(tmp_path / "a.pdf").outline.sections
    levels = {s.title: s.level for s in sections}
    assert [levels[f"{k} {name}"] for k, name in enumerate(names, start=1)] == [0] * 6
    assert all(s.level == 1 for s in sections if "." in s.title.split()[0])


@pytest.mark.parametrize(
    ("labels", "are_sections"), [(("oo.res", "oos"), False), (("Oo", "Os"), True)]
)
def test_labels_of_a_drawing_on_one_page_are_no_sections(tmp_path, labels, are_sections):
    page = [("h2", "1 Ropes"), ("text", f"{BODY} {BODY}"), ("h2", "2 Drums"), ("text", BODY)]
    drawn = [("h1", label) for label in labels]
    last = [("h2", "3 Lids"), ("text", f"{BODY} {BODY}")]
    make_pdf(tmp_path / "a.pdf", [[("title", "Wells"), *page], [*drawn, ("text", BODY)], last])
    titles = [s.title for s in read_document(tmp_path / "a.pdf").outline.sections]
    assert (labels[0] in titles) is are_sections
    assert "3 Lids" in titles


def test_what_is_described_in_the_line_of_its_name_is_found_by_a_contents_page_that_counts_anew(
    tmp_path,
):
    """The pages are numbered by chapter, the contents page counts them from its own chapter on."""
    names = [
        f"DBWell{name}" for name in ("Open", "Close", "Wind", "Turn", "Count", "Paint", "Drain")
    ]
    listed = [("toc0", f"{name}|{k + 4}") for k, name in enumerate(names)]
    pages = [[("text", f"{name}—How the rope of a well is used"), ("text", BODY), ("text", BODY)]
             for name in names]  # fmt: skip
    front = [[("title", "Wells"), ("text", f"{BODY} {BODY}")], [("h1", "Contents"), *listed]]
    more = [[("text", f"{BODY} {BODY}")] for _ in range(4)]
    labels = [f"2-{k + 1}" for k in range(len(front) + len(more) + len(names))]
    make_pdf(tmp_path / "a.pdf", [*front, *more, *pages], labels=labels)
    outline = read_document(tmp_path / "a.pdf").outline
    assert [(s.title, s.page) for s in outline.sections if s.title in names] == [
        (name, 6 + k) for k, name in enumerate(names)
    ]


def test_a_list_of_figures_holds_no_chapter_however_large_its_title(tmp_path):
    page = [("title", "List of figures"), ("text", "No figures."), ("h1", "Ropes"), ("text", BODY),
            ("h2", "Wet ropes"), ("text", f"{BODY} {BODY}")]  # fmt: skip
    more = [("h1", "Drums"), ("text", f"{BODY} {BODY}"), ("h2", "Oak"), ("text", BODY)]
    make_pdf(tmp_path / "a.pdf", [[("title", "Wells"), ("text", f"{BODY} {BODY}")], page, more])
    levels = {s.title: s.level for s in read_document(tmp_path / "a.pdf").outline.sections}
    assert levels["Ropes"] == levels["Drums"] == levels["List of figures"]
    assert levels["Wet ropes"] == levels["Ropes"] + 1


def test_a_heading_that_takes_most_of_the_line_it_runs_into_ends_with_its_face(tmp_path):
    titles = ["1.1. Care of the wet ropes and drums of the winch.", "1.2. Lids.",
              "1.3. How the lids are to be laid on wells at night."]  # fmt: skip
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)
    canvas.setFont("Times-Bold", 16)
    canvas.drawString(72, 780, "Chapter 1. Wells")
    for k, title in enumerate(titles):
        y = 720 - 130 * k
        canvas.setFont("Times-Bold", 11)
        canvas.drawString(86, y, title)
        x = 86 + canvas.stringWidth(f"{title} ", "Times-Bold", 11)
        canvas.setFont("Times-Roman", 11)
        canvas.drawString(x, y, "To keep ropes dry")
        for line in range(1, 6):
            canvas.drawString(72, y - 13 * line, f"{BODY} {line + 10 * k}")
    canvas.save()
    found = [s.title for s in read_document(tmp_path / "a.pdf").outline.sections]
    assert [title.rstrip(".") for title in found[1:]] == [title.rstrip(".") for title in titles]
