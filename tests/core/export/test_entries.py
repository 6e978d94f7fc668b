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
from wide_margin.core.export.annotated import Placed, names_in, write_annotated
from wide_margin.core.export.annotations import as_annotations, read_annotations
from wide_margin.core.export.entries import EntriesFormat, export_entries
from wide_margin.core.layout import SpanOnPage, boxes_of
from wide_margin.core.margin import Anchor, EntryKind, Ink, MarkBody, NoteBody, new_entry
from wide_margin.core.margin.gathering import GroupBy, Wanted, count, gather, matching

SAID = "The keeper of the mill writes every height down in the red book of the station."
OTHER = "Nobody else may write in it, and nothing in it is ever struck out by anybody."


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
    found = names_in(copy)
    assert set(found) == {e.id for e in entries}
    assert found[entries[0].id] == [(0, "=HYPERLINK(1)")]
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
