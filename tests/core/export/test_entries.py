"""Entries taken away and brought back, in every form; a copy of the PDF with annotations."""

import csv
import io
import json
import shutil
import subprocess
from xml.etree import ElementTree

import pikepdf
import pytest
from docx import Document

from tests.making import make_pdf, page_texts, read_document
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.annotated import Placed, write_annotated
from wide_margin.core.export.annotations import as_annotations, read_annotations
from wide_margin.core.export.annotations_in_file import annotations_in_file, iso_date
from wide_margin.core.export.citations import Source
from wide_margin.core.export.entries import EntriesFormat, export_entries, table_as
from wide_margin.core.layout import PageLabels, SpanOnPage, boxes_of
from wide_margin.core.margin import (
    Anchor,
    CuttingBody,
    EntryKind,
    Ink,
    MarkBody,
    MarkForm,
    NoteBody,
    Scope,
    new_entry,
)
from wide_margin.core.margin.gathering import GroupBy, Wanted, count, gather, matching

SAID = "The keeper of the mill writes every height down in the red book of the station."
OTHER = "Nobody else may write in it, and nothing in it is ever struck out by anybody."
LABELS = PageLabels(("1", "2"))


@pytest.fixture(scope="module")
def pdf(tmp_path_factory):
    path = tmp_path_factory.mktemp("kept") / "two.pdf"
    make_pdf(path, [[("text", SAID), ("text", OTHER)], [("text", OTHER), ("text", SAID)]])
    return path


@pytest.fixture(scope="module")
def document(pdf):
    return read_document(pdf)


def mark(words: str, page: int, texts, *, ink=Ink.CLAIM, comment="", tags=()):
    chars = texts[page].chars
    first = chars.index(words.split()[0])
    while not " ".join(chars[first:].split()).startswith(words):
        first = chars.index(words.split()[0], first + 1)
    end = first
    while " ".join(chars[first:end].split()) != words:
        end += 1
    anchor = Anchor(page, -1.0, (SpanOnPage(page, first, end),), words)
    return new_entry(EntryKind.MARK, anchor, MarkBody(comment, ink=ink)).with_tags(tags)


@pytest.fixture(scope="module")
def entries(pdf):
    texts = page_texts(pdf)
    note = new_entry(EntryKind.NOTE, Anchor(1, 50.0), NoteBody("ask <b>Oss</b> & =SUM(A1)"))
    return [
        mark("writes every height down", 0, texts, comment="=HYPERLINK(1)", tags=["for later"]),
        mark("nothing in it is ever struck out", 1, texts, ink=Ink.DOUBT,
             tags=["for later", "Oss"]),
        note.with_tags(["bell\x07 \u202eturned"]),
    ]  # fmt: skip


def section_of(entry):
    return ("1 Books", "1.1 Red") if entry.anchor.page == 0 else ()


def test_what_is_wanted_must_all_hold(entries):
    assert matching(entries, Wanted(kinds=frozenset([EntryKind.NOTE]))) == [entries[2]]
    assert matching(entries, Wanted(inks=frozenset([Ink.DOUBT]))) == [entries[1]]
    assert matching(entries, Wanted(tags=frozenset(["for later", "Oss"]))) == [entries[1]]
    assert matching(entries, Wanted(words="STRUCK ever")) == [entries[1]]
    assert matching(entries, Wanted(words="truck")) == []
    assert matching(entries, Wanted(words="heigh", inks=frozenset([Ink.DOUBT]))) == []


@pytest.mark.parametrize(
    ("by", "names"),
    [(GroupBy.SECTION, ["1 Books / 1.1 Red", "No place"]), (GroupBy.KIND, ["Marks", "Notes"]),
     (GroupBy.INK, ["claim", "doubt", "(no ink)"])],
)  # fmt: skip
def test_entries_stand_in_groups(entries, by, names):
    groups = gather(entries, Wanted(), by, section_of)
    assert [group.name for group in groups] == names
    assert sum(len(group.entries) for group in groups) == 3


def test_an_entry_with_two_tags_stands_under_both(entries):
    groups = {g.name: g for g in gather(entries, Wanted(words="struck"), GroupBy.TAG, section_of)}
    assert set(groups) == {"for later", "Oss"}
    assert (len(groups["for later"].entries), groups["for later"].n_all) == (1, 2)


def test_counts_are_of_all(entries):
    counts = count(entries)
    assert (counts.n_all, counts.kinds[EntryKind.MARK], counts.inks[Ink.DOUBT]) == (3, 2, 1)
    assert counts.tags["for later"] == 2


