"""What a document is, read from made title pages."""

from dataclasses import replace

import pikepdf
import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import STYLES, make_pdf, read_document
from wide_margin.core.digest import DocumentKind
from wide_margin.core.digest.facts import facts_within, find_facts
from wide_margin.core.digest.front import front_lines
from wide_margin.core.digest.imprint import DATES, iso_of
from wide_margin.core.digest.kinds import kind_of
from wide_margin.core.digest.names import (
    is_name,
    is_rare_name,
    names_in_line,
    same_person,
    split_people,
)
from wide_margin.core.digest.titles import _DEGREE_WORK, COMMAND, _is_formula, _people

BODY = [
    ("h2", "1 Wells"),
    ("text", "A well is a hole in the ground that holds water. It must be covered at night, and"
             " the rope is changed every eighteen months, whether or not it looks worn."),
    ("text", "The keeper of the well signs for every bucket. Wooden buckets are soaked for two"
             " days before they are used."),
]  # fmt: skip


@pytest.fixture
def facts_of(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    monkeypatch.setitem(STYLES, "author", ("Times-Roman", 13))

    def read(*blocks):
        path = tmp_path / "made.pdf"
        make_pdf(path, [[*blocks, *BODY], BODY, BODY])
        return find_facts(read_document(path))

    return read


def texts(facts):
    return [fact.text for fact in facts]


def test_title_and_two_authors_on_a_line(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"), ("author",
    "Marta Lindqvist and Aino Perälä"),
                     ("author", "14 March 2021"))  # fmt: skip
    assert facts.title.text == "Keeping a Village Well"
    assert texts(facts.authors) == ["Marta Lindqvist", "Aino Perälä"]
    assert facts.date.text == "2021-03-14"
    assert facts.title.locator.page == 0


def test_all_whom_a_label_names_are_authors_though_the_file_names_one(facts_of, tmp_path):
    people = ("Current Programmers: Ann Bale, Aino Perälä,", "Tomas Flour")
    facts_of(("title", "Keeping a Village Well"), *(("author", line) for line in people))
    with pikepdf.open(tmp_path / "made.pdf", allow_overwriting_input=True) as pdf:
        pdf.docinfo["/Author"] = "Ann Bale"
        pdf.save()
    facts = find_facts(read_document(tmp_path / "made.pdf"))
    assert texts(facts.authors) == ["Ann Bale", "Aino Perälä", "Tomas Flour"]


@pytest.mark.parametrize("company", ["Lindqvist Wells Limited", "Hallan Pumps GmbH", "Well e. V."])
def test_whose_letter_it_is_is_no_title(facts_of, tmp_path, company):
    facts_of(("author", company), ("author", "The Old Brewery"), ("title", "Bucket protocol"))
    with pikepdf.open(tmp_path / "made.pdf", allow_overwriting_input=True) as pdf:
        pdf.docinfo["/Title"] = company
        pdf.save()
    assert find_facts(read_document(tmp_path / "made.pdf")).title.text == "Bucket protocol"
    facts = facts_of(("title", company), ("author", "The Old Brewery"), ("h1", "Bucket protocol"))
    assert facts.title.text == "Bucket protocol"


def test_affiliations_between_authors_are_no_authors(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("author", "Marta Lindqvist"),
        ("author", "University of Hallan"), ("author", "Aino Perälä"),
        ("author", "Institute of Water Research"),
    )  # fmt: skip
    assert texts(facts.authors) == ["Marta Lindqvist", "Aino Perälä"]


def test_headings_that_look_like_names_are_none(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("title", "Village Wells"), ("text", "Marta Lindqvist"), ("text", "Warning Levels"),
         ("h2", "1 Warning Levels"), *BODY[1:]],
        [("h2", "2 Ropes"), *BODY[1:]],
    ])  # fmt: skip
    assert texts(find_facts(read_document(path)).authors) == ["Marta Lindqvist"]


