"""Lists of questions, kept for a kind of document."""

import pytest

from wide_margin.core.digest import DocumentKind
from wide_margin.core.digest.field_sets import FieldSets
from wide_margin.core.errors import WideMarginError


def test_a_list_is_kept_for_its_kind_only(tmp_path):
    kept = FieldSets(tmp_path / "fields")
    kept.keep(DocumentKind.REPORT, "# yearly\nWho signed it?\n\nWhat did it cost?\n")
    assert kept.questions_of(DocumentKind.REPORT) == ("Who signed it?", "What did it cost?")
    assert kept.questions_of(DocumentKind.MANUAL) == ()
    assert kept.text_of(DocumentKind.REPORT).startswith("# yearly")


def test_an_empty_list_is_dropped(tmp_path):
    kept = FieldSets(tmp_path)
    kept.keep(DocumentKind.FORM, "Who?")
    kept.keep(DocumentKind.FORM, "  \n")
    assert kept.text_of(DocumentKind.FORM) == ""
    assert list(tmp_path.iterdir()) == []


def test_a_folder_that_cannot_be_written_is_told(tmp_path):
    blocked = tmp_path / "file"
    blocked.write_text("in the way")
    with pytest.raises(WideMarginError, match="could not be kept"):
        FieldSets(blocked / "fields").keep(DocumentKind.FORM, "Who?")


def test_a_list_that_is_no_text_counts_as_none(tmp_path):
    (tmp_path / "form.txt").write_bytes(b"\xff\xfe\x00")
    assert FieldSets(tmp_path).questions_of(DocumentKind.FORM) == ()