def exported(entries, document, form) -> bytes:
    groups = gather(entries, Wanted(), GroupBy.SECTION, section_of)
    return export_entries(groups, document.labels, section_of, form, title="<script>x</script>")


def test_html_is_escaped(entries, document):
    text = exported(entries, document, EntriesFormat.HTML).decode()
    assert "<script>x" not in text
    assert "ask &lt;b&gt;Oss&lt;/b&gt; &amp; =SUM(A1)" in text
    assert "\x07" not in text
    ElementTree.fromstring(text.split("\n", 1)[1].replace('<meta charset="utf-8">', ""))


def test_csv_computes_nothing(entries, document):
    rows = list(
        csv.DictReader(
            io.StringIO(exported(entries, document, EntriesFormat.CSV).decode("utf-8-sig"))
        )
    )
    assert len(rows) == 3
    assert rows[0]["words"] == "'=HYPERLINK(1)"
    assert rows[0]["section"] == "1 Books / 1.1 Red"
    assert all(not value.startswith(("=", "+", "@")) for row in rows for value in row.values())


def test_markdown_json_and_word_hold_every_entry(entries, document):
    markdown = exported(entries, document, EntriesFormat.MARKDOWN).decode()
    assert "\\<script\\>" in markdown
    assert "> writes every height down" in markdown
    values = json.loads(exported(entries, document, EntriesFormat.JSON))
    assert [e["id"] for e in values["entries"]] == [e.id for e in entries]
    word = Document(io.BytesIO(exported(entries, document, EntriesFormat.WORD)))
    assert any("writes every height down" in p.text for p in word.paragraphs)


def test_web_annotations_come_home_to_their_places(entries, document):
    text = as_annotations(entries, "urn:x", document.paragraphs)
    values = json.loads(text)
    assert values["@context"] == "http://www.w3.org/ns/anno.jsonld"
    first = values["first"]["items"][0]
    selector = first["target"]["selector"][1]
    assert selector["exact"] == "writes every height down"
    assert selector["prefix"].endswith("of the mill ")
    back, lost = read_annotations(text, document.paragraphs)
    assert lost == []
    assert [e.anchor.page for e in back] == [0, 1, 1]
    assert [e.tags for e in back[:2]] == [("for later",), ("for later", "Oss")]
    assert back[1].body.ink is Ink.DOUBT
    assert back[0].body.text == "=HYPERLINK(1)"


def test_an_annotation_gives_the_same_entry_each_time_and_another_in_each_document(
    entries, document
):
    text = as_annotations(entries, "urn:x", document.paragraphs)
    known = {entry.id for entry in entries}

    def ids(*record_and_known):
        return [e.id for e in read_annotations(text, document.paragraphs, *record_and_known)[0]]

    assert set(ids(1, known)) == known
    assert ids(1) == ids(1)
    assert not set(ids(1)) & (known | set(ids(2)))


@pytest.mark.parametrize("form", list(MarkForm))
def test_a_mark_comes_home_in_its_form(entries, document, form):
    mark = next(entry for entry in entries if isinstance(entry.body, MarkBody))
    text = as_annotations([mark.with_body(form=form)], "urn:x", document.paragraphs)
    [back], _ = read_annotations(text, document.paragraphs)
    assert (back.body.form, back.body.ink) == (form, mark.body.ink)
    assert back.tags == mark.tags


def test_the_same_annotation_twice_in_a_file_is_one_entry(entries, document):
    items = json.loads(as_annotations(entries[:1], "urn:x", document.paragraphs))["first"]["items"]
    for item in (
        items[0],
        {**items[0], "id": 17},
        {k: v for k, v in items[0].items() if k != "id"},
    ):
        back, lost = read_annotations(json.dumps([item, item]), document.paragraphs)
        assert (len(back), lost) == (1, [])


def test_annotations_without_a_place_are_listed(entries, document):
    text = as_annotations(entries, "urn:x").replace("writes every height down", "flew to the moon")
    back, lost = read_annotations(text, document.paragraphs)
    assert lost == ["flew to the moon"]
    assert len(back) == 2


@pytest.mark.parametrize("text", ["", "{", "[]", "{}", '{"type": "Note"}', "[" * 2000])
def test_what_is_no_annotation_is_a_sentence(text, document):
    with pytest.raises(WideMarginError, match="Annotation"):
        read_annotations(text, document.paragraphs)


def boxed(entries, path):
    texts = page_texts(path)
    return [
        Placed(
            e, tuple((s.page, box) for s in e.anchor.spans for box in boxes_of(texts[s.page], [s]))
        )
        for e in entries
    ]