def test_words_that_the_text_writes_small_are_no_name(facts_of):
    facts = facts_of(("title", "Village Wells"), ("author", "Rope Keeper"),
                     ("author", "Marta Lindqvist"))  # fmt: skip
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_an_address_does_not_make_a_name_a_word(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    path = tmp_path / "made.pdf"
    said = "Write to marta.lindqvist@example.org or see http://example.org/marta/lindqvist today."
    make_pdf(path, [[("title", "Village Wells"), ("text", "Marta Lindqvist"), *BODY,
                     ("text", said)], BODY])  # fmt: skip
    assert texts(find_facts(read_document(path)).authors) == ["Marta Lindqvist"]


def test_an_address_put_into_words_does_not_make_a_name_a_word(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    path = tmp_path / "made.pdf"
    for said in ("marta dot lindqvist at wells dot example", "mailto:marta lindqvist at wells.org"):
        make_pdf(path, [[("title", "Village Wells"), ("text", "Marta Lindqvist"), *BODY,
                         ("text", said)], BODY])  # fmt: skip
        assert texts(find_facts(read_document(path)).authors) == ["Marta Lindqvist"]


def test_a_date_that_each_thing_described_has_is_not_that_of_the_document(facts_of):
    facts = facts_of(("title", "Village Wells"), ("author", "Marta Lindqvist"),
                     ("author", "2021/03/14"), ("author", "Updated: 2020-07-10"),
                     ("author", "Updated: 2020-08-10"))  # fmt: skip
    assert facts.date.text == "2021-03-14"


def test_a_body_can_be_the_author(facts_of):
    facts = facts_of(("title", "Rules for Wells"), ("author", "The Hallan Well Committee"))
    assert texts(facts.authors) == ["The Hallan Well Committee"]


def test_without_a_printed_date_none_is_stated(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", "Marta Lindqvist"))
    assert facts.date is None


@pytest.mark.parametrize(
    ("printed", "date"),
    [
        ("14 March 2021", "2021-03-14"),
        ("March 14, 2021", "2021-03-14"),
        ("March 2021", "2021-03"),
        ("2021-03-14", "2021-03-14"),
        ("14. März 2021", "2021-03-14"),
        ("14 mars 2021", "2021-03-14"),
        ("14.3.2021", "2021-03-14"),
        ("03/14/2021", "2021-03-14"),
        ("14/03/2021", "2021-03-14"),
        ("14-Mar-2021", "2021-03-14"),
        ("Marta Lindqvist, revised 14-March-2021", "2021-03-14"),
        ("1 September 2012, Revised 14 March 2021", "2021-03-14"),
        ("2005-2021", "2021"),
    ],
)
def test_dates_as_they_are_printed(facts_of, printed, date):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", printed))
    assert facts.date.text == date


def test_a_line_with_a_name_and_a_date_is_no_subtitle(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"),
                     ("author", "Marta Lindqvist, revised 14-Mar-2021"))  # fmt: skip
    assert facts.subtitle is None


def test_after_a_line_that_says_by_come_the_authors(facts_of):
    facts = facts_of(("title", "Village Wells"), ("author", "Tested Bucket Survey"),
                     ("author", "Prepared by:"), ("author", "Marta Lindqvist"))  # fmt: skip
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_a_house_and_its_street_are_no_author(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", "Marta Lindqvist"),
                     ("author", "5465 Holm Dabling"), ("author", "Aino Perälä Blvd."))  # fmt: skip
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_a_sentence_does_not_say_who_published_a_document(facts_of):
    said = "publisher was unable to give access to this document through their system"
    facts = facts_of(("title", "Keeping a Village Well"), ("text", f"Alas, the {said}."))
    assert facts.place is None
    facts = facts_of(("title", "Keeping a Village Well"), ("author", "Published by Holm Press"))
    assert facts.place.text == "Published by Holm Press"


def test_date_and_edition_in_the_foot_of_every_page(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    foot = ("head", "14 March 2021 - Village Wells - Version 1.1")
    path = tmp_path / "made.pdf"
    make_pdf(path, [[("title", "Village Wells")], *[[foot, *BODY] for _ in range(4)]])
    facts = find_facts(read_document(path))
    assert facts.date.text == "2021-03-14"
    assert facts.edition.text == "Version 1.1"
    assert facts.date.locator.page == 1


def test_a_version_within_the_title_is_the_edition(facts_of):
    facts = facts_of(("title", "Wellkeep 5.6.17 User Manual"), ("text", "It has 4.2 gates."))
    assert facts.edition.text == "5.6.17"
    assert facts_of(("title", "Wells of 2021 and 1.5"), ("text", "It has gates.")).edition is None
    quoted = facts_of(("title", "Use of wells"), ("text", '(Version "3.6.13 – 08.04.2019")'))
    assert "3.6.13" in quoted.edition.text


def test_the_version_of_what_it_was_made_in_is_not_its_edition(facts_of):
    made = "processed with ropes 2.6 in Q version 4.2.1 on October 11, 2022"
    assert facts_of(("title", "Keeping a Village Well"), ("text", made)).edition is None


def test_a_team_behind_who_wrote_it_is_where_they_work(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("author", "Mary Green"),
        ("text", "Rope and Water Team, Wells of Hallan"),
    )  # fmt: skip
    assert [author.text for author in facts.authors] == ["Mary Green"]


def test_the_edition_of_another_work_is_not_that_of_a_paper(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    path = tmp_path / "made.pdf"
    works = ("text", "Handbook of wells (second edition)")
    make_pdf(path, [[("title", "Village Wells"), *BODY * 5], [works, *BODY], BODY])
    assert find_facts(read_document(path)).edition is None


def test_a_title_in_two_lines_and_a_subtitle(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well Through a Hundred Winters and Forty Summers"),
        ("author", "With notes on ropes"),
    )  # fmt: skip
    assert facts.title.text.endswith("Forty Summers")
    assert facts.subtitle.text == "With notes on ropes"


@pytest.mark.parametrize("faces", [("Times-Bold", "Times-Roman"), ("Times-Roman", "Times-Bold")])
def test_a_title_in_two_faces_is_whole(tmp_path, faces):
    canvas = Canvas(str(tmp_path / "a.pdf"), invariant=1)
    lines = ("lidwell: Estimating the Depth", "of shallow wells")
    for face, text, y in zip(faces, lines, (700, 674), strict=True):
        canvas.setFont(face, 20)
        canvas.drawCentredString(297, y, text)
    canvas.setFont("Times-Roman", 11)
    for k in range(30):
        canvas.drawString(72, 600 - 14 * k, f"Every well has a rope, and no {k} may take it home.")
    canvas.save()
    assert find_facts(read_document(tmp_path / "a.pdf")).title.text == " ".join(lines)


def title_page(path, lines, text="Every well has a rope, and nobody may take it home at night."):
    """A page with centred lines, each with its size and height, and a page of text."""
    canvas = Canvas(str(path), invariant=1)
    for size, y, said in lines:
        canvas.setFont("Times-Roman", size)
        canvas.drawCentredString(297, y, said)
    canvas.showPage()
    canvas.setFont("Times-Roman", 11)
    for k in range(30):
        canvas.drawString(72, 700 - 14 * k, text)
    canvas.save()
    return read_document(path)


@pytest.mark.parametrize("text", ["The HWK is a clock for wells.", "A rope is a clock for wells."])
def test_a_title_whose_initials_the_text_has_is_nobodys_name(tmp_path, text):
    lines = [(20, 600, "Hallan Well Keeper"), (17, 540, "Reference Manual"),
             (17, 490, "for Quorble 5.0"), (14, 440, "(December 2020)")]  # fmt: skip
    title = find_facts(title_page(tmp_path / "a.pdf", lines, text)).title.text
    assert (title == "Hallan Well Keeper") is ("HWK" in text)


@pytest.mark.parametrize("below", ["Marta Lindqvist and Aino Perälä", "Reference Manual"])
def test_what_stands_largest_over_people_is_nobodys_name(tmp_path, below):
    lines = [(17, 600, "Quorble Effects Graphics Gallery"), (12, 570, below),
             (12, 545, "2018-12-19, small revisions 2020-02-08")]  # fmt: skip
    names = _people(document := title_page(tmp_path / "a.pdf", lines), front_lines(document))
    assert (lines[0][2] in names) is (below == "Reference Manual")


@pytest.mark.parametrize(
    "said", ["Generated by Quorble 1.9", "Date of printing : the second of May",
             "Released in the winter", "Wells are holes that people dig for water"],
)  # fmt: skip
def test_what_is_no_subtitle(facts_of, said):
    assert facts_of(("title", "Keeping a Village Well"), ("author", said)).subtitle is None


def test_a_subtitle_goes_on_in_small_letters(tmp_path):
    path = tmp_path / "set.pdf"
    canvas = Canvas(str(path), invariant=1)
    lines = ("A book of rules", "for all who draw water from the wells of others in the dry years")
    for size, y, text in ((26, 600, "Village Wells"), (14, 540, lines[0]), (14, 520, lines[1])):
        canvas.setFont("Times-Roman", size)
        canvas.drawCentredString(297, y, text)
    canvas.showPage()
    canvas.drawString(72, 700, "Every well has a rope, and nobody may take it home for the night.")
    canvas.save()
    assert find_facts(read_document(path)).subtitle.text == " ".join(lines)


def test_edition_and_licence_are_quoted(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("author", "Third edition"),
        ("text", "Permission is granted to copy and distribute this book freely."),
    )  # fmt: skip
    assert facts.edition.text == "Third edition"
    assert "Permission is granted" in facts.licence.text


def facts_with_title(tmp_path, first_page, title):
    """The facts of a document whose file gives a title of its own."""
    path, other = tmp_path / "made.pdf", tmp_path / "other.pdf"
    make_pdf(path, [first_page, BODY])
    with pikepdf.open(path) as pdf:
        pdf.docinfo["/Title"] = title
        pdf.save(other)
    return find_facts(read_document(other))


def test_what_the_file_says_otherwise_is_told(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    first = [("title", "Keeping a Village Well"), *BODY]
    facts = facts_with_title(tmp_path, first, "Annual Accounts of the Railway")
    assert facts.title.text == "Keeping a Village Well"
    assert any("Annual Accounts" in told for told in facts.disagreements)


def test_a_title_set_letter_by_letter_is_read_with_the_metadata(tmp_path):
    first = [("text", "K E E P I N G A V I L L A G E W E L L"), *BODY]
    facts = facts_with_title(tmp_path, first, "Keeping a Village Well")
    assert facts.title.text == "Keeping a Village Well"
    assert facts.title.locator.page == 0
    assert facts.disagreements == ()


def test_the_file_that_it_was_made_from_tells_the_lines_of_a_title(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 30))
    monkeypatch.setitem(STYLES, "author", ("Times-Roman", 24))
    first = [("title", "Brochures"), ("author", "Village Well"), ("author", "Winding Guide"), *BODY]
    facts = facts_with_title(tmp_path, first, "Microsoft Word - VillageWellWindingGuide.docx")
    assert facts.title.text == "Village Well Winding Guide"
    assert facts.authors == ()


def test_the_handbook_is_a_manual_without_authors(handbook):
    facts = find_facts(handbook)
    assert facts.kind is DocumentKind.MANUAL
    assert facts.title.text == "The Skerrow Sound Tide Network"
    assert facts.subtitle.text == "Observer’s Handbook"
    assert facts.edition.text == "Third edition"
    assert facts.authors == ()


@pytest.mark.parametrize(
    ("title", "heading", "text", "kind"),
    [
        ("Wells of Hallan", "Abstract",
        "We propose a method. In this paper we show that our results"
         " improve. We find that the p-value is small, and we present our approach.",
         DocumentKind.ARTICLE),
        ("Pump Manual", "2 Installation",
        "You must press the green button. You can choose the option"
         " by default. You should run the following command. Type the name.", DocumentKind.MANUAL),
        ("Well Act", "Section 1 Definitions", "The keeper shall cover the well. The parties shall"
         " hereby agree. Notwithstanding section 2, the licensee shall pay, provided that he may.",
         DocumentKind.STATUTE),
        ("Server Design Draft", "Chapter 1. Requests", "Who asks is told at once."
         " The server keeps a list, and a request that is late waits in its queue for long."
         " Requests are kept in the order in which they came, by each client in its own row.",
         DocumentKind.OTHER),
        ("A Tale of Two Wells", "Chapter I",
        "He said that she went away. She cried, and he asked her"
         " what she thought. He replied that he looked and she came, and he went home.",
         DocumentKind.NARRATIVE),
    ],
)  # fmt: skip
def test_kinds_are_told_apart(tmp_path, title, heading, text, kind):
    path = tmp_path / "kind.pdf"
    make_pdf(path, [[("h1", title), ("h2", heading), *[("text", text)] * 3]] * 3)
    assert kind_of(read_document(path), title) is kind


# --- names


@pytest.mark.parametrize(
    "line",
    ["University of Hallan", "Version 2.3", "Department of Statistics", "Observer’s Handbook",
     "A Guide for Keepers", "Table of Contents", "Wells and Buckets", "Contract No:",
     "HM0476-15-D-0002", "Hallan Lindqvist WS&DS", "Wells and Buckets - WELLS",
     "Old Harbour, Department of Wells, Norway"],
)  # fmt: skip
def test_these_lines_name_nobody(line):
    assert names_in_line(line) == []


@pytest.mark.parametrize(
    ("line", "names"),
    [
        ("Marta Lindqvist, Aino Perälä and J. van der Berg",
         ["Marta Lindqvist", "Aino Perälä", "J. van der Berg"]),
        ("by Marta Lindqvist", ["Marta Lindqvist"]),
        ("Dr. Marta Lindqvist <marta@example.org>", ["Marta Lindqvist"]),
        ("MARTA LINDQVIST", ["MARTA LINDQVIST"]),
        ("Marta B. Lindqvist Aino K. Perälä", ["Marta B. Lindqvist", "Aino K. Perälä"]),
        ("Marta Lindqvist1 and Aino Perälä2", ["Marta Lindqvist", "Aino Perälä"]),
        ("Marta B. Lindqvist<marta@example.org>", ["Marta B. Lindqvist"]),
        ("Marta Lindqvist - WELLS", ["Marta Lindqvist"]),
        ("Marta Lindqvist, March 2021", ["Marta Lindqvist"]),
        ("Marta Lindqvist, 14 March 2021", ["Marta Lindqvist"]),
        ("Aino Perälä – University of Hallan", ["Aino Perälä"]),
        ("AINO PERÄLÄ∗ and M.B. LINDQVIST∗ , The Weir Group, Norway",
         ["AINO PERÄLÄ", "M.B. LINDQVIST"]),
        ("AINO PERÄLÄ, MARTA LINDQVIST", ["AINO PERÄLÄ", "MARTA LINDQVIST"]),
        ("CARLO DI HALLAN AND RICCARDO SALT", ["CARLO DI HALLAN", "RICCARDO SALT"]),
        ("BASIC WEAVING AND WELDING TIPS", ["BASIC WEAVING AND WELDING TIPS"]),
        ("Marta “_weir_” Lindqvist", ["Marta Lindqvist"]),
        ("Marta Lindqvist, Hallan University, Norway.", ["Marta Lindqvist"]),
        ("John Lindqvist, Well Works, Inc.", ["John Lindqvist"]),
        ("Thomas T. Holm , IV", ["Thomas T. Holm IV"]),
    ],
)  # fmt: skip
def test_names_of_a_line(line, names):
    assert names_in_line(line) == names


@pytest.mark.parametrize(
    "line",
    ["DK- Ålborg", "Il team di sviluppo", "The team", "New Harbour 110 067", "Hallan, PA 18017"],
)
def test_places_and_bare_bodies_name_nobody(line):
    assert names_in_line(line) == []


@pytest.mark.parametrize(
    ("line", "names"),
    [("di Tobias Oetiker", ["Tobias Oetiker"]), ("Das Notensatzprogramm", []),
     ("Лев Ламберов и Осаму Аоки", ["Лев Ламберов", "Осаму Аоки"]),
     ("Αλέξανδρος Παπαδόπουλος", ["Αλέξανδρος Παπαδόπουλος"]),
     ("郑奘巍", ["郑奘巍"]), ("李清、王 小明", ["李清", "王 小明"]), ("许可证", []), ("摘要", []),
     ("本手册遵守 Village Wells Project 的许可", [])],
)  # fmt: skip
def test_names_of_a_line_in_other_languages(line, names):
    assert names_in_line(line) == names


def test_chinese_people_of_the_metadata():
    people = split_people("Josip Rodin、Osamu Aoki（青木修）、李 凌")
    assert people == ["Josip Rodin", "Osamu Aoki", "李 凌"]


def test_a_heading_of_a_part_is_no_title(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    monkeypatch.setitem(STYLES, "name", ("Times-Roman", 18))
    path = tmp_path / "made.pdf"
    make_pdf(path, [[("name", "Village Wells"), ("title", "Contents"), *BODY], BODY])
    assert find_facts(read_document(path)).title.text == "Village Wells"


def test_a_title_set_letter_by_letter_is_read_without_the_metadata_too(facts_of):
    facts = facts_of(("title", "V i l l a g e – W e l l s"), ("author", "Marta Lindqvist"))
    assert facts.title.text == "Village – Wells"


def test_one_word_is_no_name():
    assert not is_name("Wells")


def test_the_same_person_by_family_name_and_initial():
    assert same_person("M. Lindqvist", "Marta Lindqvist")
    assert not same_person("Aino Lindqvist", "Marta Lindqvist")


def test_people_of_the_metadata():
    assert split_people("Lindqvist, Marta") == ["Marta Lindqvist"]
    assert split_people("Marta Lindqvist; Aino Perälä") == ["Marta Lindqvist", "Aino Perälä"]


def test_facts_within_a_reach_are_those_stated_there(handbook):
    facts = find_facts(handbook)
    title_page = facts.title.locator.page
    assert facts_within(facts, title_page, title_page).title == facts.title
    elsewhere = facts_within(facts, 100, 120)
    assert elsewhere.title is None
    assert elsewhere.authors == ()
    assert (elsewhere.kind, elsewhere.n_pages) == (facts.kind, facts.n_pages)


@pytest.mark.parametrize(
    ("kind", "said"),
    [(DocumentKind.ARTICLE, "an article"), (DocumentKind.MANUAL, "a manual"),
     (DocumentKind.OTHER, "any document")],
)  # fmt: skip
def test_kinds_as_one_says_them(kind, said):
    assert kind.with_article == said


def test_a_word_for_its_kind_is_no_title(facts_of):
    facts = facts_of(("title", "User Guide"), ("author", "Wellkeep"))
    assert facts.title.text == "User Guide"  # all there is that is large
    facts = facts_of(("title", "TECHNICAL REPORT"), ("h1", "The Loss of Water From Open Barrels"),
                     ("author", "Marta Lindqvist"))  # fmt: skip
    assert facts.title.text == "The Loss of Water From Open Barrels"
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_the_journal_is_no_title(facts_of):
    facts = facts_of(("title", "Journal of Village Wells"), ("author", "Marta Lindqvist"),
                     ("h1", "The Loss of Water From Open Barrels"))  # fmt: skip
    assert facts.title.text == "The Loss of Water From Open Barrels"
    assert facts.place.text == "Journal of Village Wells"


def test_names_on_a_page_that_goes_on_with_its_contents(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("title", "Village Wells"), ("text", "Marta Lindqvist"), ("h2", "Contents"),
         ("toc0", "Rope Matters|2"), ("toc0", "Bucket Matters|3"), ("toc0", "Lid Matters|4")],
        BODY, BODY, BODY,
    ])  # fmt: skip
    facts = find_facts(read_document(path))
    assert facts.title.text == "Village Wells"
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_a_running_sentence_below_the_title_is_no_subtitle(facts_of):
    said = "These terms apply to all wells that are owned by us and"
    facts = facts_of(("title", "Village Wells"), ("author", said))
    assert facts.subtitle is None


def test_code_names_no_journal(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Keeping a Village Well"), ("text", "The lists are read as follows.")],
        [("h1", "1 Lists"), ("text", "They are read at dawn:"),
         ("code", "> lids <- count(cbind(deep, dry), one, other, ~ lid,"),
         ("code", '+   id = "journal", data = wells.all)')],
    ])  # fmt: skip
    assert find_facts(read_document(tmp_path / "a.pdf")).place is None


def test_people_given_with_their_places(facts_of):
    facts = facts_of(
        ("title", "Village Wells"),
        ("author", "Marta Lindqvist, University of Hallan; Aino Perälä, Water Board"),
    )
    assert texts(facts.authors) == ["Marta Lindqvist", "Aino Perälä"]
    assert facts.subtitle is None


def test_streets_are_no_authors(facts_of):
    facts = facts_of(("title", "Village Wells"), ("author", "Beim Brunnenhof 31"),
                     ("author", "20097 Hallan"))  # fmt: skip
    assert facts.authors == ()


def test_where_it_came_out_is_told_whole(facts_of):
    facts = facts_of(("title", "Village Wells"), ("author", "Marta Lindqvist"),
                     ("author", "This paper is included in the Proceedings of"),
                     ("author", "the Third Meeting on Wells"))  # fmt: skip
    assert facts.place.text == "the Proceedings of the Third Meeting on Wells"


@pytest.mark.parametrize(
    ("line", "names"),
    [
        ("Brandon Goodell , Sarang Noether , and Arthur Blue",
         ["Brandon Goodell", "Sarang Noether", "Arthur Blue"]),
        ("Waterhouse, Dr.-Ing. M. Heider, M. Wege, MSc. N. Krein",
         ["M. Heider", "M. Wege", "N. Krein"]),
        ("Rope, bucket and lid", []),
        ("David J. Scott", ["David J. Scott"]),
        ("John Fox and Mark Brown", ["John Fox", "Mark Brown"]),
        ("Open Source", []),
        ("Rob Savoye et al.", ["Rob Savoye"]),
        ("Paul E. Johnson <pauljohn @ ku.edu>", ["Paul E. Johnson"]),
        ("Village Water Conference", []),
    ],
)  # fmt: skip
def test_a_list_in_which_most_are_people(line, names):
    assert names_in_line(line) == names


def test_the_version_does_not_give_the_day(facts_of):
    facts = facts_of(("title", "Village Wells"), ("author", "Version 1.1 March 2002"))
    assert facts.date.text == "2002-03"


def test_years_in_the_text_below_a_title_are_no_date(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    path = tmp_path / "made.pdf"
    counted = (
        "Wells were counted on 4 May 1985, when the rope was worn, and were counted again in the"
        " years after it, each time by the keepers of the wells."
    )
    said = ("text", counted)
    page = [("title", "Village Wells"), ("text", "Marta Lindqvist"), *BODY, said, *BODY, said]
    make_pdf(path, [page, BODY, BODY])
    assert find_facts(read_document(path)).date is None


@pytest.mark.parametrize(
    "line", ["Version 0.2: added a second rope", "Version 2.6, May 1995, Version 2.6.4, May 1998"]
)
def test_a_list_of_versions_gives_no_edition(facts_of, line):
    assert facts_of(("title", "Village Wells"), ("author", line)).edition is None


def test_a_dedication_is_no_title(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    path = tmp_path / "made.pdf"
    front = [("h1", "Village Wells"), ("text", "Marta Lindqvist")]
    make_pdf(path, [front, [("title", "Dedication"), ("text", "To all keepers.")], BODY, BODY])
    assert find_facts(read_document(path)).title.text == "Village Wells"


def test_a_chapter_in_larger_type_is_not_what_the_document_is_called(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Roman", 17))
    monkeypatch.setitem(STYLES, "chapter", ("Times-Bold", 25))
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("title", "The village wells manual")],
        [("h1", "Chapter 1"), ("chapter", "The Tools"), ("h2", "1.1 Rope tool: winding"), *BODY],
        BODY,
    ])  # fmt: skip
    facts = find_facts(read_document(path))
    assert facts.title.text == "The village wells manual"
    assert facts.subtitle is None


def test_names_in_large_type_are_no_title(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 15))
    monkeypatch.setitem(STYLES, "people", ("Times-Bold", 18))
    path = tmp_path / "made.pdf"
    people = ("people", "Marta Lindqvist, Aino Perälä, Olof Brandt, Ilse Aaltonen,")
    more = ("people", "Jon Vik, and Eva Holm")
    make_pdf(path, [[("title", "Notes on Wells"), people, more], BODY, BODY])
    assert find_facts(read_document(path)).title.text == "Notes on Wells"


def test_a_guide_named_as_one_goes_before_a_slogan(facts_of, monkeypatch):
    monkeypatch.setitem(STYLES, "guide", ("Times-Bold", 21))
    facts = facts_of(
        ("title", "The Leading Rope for Wells"), ("author", "from Hallan"),
        ("guide", "Rope Keeping and Rope Care Guide"),
    )  # fmt: skip
    assert facts.title.text == "Rope Keeping and Rope Care Guide"


def test_the_page_of_a_command_is_called_after_it(facts_of):
    facts = facts_of(
        ("h2", "NAME"), ("text", "dredge - clear a harbour of mud, by the bucket"),
        ("h2", "SYNOPSIS"), ("code", "dredge [-q] harbour"),
    )  # fmt: skip
    assert facts.title.text == "dredge"
    assert facts.subtitle.text == "clear a harbour of mud, by the bucket"


def test_a_title_far_larger_than_all_else_is_no_name_of_a_person(facts_of):
    blocks = [("author", "Ole Brekke (ole@wells.example)"), ("h2", "Startup:"),
              ("text", "The winch is started by hand.")]  # fmt: skip
    facts = facts_of(("title", "Quorble Summary"), *blocks)
    assert facts.title.text == "Quorble Summary"


@pytest.mark.parametrize("formula", ["q = Q u", "G u b 0"])
def test_a_formula_on_the_cover_is_no_title(facts_of, formula):
    facts = facts_of(("title", formula), ("h1", "Quorble User’s Guide"), ("text", "Release 2.1"))
    assert facts.title.text == "Quorble User’s Guide"


def test_signs_set_apart_in_a_script_without_blanks_are_no_formula():
    assert not _is_formula("论 文")
    assert _is_formula("q = Q u")


def test_code_is_seldom_a_title(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "name", ("Courier-Bold", 24))
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Quorble Package"), ("text", "It winds ropes."), ("text", "It is free.")],
        [("name", "wind_rope wind_all"), ("text", "Both wind a rope.")],
    ])  # fmt: skip
    assert find_facts(read_document(tmp_path / "a.pdf")).title.text == "Quorble Package"


