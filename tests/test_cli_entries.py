"""Taking entries away, bringing annotations in and annotated copies, from the command line."""

import json
from pathlib import Path

import pikepdf
import pytest

from tests.commanding import run
from tests.making import make_pdf, page_texts
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.saving import save_whole
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import (
    Anchor,
    EntryKind,
    Ink,
    MarkBody,
    NoteBody,
    Store,
    default_store_path,
    new_entry,
)
from wide_margin.core.pages.document import PdfFile

ROPES = [("h1", "1 Ropes"), ("text", "The rope of the bell is changed every April by the keeper.")]
CHAINS = [("h1", "2 Chains"), ("text", "The chain is oiled in May and never in June.")]
MARKED = "changed every April"


def marked(path: Path, page: int, words: str, **body):
    text = page_texts(path)[page].chars
    start = "".join(text).index(words)
    anchor = Anchor(page, 80.0, (SpanOnPage(page, start, start + len(words)),), words)
    return new_entry(EntryKind.MARK, anchor, MarkBody(**body))


def sha_and_identity(path: Path):
    from wide_margin.core.session import Session

    with Session(path) as session:
        facts = session.open().result()
        return session.fingerprint().result(), facts.identity


@pytest.fixture
def kept(own_folders, tmp_path):
    """A document with a mark and a note in the reader's own store."""
    path = tmp_path / "tower.pdf"
    make_pdf(path, [ROPES, CHAINS])
    sha256, identity = sha_and_identity(path)
    note = new_entry(EntryKind.NOTE, Anchor(1, 200.0), NoteBody("ask the steward"))
    store = Store(default_store_path())
    record = store.record_for(sha256, path, identity, "Tower")
    store.put(record.id, marked(path, 0, MARKED, ink=Ink.DOUBT).with_tags(["for May"]), note)
    store.close()
    return path


def entries_of(path: Path):
    return json.loads(run("entries", str(path), "--format", "json").stdout)["entries"]


def test_entries_are_taken_away_by_section_and_filtered(kept):
    told = run("entries", str(kept))
    assert told.returncode == 0
    assert told.stdout.index("1 Ropes") < told.stdout.index(MARKED)
    assert told.stdout.index("2 Chains") < told.stdout.index("ask the steward")
    only = run("entries", str(kept), "--tag", "for May", "--words", "april").stdout
    assert MARKED in only
    assert "steward" not in only


def test_annotations_go_out_and_come_back_to_their_places(kept, tmp_path):
    out = tmp_path / "out.jsonld"
    assert run("entries", str(kept), "--format", "jsonld", "-o", str(out)).returncode == 0
    before = len(entries_of(kept))
    told = run("entries", str(kept), "--import", str(out))
    assert f"0 entries brought in\n{before} were entries already" in told.stderr
    assert len(entries_of(kept)) == before
    out.write_text(out.read_text().replace("urn:uuid:", "urn:example:"))  # of another program
    for n_new in (before, 0):
        assert run("entries", str(kept), "--import", str(out)).stderr.startswith(f"{n_new} entr")
    after = entries_of(kept)
    assert len(after) == 2 * before
    assert sum(MARKED in json.dumps(entry) for entry in after) == 2


def test_an_annotated_copy_has_the_marks_and_leaves_the_file(kept, tmp_path):
    before, copy = kept.read_bytes(), tmp_path / "copy.pdf"
    told = run("annotate", str(kept), "-o", str(copy), "--author", "Me")
    assert "2 annotations" in told.stderr
    with pikepdf.open(copy) as pdf:
        [highlight] = pdf.pages[0].obj["/Annots"]
        assert (str(highlight["/Subtype"]), str(highlight["/T"])) == ("/Highlight", "Me")
    assert kept.read_bytes() == before


def test_marks_of_an_earlier_version_lie_on_their_words(kept, tmp_path):
    make_pdf(kept, [[("text", "A page that was put in front.")], ROPES, CHAINS])
    copy = tmp_path / "copy.pdf"
    assert run("annotate", str(kept), "-o", str(copy), "--marks-only").returncode == 0
    with pikepdf.open(copy) as pdf:
        assert "/Annots" not in pdf.pages[0].obj
        assert "/Highlight" in [str(a["/Subtype"]) for a in pdf.pages[1].obj["/Annots"]]


def test_looking_at_entries_keeps_what_is_known_of_the_document(kept):
    run("entries", str(kept))
    pdf = PdfFile(kept)
    identity = pdf.facts().identity
    pdf.close()
    store = Store(default_store_path())
    [row] = store._connection.execute("SELECT identity FROM document").fetchall()
    store.close()
    assert row == (identity,)


@pytest.mark.parametrize(
    ("options", "said"),
    [(["--format", "docx"], "-o"), (["--import", "nowhere.jsonld"], "cannot be read"),
     (["-o", "no/such/folder/out.md"], "cannot be written")],
)  # fmt: skip
def test_what_cannot_be_done_is_a_sentence_with_what_to_do(kept, options, said):
    ended = run("entries", str(kept), *options)
    assert ended.returncode == 1
    assert said in ended.stderr
    assert "Traceback" not in ended.stderr


def test_a_file_is_saved_whole_or_left_as_it_was(tmp_path, monkeypatch):
    path = tmp_path / "out.md"
    save_whole(path, b"first")
    monkeypatch.setattr(Path, "replace", lambda *_: (_ for _ in ()).throw(OSError("full")))
    with pytest.raises(WideMarginError, match="cannot be written"):
        save_whole(path, b"second")
    assert path.read_bytes() == b"first"
    assert list(tmp_path.iterdir()) == [path]
