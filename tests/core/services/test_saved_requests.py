import pytest

from wide_margin.core.errors import WideMarginError
from wide_margin.core.services.saved_requests import (
    SavedRequest,
    Whereof,
    load_requests,
    named_request,
    read_requests,
    requests_as_text,
    tidied,
)

TWO = (
    SavedRequest(
        "Withdrawn", 'What is "withdrawn" by this edition?', Whereof.SECTION, True, "manual"
    ),
    SavedRequest("Who", "Who wrote it?\\n"),
)


def test_what_is_written_is_read_again():
    assert read_requests(requests_as_text(TWO)) == TWO


def test_a_file_written_by_hand_needs_only_a_name_and_what_is_asked():
    text = '# mine\n[[request]]\nname = "Who"\nask = "Who wrote it?"\nunknown = 7\n'
    assert read_requests(text) == (SavedRequest("Who", "Who wrote it?"),)


@pytest.mark.parametrize(
    "text", ["[[request]]\nname = 3\nask = 'x'", "request = 7", "\x00", "[[[[",
             "[[request]]\nname='a'\nask='b'\nof='the moon'"],
)  # fmt: skip
def test_another_file_is_told_with_what_to_do(text):
    with pytest.raises(WideMarginError, match="no saved requests") as caught:
        read_requests(text)
    assert caught.value.hint


def test_names_are_told_apart_without_case_and_the_last_one_counts():
    twice = (
        *TWO,
        SavedRequest("WITHDRAWN ", "Another?"),
        SavedRequest("", "x"),
        SavedRequest("y", ""),
    )
    assert [r.ask for r in tidied(twice)] == ["Another?", TWO[1].ask]
    assert named_request(TWO, "  wiTHdrawn") is TWO[0]
    assert named_request(TWO, "withdraw") is None


def test_signs_that_turn_text_around_or_break_lines_are_taken_out():
    (kept,) = tidied([SavedRequest("a\u202eb\nc", "x" * 5000)])
    assert "\u202e" not in kept.name
    assert "\n" not in kept.name
    assert len(kept.ask) <= 1000


def test_without_a_file_there_are_none(tmp_path):
    assert load_requests(tmp_path / "none.toml") == ()
    (tmp_path / "bad.toml").write_bytes(b"\xff\xfe")
    with pytest.raises(WideMarginError, match="cannot be read"):
        load_requests(tmp_path / "bad.toml")