@pytest.mark.parametrize("dash", ["-", "–", "—", "−"])
def test_any_dash_parts_a_command_from_what_it_is(dash):
    match = COMMAND.match(f"dredge {dash} clear a harbour of mud")
    assert match is not None
    assert match.groups() == ("dredge", "clear a harbour of mud")


@pytest.mark.parametrize("ends", [" :", ":", " —"])
def test_a_title_has_no_sign_behind_it_that_leads_to_more(facts_of, ends):
    facts = facts_of(("title", f"Quorble 7{ends}"), ("text", "A winch for wells, and its ropes."))
    assert facts.title.text == "Quorble 7"


@pytest.mark.parametrize(
    ("lines", "authors", "date"),
    [
        (("Marta Lindqvist", "July 2019"), ["Marta Lindqvist"], "2019-07"),
        (("Written by Marta Lindqvist", "2019"), ["Marta Lindqvist"], "2019"),
        (("14 March 2021",), [], "2021-03-14"),
    ],
)
def test_who_and_when_are_no_title_though_they_are_set_like_it(facts_of, lines, authors, date):
    facts = facts_of(("title", "Keeping a Village Well"), *(("title", line) for line in lines))
    assert facts.title.text == "Keeping a Village Well"
    assert texts(facts.authors) == authors
    assert facts.date.text == date