@pytest.mark.parametrize("turns", [0, 90, 180, 270])
def test_an_annotated_copy_covers_the_words_however_the_page_is_turned(
    entries, pdf, tmp_path, turns
):
    source = tmp_path / "turned.pdf"
    with pikepdf.open(pdf) as opened:
        for page in opened.pages:
            page.rotate(turns, relative=False)
            page.cropbox = [20, 30, 560, 800]
        opened.save(source)
    own = mark("writes every height down", 0, page_texts(source), comment="=HYPERLINK(1)")
    entries = [own, *entries[1:]]
    placed = boxed(entries, source)
    before = source.read_bytes()
    copy = tmp_path / "copy.pdf"
    assert write_annotated(source, copy, placed, author="a reader") == 3
    assert source.read_bytes() == before
    found = {one.entry_id: one for one in annotations_in_file(copy)}
    assert set(found) == {e.id for e in entries}
    back = found[entries[0].id]
    assert (back.page, back.kind, back.text) == (0, "highlight", "=HYPERLINK(1)")
    assert back.author == "a reader"
    assert back.boxes[0] == pytest.approx(placed[0].boxes[0][1], abs=0.02)
    with pikepdf.open(copy) as opened, pikepdf.open(pdf) as plain:
        marked = opened.pages[0].obj["/Annots"][0]
        assert str(marked["/Subtype"]) == "/Highlight"
        assert str(marked["/T"]) == "a reader"
        quads = [float(v) for v in marked["/QuadPoints"]]
        assert len(plain.pages) == 2
    straight = mark("writes every height down", 0, page_texts(pdf))
    unturned = boxed([straight], pdf)[0].boxes[0][1]
    xs, ys = quads[0::2], quads[1::2]
    assert min(xs) == pytest.approx(unturned[0], abs=1.5)
    assert max(xs) == pytest.approx(unturned[2], abs=1.5)
    assert max(ys) == pytest.approx(841.89 - unturned[1], abs=1.5)


def test_a_copy_never_replaces_the_file(entries, pdf):
    with pytest.raises(WideMarginError, match="replace"):
        write_annotated(pdf, pdf, boxed(entries, pdf))


@pytest.mark.skipif(not shutil.which("qpdf"), reason="qpdf is not installed")
def test_the_copy_is_sound(entries, pdf, tmp_path):
    copy = tmp_path / "copy.pdf"
    write_annotated(pdf, copy, boxed(entries, pdf))
    assert subprocess.run(["qpdf", "--check", str(copy)], check=False).returncode == 0


@pytest.mark.parametrize(
    ("form", "subtype"),
    [(MarkForm.UNDERLINE, "/Underline"), (MarkForm.STRIKE, "/StrikeOut")],
)
def test_other_forms_of_a_mark_are_written_and_read_as_such(entries, pdf, tmp_path, form, subtype):
    copy = tmp_path / "copy.pdf"
    own = entries[0].with_body(form=form)
    write_annotated(pdf, copy, boxed([own], pdf))
    with pikepdf.open(copy) as opened:
        made = opened.pages[0].obj["/Annots"][0]
        assert str(made["/Subtype"]) == subtype
        x0, y0, x1, y1 = (float(v) for v in made["/Rect"])
        assert x1 - x0 > 20
        assert 5 < y1 - y0 < 30
        assert b" S" in made["/AP"]["/N"].read_bytes()
    assert [one.kind for one in annotations_in_file(copy)] == [str(form)]


def test_annotations_that_are_no_readers_or_damaged_are_passed_over(pdf, tmp_path):
    source = tmp_path / "others.pdf"
    with pikepdf.open(pdf) as opened:
        made = [
            "<< /Type /Annot /Subtype /Link /Rect [1 1 9 9] >>",
            "<< /Type /Annot /Subtype /Highlight /Rect [1 1 9] /QuadPoints [1 2 3] >>",
            "<< /Type /Annot /Subtype /Text /Rect (no) /Contents (x) >>",
            "<< /Type /Annot /Subtype /Text /Rect [90 700 108 718] /Contents (Is this so?\007)"
            " /T (A reader) /M (D:20240229120000+02'00') >>",
            "7",
        ]
        page = opened.pages[0]
        page.obj["/Annots"] = pikepdf.Array([pikepdf.Object.parse(text.encode()) for text in made])
        opened.save(source)
    (found,) = annotations_in_file(source)
    assert (found.kind, found.author, found.date) == (
        "note",
        "A reader",
        "2024-02-29T10:00:00+00:00",
    )
    assert found.text == "Is this so?"
    assert found.entry_id == ""
    x0, y0, x1, y1 = found.boxes[0]
    assert (x1 - x0, y1 - y0) == (18, 18)
    assert 100 < y0 < 200