@pytest.mark.parametrize("line", [".notdef space exclam quotedbl", "./wells/lids.tcl"])
def test_a_path_or_a_sign_of_a_font_is_no_title(facts_of, line):
    facts = facts_of(("title", line), ("author", "Keeping a Village Well"))
    assert facts.title is None or not facts.title.text.startswith(".")


def test_a_day_is_no_name(facts_of):
    assert facts_of(("title", "Village Wells"), ("author", "Tue Oct 17")).authors == ()


@pytest.mark.parametrize(
    "line", ["2 Technical Report", "(WELLS) that was told in Lind (Journal of Village Wells)"]
)
def test_a_heading_and_the_rest_of_a_sentence_publish_nothing(facts_of, line):
    assert facts_of(("title", "Village Wells"), ("author", line)).place is None


@pytest.mark.parametrize(
    ("said", "is_licence"),
    [("Dieses Buch ist frei; Sie dürfen es unter den Bedingungen der GNU General Public License"
      " weitergeben.", True),
     ("Ce livre est libre ; vous pouvez le redistribuer selon les termes de la Licence publique"
      " générale GNU.", True),
     ("Este libro se distribuye bajo los términos de la licencia pública de GNU.", True),
     ("Questo libro è distribuito secondo i termini della licenza pubblica GNU.", True),
     ("Este livro pode ser redistribuído sob os termos da Licença Pública GNU.", True),
     ("Este documento é livre; pode ser copiado dentro dos termos da licença GNU.", True),
     ("Deze handleiding mag u verspreiden onder de bepalingen van de GNU-licentie.", True),
     ("Tous les outils sont distribués selon les termes de la licence de GNU.", False),
     ("All of the tools are under the terms of the General Public License.", False),
     ("Most of this manual is in the public domain, like the wells.", True),
     ("Le puits est fermé selon les termes du contrat des gardiens.", False)],
)  # fmt: skip
def test_a_licence_is_stated_in_other_languages_too(facts_of, said, is_licence):
    facts = facts_of(("title", "Wells"), ("text", said))
    assert (facts.licence is not None) == is_licence


def test_a_long_table_of_contents_is_no_part_of_the_front(tmp_path):
    rows = [[("toc1", f"{k} On the well of it|{k + 1}") for k in range(10 * n, 10 * n + 10)]
            for n in range(8)]  # fmt: skip
    said = "This book is free; it may be redistributed under the terms of the GNU licence."
    body = [[("h1", f"{k} On the well of it"), *BODY] for k in range(14)]
    path = tmp_path / "long.pdf"
    make_pdf(path, [[("title", "Wells")], *rows, [("h1", "Preface"), ("text", said)], *body])
    licence = find_facts(read_document(path)).licence
    assert licence is not None
    assert licence.text == said


@pytest.mark.parametrize(
    ("said", "is_licence"),
    [("It uses the many ropes that are known in the public domain since long ago.", False),
     ("This book was placed in the public domain by its keeper in 1971.", True)],
)  # fmt: skip
def test_the_public_domain_is_a_licence_where_something_is_put_there(facts_of, said, is_licence):
    facts = facts_of(("title", "Village Wells"), ("author", said))
    assert (facts.licence is not None) == is_licence


def test_a_name_set_largest_is_not_what_the_document_is_called(facts_of):
    facts = facts_of(
        ("author", "Repository of village wells"), ("title", "Jean-Pierre Kjølberg"),
        ("author", "April 4, 2011"),
    )  # fmt: skip
    assert facts.title.text == "Repository of village wells"
    assert texts(facts.authors) == ["Jean-Pierre Kjølberg"]


def test_a_thing_that_the_text_takes_up_again_and_again_may_be(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    path = tmp_path / "made.pdf"
    said = [("text", f"Quorble Trane reads the gauge of every {well} well.") for well in
            ("first", "second", "third", "fourth")]  # fmt: skip
    make_pdf(path, [[("title", "Quorble Trane"), ("text", "Reading gauges of wells"), *said], BODY])
    assert find_facts(read_document(path)).title.text == "Quorble Trane"


def test_the_mark_of_a_note_is_no_part_of_a_title(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    for note, title in [("1This work was paid for by a fund.", "Village Wells"),
                        ("It was paid for by a fund.", "Village Wells 1")]:  # fmt: skip
        path = tmp_path / f"{len(note)}.pdf"
        make_pdf(
            path,
            [[("title", "Village Wells 1"), ("text", "Marta Lindqvist"), ("small", note)], BODY],
        )
        assert find_facts(read_document(path)).title.text == title


def test_a_version_under_the_title_is_the_edition_and_no_part_of_the_title(facts_of):
    for said, edition in (
        ("Version 4.17", "Version 4.17"),
        ("(Release : 0.9.3)", "Release 0.9.3"),
        ("V.4.03.03", "V.4.03.03"),
    ):
        facts = facts_of(("title", "Keeping a Village Well"), ("title", said))
        assert facts.title.text == "Keeping a Village Well"
        assert facts.edition.text == edition


def test_letters_without_a_meaning_are_no_title(facts_of):
    facts = facts_of(("title", "BDCEGF!HIEG PRQT[H]\\ ^ _)`badcIXGe"), ("h1", "Keeping a Well"))
    assert facts.title.text == "Keeping a Well"


@pytest.mark.parametrize(
    ("line", "is_title"),
    [("pumps = wells ± ropes = lids ÷ 2", False), ("Computing exp(1 - exp(-a)) = b", True)],
)
def test_a_formula_is_no_title(facts_of, line, is_title):
    facts = facts_of(("title", line), ("h1", "Keeping a Well"))
    assert (facts.title.text == line) is is_title


def test_the_terms_of_a_licence_that_is_printed_whole_are_none_of_the_text(facts_of):
    printed = "F. Include a notice that gives the right to use it under the terms of this License."
    assert facts_of(("title", "Wells"), ("text", printed)).licence is None


def test_a_version_that_is_spoken_of_is_not_the_edition(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("author", "It is as in the version 5 ropes."),
        ("author", "Nach dem Standard in der Version 1.1 gemacht"),
        ("author", "version 5 ropes. They are kept in the shed."),
    )  # fmt: skip
    assert facts.edition is None


def test_all_people_of_a_line_above_the_title_are_taken_where_the_file_names_one(tmp_path):
    path, marked = tmp_path / "made.pdf", tmp_path / "marked.pdf"
    make_pdf(path, [[("text", "Marta Lindqvist, Aino Perälä and Karl Holm"),
                     ("h1", "Keeping a Village Well"), *BODY], BODY, BODY])  # fmt: skip
    with pikepdf.open(path) as file:
        file.docinfo["/Author"] = "Aino Perälä"
        file.docinfo["/Title"] = "Keeping a Village Well"
        file.save(marked)
    people = texts(find_facts(read_document(marked)).authors)
    assert people == ["Marta Lindqvist", "Aino Perälä", "Karl Holm"]


def test_the_file_s_title_in_the_running_head_goes_before_a_heading_further_on(tmp_path):
    path, marked = tmp_path / "made.pdf", tmp_path / "marked.pdf"
    canvas = Canvas(str(path), invariant=1)
    for n in range(8):
        canvas.setFont("Helvetica", 9)
        canvas.drawString(260, 810, "Wellkeep Manual")
        canvas.setFont("Times-Roman", 11)
        for k in range(12):
            canvas.drawString(
                72, 740 - 14 * k, f"The keeper signs for bucket {n * 12 + k} at noon."
            )
        if n == 1:
            canvas.setFont("Times-Bold", 16)
            canvas.drawString(72, 770, "Signs of this Manual")
        canvas.showPage()
    canvas.save()
    with pikepdf.open(path) as file:
        file.docinfo["/Title"] = "Wellkeep Manual"
        file.save(marked)
    assert find_facts(read_document(marked)).title.text == "Wellkeep Manual"


def test_a_name_set_like_a_heading_under_the_title_is_the_authors(tmp_path):
    text = (
        "text",
        "The keeper writes down how high the water stands, each morning and at night. " * 4,
    )
    pages = [
        [("title", "Keeping a Village Well"), ("h1", "Aino Perälä"), text,
         ("h1", "Rope Lengths"), text, ("h1", "Lids"), text],
        [("h1", "Buckets"), text],
    ]  # fmt: skip
    make_pdf(tmp_path / "well.pdf", pages)
    document = read_document(tmp_path / "well.pdf")
    assert "Aino Perälä" in [section.title for section in document.outline.sections]
    assert [author.text for author in find_facts(document).authors] == ["Aino Perälä"]


@pytest.mark.parametrize(
    ("text", "is_one"),
    [
        ("Aino Perälä", True),
        ("Water Lengths", False),
        ("WELL COMMANDS", False),
        ("Quick Start", False),
    ],
)
def test_words_that_can_be_nothing_but_a_name(text, is_one):
    assert is_rare_name(text) == is_one


def test_where_another_thing_was_published_is_not_told(facts_of):
    text = ("text", "The rope formula was published by A. Holm in 1984.")
    assert facts_of(("title", "Keeping a Village Well"), text).place is None
    text = ("text", "This paper was published by The Well Press in 1984.")
    assert facts_of(("title", "Keeping a Village Well"), text).place is not None


@pytest.mark.parametrize(
    ("first", "title"),
    [
        (["Quick Guide to the Wells", "Updated in May"], "Quick Guide to the Wells"),
        (["Reference Manual"], "The Rope and its Keeping"),  # of which kind it is, is no name
        (["Version 2.3 of the Wells"], "The Rope and its Keeping"),
    ],
)
def test_a_first_page_with_little_else_has_the_title(tmp_path, first, title):
    canvas = Canvas(str(tmp_path / "well.pdf"))
    for row, line in enumerate(first):
        canvas.setFont("Times-Roman", 24 - 7 * row)
        canvas.drawString(72, 700 - 40 * row, line)
    canvas.showPage()
    canvas.setFont("Times-Bold", 20)
    canvas.drawString(72, 700, "The Rope and its Keeping")
    for row in range(20):
        canvas.setFont("Times-Roman", 11)
        canvas.drawString(72, 660 - 14 * row, "The keeper writes down how high the water stands.")
    canvas.showPage()
    canvas.save()
    assert find_facts(read_document(tmp_path / "well.pdf")).title.text == title


@pytest.mark.parametrize("name", ["Aino A. Perälä", "Aino A. B. Perälä", "Aino A Perälä"])
def test_an_initial_that_is_an_article_too_is_part_of_a_name(facts_of, name):
    assert names_in_line(name) == [name]
    facts = facts_of(("title", "Keeping a Village Well"), ("author", name))
    assert texts(facts.authors) == [name]
    assert names_in_line("A Village Well") == []


def test_people_under_by_are_the_authors_whatever_their_names_mean(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("text", "by"),
        ("author", "Mary Finger, Aino Perälä and John Baker"),
    )  # fmt: skip
    assert texts(facts.authors) == ["Mary Finger", "Aino Perälä", "John Baker"]


def test_authors_may_stand_over_the_title(facts_of):
    facts = facts_of(
        ("author", "M. Lindqvist and Aino Perälä"), ("title", "Keeping a Village Well"),
        ("text", "The rules of the village and what they are good for"),
    )  # fmt: skip
    assert texts(facts.authors) == ["M. Lindqvist", "Aino Perälä"]
    others = facts_of(
        ("author", "Water Science, Skyline Plots"), ("title", "Keeping a Village Well"),
        ("text", "The rules of the village and what they are good for"),
    )  # fmt: skip
    assert others.authors == ()


@pytest.mark.parametrize("label", ["Supervisor:", "Betreuer:", "Relatore:", "Co-advisor:"])
def test_who_looked_after_the_work_is_no_author(facts_of, label):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("author", "Aino Perälä"),
        ("text", label), ("author", "Prof. Marta Lindqvist"),
    )  # fmt: skip
    assert texts(facts.authors) == ["Aino Perälä"]
    beside = facts_of(
        ("title", "Keeping a Village Well"), ("author", "Aino Perälä"),
        ("author", f"{label} Marta Lindqvist"),
    )  # fmt: skip
    assert texts(beside.authors) == ["Aino Perälä"]


@pytest.mark.parametrize(
    ("line", "names"),
    [
        ("Auteur(s): Aino Perälä en Zeyneb Kurt", ["Aino Perälä", "Zeyneb Kurt"]),
        ("Autores: Aino Perälä y Zeyneb Kurt", ["Aino Perälä", "Zeyneb Kurt"]),
        ("Författare: Aino Perälä och Zeyneb Kurt", ["Aino Perälä", "Zeyneb Kurt"]),
        ("Authors: Aino Perälä, Zeyneb Kurt", ["Aino Perälä", "Zeyneb Kurt"]),
    ],
)
def test_a_line_that_says_whose_its_names_are_goes_before_others(facts_of, line, names):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("author", "Helmi Sandström"), ("author", line),
        ("text", "Titularis(sen): Zeger de Zager"), ("author", "Marta Lindqvist"),
    )  # fmt: skip
    assert texts(facts.authors) == names


@pytest.mark.parametrize(
    ("line", "names"),
    [("Authors: Aino Perälä and Zeyneb Kurt", ["Aino Perälä", "Zeyneb Kurt"]),
     ("Author: Andrew Baker <baker@example.org>.", ["Andrew Baker"]),
     ("Author: Office Service", []),
     ("Readers: Aino Perälä and Zeyneb Kurt", [])],
)  # fmt: skip
def test_authors_may_be_told_on_a_later_page_of_the_front(tmp_path, line, names):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Keeping a Village Well"), ("text", "27-aug-2022")],
        [("h1", "Keeping a Village Well"), ("text", line), ("text", "The well is old.")],
    ])  # fmt: skip
    assert texts(find_facts(read_document(tmp_path / "a.pdf")).authors) == names


@pytest.mark.parametrize("place", ["LMS Hallan", "Brunnen Quelle Verlag Wiesbaden"])
def test_the_school_or_publisher_that_a_work_was_made_for_is_no_author(facts_of, place):
    facts = facts_of(
        ("title", "Theses of LMS Hallan"), ("author", "Aino Perälä"), ("author", place)
    )
    assert texts(facts.authors) == ["Aino Perälä"]


def test_a_title_goes_on_where_it_asks_for_it(facts_of):
    facts = facts_of(
        ("title", "An Introduction to"), ("text", ""), ("text", ""),
        ("title", "Village Wells"), ("author", "Aino Perälä"),
    )  # fmt: skip
    assert facts.title.text == "An Introduction to Village Wells"