@pytest.mark.parametrize(
    ("written", "meant"),
    [("D:20240229", "2024-02-29T00:00:00+00:00"), ("D:2024", "2024-01-01T00:00:00+00:00"),
     ("D:20241301", ""), ("yesterday", ""), ("", "")],
)  # fmt: skip
def test_dates_of_annotations(written, meant):
    assert iso_date(written) == meant


def test_a_table_that_was_cut_out_is_taken_away_as_rows():
    rows = (("Station", "Height"), ("Näs", "-3.2"), ("=cmd()", "<b>"))
    body = CuttingBody(box=(0, 0, 9, 9), rows=rows)
    entry = new_entry(EntryKind.CUTTING, Anchor(0, 5.0, (), "Station"), body)
    groups = gather([entry], Wanted(), GroupBy.KIND, lambda e: ())
    assert table_as(rows) == "Station,Height\nNäs,-3.2\n'=cmd(),<b>\n"
    assert table_as(rows, separator="\t").splitlines()[1] == "Näs\t-3.2"

    def taken(form):
        return export_entries(groups, LABELS, lambda e: (), form, title="T")

    assert (
        "  | Station | Height |\n  | - | - |\n  | Näs |" in taken(EntriesFormat.MARKDOWN).decode()
    )
    assert "<td>&lt;b&gt;</td>" in taken(EntriesFormat.HTML).decode()
    document = Document(io.BytesIO(taken(EntriesFormat.WORD)))
    assert [cell.text for cell in document.tables[0].rows[1].cells] == ["Näs", "-3.2"]


@pytest.mark.parametrize("form", [EntriesFormat.BIBTEX, EntriesFormat.RIS, EntriesFormat.CSL])
def test_entries_as_citations_begin_with_the_document_itself(entries, form):
    groups = gather(entries, Wanted(), GroupBy.KIND, lambda e: ())
    source = Source("On Tides", "A. Writer; B. Other", "1999", "The Tide Press", "2nd edition")
    text = export_entries(groups, LABELS, lambda e: (), form, title="T", source=source).decode()
    n_cited = 1 + sum(bool(e.anchor.quote) for e in entries)
    if form is EntriesFormat.BIBTEX:
        assert text.count("@misc{") == n_cited
        assert (
            "@misc{awriter1999,\n  title = {On Tides},\n  author = {A. Writer and B. Other}" in text
        )
        assert "@misc{awriter1999-1," in text
    elif form is EntriesFormat.RIS:
        assert text.count("TY  - GEN") == text.count("ER  - ") == n_cited
        assert "AU  - A. Writer\r\nAU  - B. Other\r\nPY  - 1999\r\nPB  - The Tide Press" in text
    else:
        whole, *parts = json.loads(text)
        assert whole["author"] == [{"literal": "A. Writer"}, {"literal": "B. Other"}]
        assert "locator" not in whole
        assert [part["id"] for part in parts] == [f"awriter1999-{k}" for k in range(1, n_cited)]
        assert all(part["label"] == "page" for part in parts)


def test_a_note_that_has_no_place_says_so_in_every_form():
    loose = new_entry(EntryKind.NOTE, Anchor(0, 0.0, scope=Scope.LOOSE), NoteBody("Ask Näs."))
    whole = new_entry(EntryKind.NOTE, Anchor(0, 0.0, scope=Scope.DOCUMENT), NoteBody("Old."))
    groups = gather([loose, whole], Wanted(), GroupBy.SECTION, lambda e: ("1 Tides",))
    assert [group.name for group in groups] == ["The whole document", "No place"]
    text = export_entries(groups, LABELS, lambda e: (), EntriesFormat.MARKDOWN, title="T").decode()
    assert "- no place yet · note\n  Ask Näs" in text
    assert "- whole document · note\n  Old" in text


def test_inks_go_by_the_names_the_reader_gave(entries):
    named = {Ink.CLAIM: "Thesis"}
    groups = gather(
        entries, Wanted(), GroupBy.INK, lambda e: (), lambda ink: named.get(ink, str(ink))
    )
    assert groups[0].name == "Thesis"
    data = export_entries(
        groups, LABELS, lambda e: (), EntriesFormat.CSV, title="T", ink_name=lambda ink: "Thesis"
    )  # fmt: skip
    assert "Thesis" in data.decode("utf-8-sig")