def test_a_first_section_gives_a_title_without_its_number(facts_of):
    assert facts_of().title.text == "Wells"


@pytest.mark.parametrize(
    ("printed", "date"),
    [("24 lipca 2016", "2016-07-24"), ("4 февраля 2021", "2021-02-04"),
     ("1. září 2008", "2008-09-01"), ("1995年6月", "1995-06"), ("2020년 7월 3일", "2020-07-03")],
)  # fmt: skip
def test_dates_are_read_in_more_languages(printed, date):
    found = next(match for pattern in DATES if (match := pattern.search(printed)))
    assert iso_of(found) == date


def test_a_version_may_stand_apart_from_its_letter(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", "v 3.0.1"))
    assert facts.edition.text == "v 3.0.1"


def test_a_title_that_begins_with_an_article_keeps_it(facts_of):
    facts = facts_of(("h2", "A Village Well"), ("text", "It is deep, and nobody falls in it."))
    assert facts.title.text == "A Village Well"


def test_the_year_of_a_work_that_is_cited_is_no_date(facts_of):
    cited = ("text", "It goes by the third edition of the rules (Reed, 1999).")
    assert facts_of(("title", "Keeping a Village Well"), cited).date is None
    own = facts_of(("title", "Keeping a Village Well"), ("author", "Third edition (1999)"))
    assert own.date.text == "1999"


@pytest.mark.parametrize("said", ["Version 1.7", "DRAFT", "Preliminary version"])
def test_version_and_state_are_no_title_however_large(tmp_path, monkeypatch, said):
    monkeypatch.setitem(STYLES, "large", ("Times-Bold", 26))
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 20))
    make_pdf(tmp_path / "a.pdf", [[("large", said), ("title", "Keeping a Village Well"), *BODY],
                                  BODY])  # fmt: skip
    assert find_facts(read_document(tmp_path / "a.pdf")).title.text == "Keeping a Village Well"


def test_the_heading_of_the_licence_is_no_title(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Roman", 16))
    monkeypatch.setitem(STYLES, "large", ("Times-Bold", 22))
    said = ("text", "It is given away under the terms of the Well Keepers, as all of them are.")
    make_pdf(tmp_path / "a.pdf", [[("title", "Keeping a Village Well of Stone")],
                                  [("large", "License agreement"), said], BODY])  # fmt: skip
    title = find_facts(read_document(tmp_path / "a.pdf")).title.text
    assert title == "Keeping a Village Well of Stone"


def test_the_title_of_the_file_in_two_sizes_is_whole(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "above", ("Times-Bold", 26))
    monkeypatch.setitem(STYLES, "below", ("Times-Bold", 32))
    first = [("text", "Marta Lindqvist"), ("above", "Practical"), ("below", "Wells"), *BODY]
    facts = facts_with_title(tmp_path, first, "Practical wells")
    assert facts.title.text.lower() == "practical wells"
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_a_dedication_names_no_author(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", "Für Beatriz"))
    assert facts.authors == ()


def test_authors_stand_under_a_heading_that_says_so(tmp_path):
    first = [("h1", "About Wells"), ("text", "It tells of wells."), ("h2", "Author"),
             ("text", "Dr. Marta Lindqvist"), ("text", "The Wells Road, Hallan")]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [[("title", "Wells")], first, BODY])
    assert texts(find_facts(read_document(tmp_path / "a.pdf")).authors) == ["Marta Lindqvist"]


def test_a_list_of_people_goes_on_in_the_next_line(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"),
        ("author", "Marta Lindqvist, Le Shu, Aino Perälä, Zeyneb"),
        ("author", "Kurt"), ("author", "14 March 2021"),
    )  # fmt: skip
    assert texts(facts.authors) == ["Marta Lindqvist", "Le Shu", "Aino Perälä", "Zeyneb Kurt"]


def test_a_place_of_work_with_a_full_stop_does_not_go_on(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"),
        ("author", "Marta Lindqvist, Old Wells, Hallan."), ("author", "Aino Perälä"),
    )  # fmt: skip
    assert "Aino Perälä" in texts(facts.authors)
    assert not any("Hallan" in name for name in texts(facts.authors))


def test_who_signs_the_text_may_stand_with_the_date_under_its_title(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", "Mark Green, March 2021"),
                     *BODY, ("h2", "Mark Green"), BODY[1])  # fmt: skip
    assert texts(facts.authors) == ["Mark Green"]
    assert facts.date.text == "2021-03"


@pytest.mark.parametrize(
    "title",
    ["Příručka pro studny", "Podręcznik studni", "井戸マニュアル", "Handleiding voor putten"],
)
def test_a_manual_is_called_so_in_other_languages(tmp_path, title):
    make_pdf(tmp_path / "a.pdf", [[("title", "Q"), *BODY], [("h1", "Usage"), BODY[1]]])
    document = read_document(tmp_path / "a.pdf")
    assert kind_of(document, "Qqq") is DocumentKind.OTHER
    assert kind_of(document, title) is DocumentKind.MANUAL


def test_what_a_title_stands_for_is_its_subtitle_and_no_author(facts_of, monkeypatch):
    monkeypatch.setitem(STYLES, "large", ("Times-Bold", 15))
    meant = "Wuzzle Quelling Copperfield Kraken Protocol"
    facts = facts_of(("title", "WQCKP"), ("large", meant), ("author", "Marta Lindqvist"))
    assert facts.subtitle.text == meant
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_what_stands_at_the_head_of_each_page_is_the_title_under_a_larger_name(tmp_path):
    def pages(head):
        canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=(595, 842))
        canvas.setFont("Times-Bold", 27)
        canvas.drawCentredString(297, 590, "WELLS OF THE NORTHERN VALLEYS")
        canvas.setFont("Times-Bold", 20)
        canvas.drawCentredString(297, 450, "THE ROPES OF THE LIBRARY")
        canvas.showPage()
        for n in range(2, 6):
            canvas.setFont("Times-Roman", 9)
            canvas.drawString(300, 800, head)
            for k in range(20):
                said = f"Rope {k} of the {'old ' * n}box is changed in the spring."
                canvas.drawString(72, 700 - 14 * k, said)
            canvas.showPage()
        canvas.save()
        return find_facts(read_document(tmp_path / "a.pdf")).title.text

    assert pages("The Ropes of the Library") == "THE ROPES OF THE LIBRARY"
    assert pages("Printed for the keepers") == "WELLS OF THE NORTHERN VALLEYS"


def test_the_month_over_a_paper_is_its_date_and_not_a_year_in_the_text(facts_of):
    facts = facts_of(
        ("text", "February 2015, Volume 64, Issue 2. doi: 10.1000/wells.64"),
        ("title", "Keeping a Village Well"), ("author", "Marta Lindqvist"),
        ("text", "Wells were kept before, but in 1999 two papers of note were published on ropes."),
    )  # fmt: skip
    assert facts.date.text == "2015-02"


def test_a_kind_of_work_is_nobody_s_name(facts_of):
    facts = facts_of(
        ("title", "Wellkeep Coding Standards"), ("author", "The Wellkeep Development Team"),
        ("author", "August 30, 2006"),
    )  # fmt: skip
    assert facts.title.text == "Wellkeep Coding Standards"
    assert texts(facts.authors) == ["The Wellkeep Development Team"]


def test_a_street_over_its_town_is_no_author(facts_of):
    facts = facts_of(
        ("title", "Agreement on Wells"), ("author", "Wells and Ropes GmbH"),
        ("author", "Beim Strohhaus 31"), ("author", "20097 Hallan"),
    )  # fmt: skip
    assert texts(facts.authors) == []


@pytest.mark.parametrize(
    ("line", "authors"),
    [
        ("Copyright (c) 2003 Rafal Mantik and Jan Krawik", ["Rafal Mantik", "Jan Krawik"]),
        ("Copyright © 2003–2009 by Rafal Mantik", ["Rafal Mantik"]),
        ("Copyright (c) 2003 Wells International", []),
        ("Copyright (c) 2003 Ropes Software", []),
        ("Copyright (c) 2003 Rafal Mantik. All rights reserved by him and his heirs.", []),
    ],
)  # fmt: skip
def test_who_holds_the_copyright_is_the_author_where_nobody_else_is_named(facts_of, line, authors):
    assert texts(facts_of(("title", "Keeping a Village Well"), ("text", line)).authors) == authors
    named = facts_of(
        ("title", "Keeping a Village Well"), ("author", "Marta Lindqvist"), ("text", line)
    )
    assert texts(named.authors) == ["Marta Lindqvist"]


def test_a_team_is_named_in_other_languages(facts_of):
    facts = facts_of(
        ("title", "El pozo de la casa"), ("author", "El equipo de desarrolladores de Pozo")
    )
    assert texts(facts.authors) == ["El equipo de desarrolladores de Pozo"]


@pytest.mark.parametrize("said", [
    "Permission is hereby granted, free of charge, to any person obtaining a copy of this text.",
    "Permission to use, copy and change this text for any purpose is hereby granted without fee.",
    "The keepers grant permission to copy and distribute this text for any purpose.",
])  # fmt: skip
def test_a_licence_that_grants_permission(facts_of, said):
    facts = facts_of(("title", "Keeping a Village Well"), ("text", said))
    assert facts.licence.text == said


def test_all_who_hold_the_copyright_are_authors(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("text", "Copyright © 2004–2009 Andrew Mihalik"),
        ("text", "Copyright © 2009–2016 Christoph Spielmann"),
    )  # fmt: skip
    assert texts(facts.authors) == ["Andrew Mihalik", "Christoph Spielmann"]


def test_the_issue_in_the_foot_of_each_page_tells_the_date(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=(595, 842))
    for n in range(1, 6):
        canvas.setFont("Times-Bold", 20)
        if n == 1:
            canvas.drawString(72, 740, "Keeping a Village Well")
        canvas.setFont("Times-Roman", 10)
        for k in range(20):
            said = f"The {'old ' * n}rope {k} is changed by the keeper of the well in the spring."
            canvas.drawString(72, 700 - 14 * k, said)
        canvas.drawString(72, 40, "The Well Journal Vol. 9/2, December 2017")
        canvas.drawString(430, 40, "ISSN 2073-4859")
        canvas.showPage()
    canvas.save()
    assert find_facts(read_document(tmp_path / "a.pdf")).date.text == "2017-12"


def test_the_page_of_a_command_says_what_it_is_over_several_lines(facts_of):
    facts = facts_of(
        ("h2", "NAME"), ("text", "dredge - clear a harbour of mud, by the bucket or by the barge,"
                                 " in summer and in winter, with as few men as are wanted for it"),
        ("h2", "SYNOPSIS"), ("code", "dredge [-q] harbour"),
    )  # fmt: skip
    assert facts.title.text == "dredge"
    assert facts.subtitle.text.startswith("clear a harbour of mud")
    assert facts.subtitle.text.endswith("wanted for it")


def test_sections_at_the_end_tell_the_authors_and_the_licence(tmp_path):
    path = tmp_path / "a.pdf"
    many = [
        ("text", f"The bucket is emptied on day {k} and on the day after it.") for k in range(9)
    ]
    make_pdf(path, [
        [("h1", "NAME"), ("text", "dredge - clear a harbour of mud, by the bucket")],
        *[[("h1", f"BUCKETS {k}"), *many] for k in range(9)],
        [("h1", "AUTHORS"), ("text", "Dredging by Marta Lindqvist and Tomas Flour, this text by Ole"
                                     " Brekke.")],
        [("h1", "COPYRIGHT"), ("text", "Harbours are deep. This program is given under the terms of"
                                       " the General Harbour License.")],
        *[[("h1", f"HISTORY {k}"), *many] for k in range(4)],
    ])  # fmt: skip
    facts = find_facts(read_document(path))
    assert texts(facts.authors) == ["Marta Lindqvist", "Tomas Flour", "Ole Brekke"]
    assert facts.authors[0].locator.page == 10
    assert "General Harbour License" in facts.licence.text


@pytest.mark.parametrize(
    ("text", "is_label"),
    [("硕士学位论文", True), ("工学博士学位论文", True), ("博士論文", True),
     ("基于神经网络的机器人智能抓取研究", False), ("论文写作指南", False)],
)  # fmt: skip
def test_what_says_that_it_is_a_thesis_is_not_what_it_is_called(text, is_label):
    assert bool(_DEGREE_WORK.match(text)) == is_label


@pytest.mark.parametrize("label", ["Doctoral Thesis", "Diplomarbeit", "Thèse de doctorat"])
def test_a_line_at_the_front_may_say_that_it_is_a_thesis(facts_of, label):
    assert facts_of(("title", "Keeping a Village Well"), ("author", label)).kind == "thesis"
    assert facts_of(("title", "Keeping a Village Well"), ("author", "Notes")).kind != "thesis"


def test_of_a_title_that_stands_twice_the_first_is_meant(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", "Marta Lindqvist"),
                     ("text", "14 March 2021"), ("title", "Keeping a Village Well"))  # fmt: skip
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_the_rest_of_a_torn_word_publishes_nothing(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"),
        ("text", "THE WELL IS LENT “AS IS”, WITHOUT WARRANTY OF ANY KIND OR SORT, EX-"),
        ("text", "PRESS OR IMPLIED, NOR OF THE ROPE"),
    )  # fmt: skip
    assert facts.place is None


def test_what_a_list_of_works_names_is_not_where_a_document_came_out(tmp_path):
    works = [("text", f"{name}, A. (199{k}). The Wells of Hallan. Technical report, Holm Press.")
             for k, name in enumerate(["Aas", "Holm", "Lind", "Vik"])]  # fmt: skip
    path = tmp_path / "made.pdf"
    make_pdf(path, [[("h1", "Keeping a Village Well"), *BODY], [("h2", "References"), *works]])
    assert find_facts(read_document(path)).place is None


@pytest.mark.parametrize(
    ("line", "edition"),
    [("Well Version 11, Release 7.7", "Version 11, Release 7.7"), ("Keeping Wells 2.8.1", "2.8.1"),
     ("Keeping Ropes 2.8.1", None), ("Version 1.2 Beta 3", "Version 1.2 Beta 3")],
)  # fmt: skip
def test_editions_of_two_numbers_and_after_the_name(facts_of, line, edition):
    facts = facts_of(("title", "Keeping Wells"), ("author", line))
    assert (facts.edition and facts.edition.text) == edition


def test_somebody_whose_name_the_copyright_writes_small(facts_of):
    facts = facts_of(
        ("title", "Keeping a Village Well"), ("author", "Aino Finney"),
        ("text", "Copyright © 2005 aino finney, who keeps the well."),
    )  # fmt: skip
    assert texts(facts.authors) == ["Aino Finney"]


def test_what_stands_between_dashes_is_a_subtitle(facts_of):
    facts = facts_of(("title", "Wellkeep"), ("title", "- Quick start guide -"),
                     ("author", "Last modified: 7-28-2017 03:36"))  # fmt: skip
    assert facts.title.text == "Wellkeep"
    assert facts.subtitle.text == "Quick start guide"
    assert facts.date.text == "2017-07-28"


def test_a_subtitle_ends_before_the_version(facts_of):
    name = "A Book on the Keeping of All Village Wells Between the Moor and Hallan"
    said = f"{name} Documentation for Wellkeep version 1.0"  # on a line of its own
    assert facts_of(("title", "Wellkeep"), ("author", said)).subtitle.text.startswith(name)


def test_a_licence_tells_more_than_that_rights_are_reserved(facts_of):
    reserved = ("text", "Copyright © 2008 Holm AB, All Rights Reserved Wellkeep 2.8.1 May 3, 2026")
    named = ("text", "Licensed under the Well License, Version 2.0; you may not use this file"
                     " except in compliance with it.")  # fmt: skip
    assert facts_of(("title", "Wellkeep"), reserved, named).licence.text.startswith(
        "Licensed under"
    )
    alone = facts_of(("title", "Wellkeep"), reserved).licence.text
    assert alone == "Copyright © 2008 Holm AB, All Rights Reserved"


@pytest.mark.parametrize(
    ("said", "is_licence"),
    [("Il est permis de produire et distribuer des copies conformes de ce document à condition que"
      " la présente notice soit préservée.", True),
     ("È permesso copiare e distribuire copie letterali di questo manuale a chi lo legge.", True),
     ("Il est permis de tirer de l’eau du puits la nuit, si le document du puits est à sa place.",
      False)],
)  # fmt: skip
def test_what_may_be_copied_is_told_in_other_languages(facts_of, said, is_licence):
    facts = facts_of(("title", "Wellkeep"), ("text", said))
    assert (facts.licence is not None) == is_licence


def test_the_row_of_a_table_is_no_title(facts_of):
    facts = facts_of(("title", "slash 002F zero 0030 one 0031 two 0032 three 0033"),
                     ("h1", "Signs of the Well"))  # fmt: skip
    assert facts.title.text == "Signs of the Well"


def test_a_title_that_the_file_has_without_blanks_is_the_printed_one(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Bold", 24))
    make_pdf(tmp_path / "a.pdf", [[("title", "Well Keepers Guide"), *BODY], BODY])
    with pikepdf.open(tmp_path / "a.pdf", allow_overwriting_input=True) as pdf:
        pdf.docinfo["/Title"] = '"WellKeepersGuide"'
        pdf.save()
    facts = find_facts(read_document(tmp_path / "a.pdf"))
    assert facts.title.text == "Well Keepers Guide"
    assert facts.disagreements == ()


@pytest.mark.parametrize("line", ["The LID/WHL Team", "Redaktion: Marta Lindqvist"])
def test_teams_and_editors_are_named_whole(facts_of, line):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", line))
    assert texts(facts.authors) == [line.removeprefix("Redaktion: ")]


@pytest.mark.parametrize(
    ("said", "date"),
    [("březen 2021", "2021-03"), ("październik 2019", "2019-10"), ("kwiecień 2020", "2020-04")],
)
def test_months_in_their_plain_form(said, date):
    assert next(iso_of(match) for pattern in DATES if (match := pattern.search(said))) == date


def test_a_person_is_named_and_not_the_body_behind_the_name(facts_of):
    line = "Marta P. Lindqvist, W Consortium"
    facts = facts_of(("title", "Keeping a Village Well"), ("author", line))
    assert texts(facts.authors) == ["Marta P. Lindqvist"]


def test_what_only_names_the_kind_of_book_is_no_title_beside_one(facts_of, monkeypatch):
    monkeypatch.setitem(STYLES, "author", ("Times-Roman", 20))
    found = facts_of(("author", "The wellkeep package"), ("title", "User’s guide"))
    assert found.title.text == "The wellkeep package"


def test_a_line_of_those_who_wrote_it_is_no_subtitle(facts_of):
    found = facts_of(
        ("title", "Keeping Wells"),
        ("author", "Marta Lindqvist, Aino Perälä, and xi wen(Shao Wen)"),
        ("text", "by Marta Lindqvist, Aino Perälä"),
    )
    assert found.subtitle is None


def test_whatever_a_press_publishes_is_no_place(facts_of):
    said = "Authors of any work published by Hallan Press need a form."
    assert facts_of(("title", "Keeping Wells"), ("text", said)).place is None
    said = "Published by Hallan Press."
    assert facts_of(("title", "Keeping Wells"), ("text", said)).place is not None


def test_short_forms_name_nobody(facts_of):
    facts = facts_of(("title", "Keeping a Village Well"), ("author", "SQL APIs"))
    assert facts.authors == ()


@pytest.mark.parametrize("by", ["de", "by"])
def test_by_stands_before_each_name_in_other_languages_too(by):
    line = f"{by} Marta Lindqvist   {by} Aino Perälä"
    assert names_in_line(line) == ["Marta Lindqvist", "Aino Perälä"]


def test_a_title_may_stand_on_a_page_after_that_of_its_authors(tmp_path, monkeypatch):
    monkeypatch.setitem(STYLES, "title", ("Times-Roman", 17))
    monkeypatch.setitem(STYLES, "author", ("Times-Roman", 11))
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("author", "Marta Lindqvist"), ("author", "Aino Perälä"), ("author", "m@wells.example")],
        [], [("title", "Keeping a Village Well")], BODY, BODY,
    ], numbers=False)  # fmt: skip
    facts = find_facts(read_document(path))
    assert facts.title.text == "Keeping a Village Well"
    assert texts(facts.authors) == ["Marta Lindqvist", "Aino Perälä"]


def test_what_the_title_names_is_no_author(facts_of):
    facts = facts_of(("title", "Oak Berkel Vorn"), ("text", "Getting Started with"),
                     ("author", "Berkel Vorn"), ("text", "for Cats"))  # fmt: skip
    assert texts(facts.authors) == []


def test_no_title_is_read_off_a_page_whose_text_is_damaged(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[("title", "zR7&ql ;dqG"), *BODY], BODY])
    document = read_document(tmp_path / "a.pdf")
    assert find_facts(document).title.text == "zR7&ql ;dqG"
    assert find_facts(replace(document, garbled=(0,))).title.locator.page == 1
    assert find_facts(replace(document, garbled=(0, 1))).title is None


@pytest.mark.parametrize(
    ("title", "named", "told"),
    [("The Manual", "Quorble, the manual", "Quorble, the manual"),
     ("The Manual", "Another text", "The Manual"),
     ("Quorble User’s Guide Under Development", "", "Quorble User’s Guide"),
     ("plot3D : Tools to plot 3-D and 2-D data.", "", "plot3D : Tools to plot 3-D and 2-D data.")],
)  # fmt: skip
def test_a_title_has_its_name_and_not_its_state(tmp_path, title, named, told):
    make_pdf(
        tmp_path / "a.pdf",
        [[("title", title), ("text", "Wells are deep, and ropes are long. " * 6)]],
    )
    document = read_document(tmp_path / "a.pdf")
    document = replace(document, facts=replace(document.facts, title=named))
    assert find_facts(document).title.text == told


def test_a_title_goes_on_after_a_name_with_a_colon_and_the_mark_of_a_note(tmp_path):
    page = [("bold", "QUORB-C: 1"), ("text", "A Package to Wind the Ropes"), ("text", "of Wells"),
            ("small", "Wells are deep, and ropes are long. " * 6)]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [page])
    told = find_facts(read_document(tmp_path / "a.pdf")).title.text
    assert told == "QUORB-C: A Package to Wind the Ropes of Wells"


def test_a_row_of_names_is_no_title(tmp_path):
    names = "quoteright backslash quoteleft bar 007C asciitilde exclamdown sterling florin section"
    make_pdf(tmp_path / "a.pdf", [[("text", names), ("text", names)]])
    assert find_facts(read_document(tmp_path / "a.pdf")).title is None


def test_a_title_may_end_in_a_full_stop_where_it_is_the_largest(tmp_path):
    lines = ("A Report on the Ropes of the Deep Wells", "and of Their Drums in the Winters of",
             "Plain-Weave Patterns.")  # fmt: skip
    canvas = Canvas(str(tmp_path / "a.pdf"))
    for k, (text, size) in enumerate([*((line, 20) for line in lines), ("Marta Lindqvist", 12)]):
        canvas.setFont("Times-Bold" if size > 12 else "Times-Roman", size)
        canvas.drawCentredString(297, 700 - 25 * k, text)
    canvas.showPage()
    under = [(line, 11, 700 - 14 * k) for k, line in enumerate(lines * 5)]
    chapter = [("Chapter", 24, 780), ("1", 30, 780), ("Tests of a Single Rope", 24, 750)]
    for text, size, y in (*chapter, *under):
        canvas.setFont("Times-Bold" if size > 12 else "Times-Roman", size)
        canvas.drawString(72 if text != "1" else 300, y, text)
    canvas.save()
    facts = find_facts(read_document(tmp_path / "a.pdf"))
    assert facts.title.text == " ".join(lines)
    assert texts(facts.authors) == ["Marta Lindqvist"]


def test_a_title_is_in_the_letters_of_its_document(tmp_path):
    # Greek letters stand for a script that the text is not written in.
    canvas = Canvas(str(tmp_path / "a.pdf"))
    canvas.setFont("Symbol", 60)
    canvas.drawString(72, 700, "abgdez")
    for text, size, y in (("Rope Fonts of Hallan", 28, 600), ("User Guide", 24, 500)):
        canvas.setFont("Times-Roman", size)
        canvas.drawString(72, y, text)
    canvas.showPage()
    canvas.setFont("Times-Roman", 11)
    for k in range(20):
        canvas.drawString(
            72, 700 - 14 * k, "The well is a hole in the ground that holds the water."
        )
    canvas.save()
    document = read_document(tmp_path / "a.pdf")
    assert document.paragraphs[0].text[0] not in "abg"
    assert find_facts(document).title.text == "Rope Fonts of Hallan"


def test_a_heading_of_the_second_page_is_no_title_where_the_first_has_a_larger_one(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"))
    canvas.setFont("Times-Roman", 17)
    canvas.drawCentredString(297, 700, "ropes FAQ")
    canvas.setFont("Times-Roman", 10)
    for k in range(6):
        canvas.drawString(115, 600 - 13 * k, f"What is rope {k} made of? {'. ' * 30} {k + 2}")
    canvas.showPage()
    for k in range(6):
        canvas.setFont("Times-Bold", 14)
        canvas.drawString(72, 750 - 100 * k, f"What is rope {'abcdef'[k]} made of?")
        canvas.setFont("Times-Roman", 10)
        canvas.drawString(72, 730 - 100 * k, "It is made of hemp, and it is changed every summer.")
    canvas.save()
    assert find_facts(read_document(tmp_path / "a.pdf")).title.text == "ropes FAQ"


def test_a_title_of_contents_that_has_none_hides_no_author(facts_of):
    facts = facts_of(
        ("title", "Keeping Wells"), ("h1", "Contents"), ("h1", "1 Copyright"),
        ("text", "Authors:"), ("text", "Marta Lindqvist <marta@wells.example>"),
        ("text", "This text may be copied by everybody who keeps a well."),
    )  # fmt: skip
    assert texts(facts.authors) == ["Marta Lindqvist"]


@pytest.mark.parametrize(
    ("first", "title"),
    [
        ("Previous The Harbour Handbook Next", "Keeping Wells"),
        ("Zurück Handbuch des Hafens Weiter", "Keeping Wells"),
        ("1999-2021, the Harbour Office", "Keeping Wells"),
        ("Authors:", "Keeping Wells"),
        ("<-previous Chapter 3 - Ropes next->", "Keeping Wells"),
        ("<-previous Chapter 3 - Ropes", "Chapter 3 - Ropes"),
        ("The Previous and the Next Rope of Wells", "The Previous and the Next Rope of Wells"),
    ],
)
def test_links_years_and_labels_are_no_titles(facts_of, first, title):
    facts = facts_of(("title", first), ("h1", "Keeping Wells"), ("text", "Wells are kept by hand."))
    assert facts.title.text == title


@pytest.mark.parametrize("file_title", ["Lids - Harbour Office", "Lids | Harbour Office", ""])
def test_what_a_page_is_goes_before_where_it_belongs(tmp_path, file_title):
    path = tmp_path / "a.pdf"
    canvas = Canvas(str(path), invariant=1)
    canvas.setTitle(file_title)
    for y, size, text in ((760, 20, "Harbour Office"), (700, 17, "Lids"), (650, 11, "Of oak.")):
        canvas.setFont("Times-Bold" if size > 11 else "Times-Roman", size)
        canvas.drawString(72, y, text)
    canvas.save()
    told = find_facts(read_document(path)).title.text
    assert told == ("Lids" if file_title else "Harbour Office")
