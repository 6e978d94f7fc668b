import json

import pytest

from wide_margin.core.errors import WideMarginError
from wide_margin.core.export import export_outline, read_outline
from wide_margin.core.outline.editing import OutlineEditor


@pytest.mark.parametrize("form", ["opml", "json"])
def test_what_is_saved_is_read_back(handbook, tmp_path, form):
    path = tmp_path / f"outline.{form}"
    path.write_text(export_outline(handbook.outline, handbook.labels, form, "Handbook"), "utf-8")
    rows = read_outline(path)
    assert [(r["title"], r["level"], r["page"]) for r in rows] == [
        (s.title, s.level, s.page) for s in handbook.outline.sections
    ]
    assert all(abs(r["y"] - s.y) < 0.06
               for r, s in zip(rows, handbook.outline.sections, strict=True))  # fmt: skip
    heights = handbook.facts.heights
    made = OutlineEditor(heights).from_rows(handbook.outline, rows)
    assert [s.readings for s in made.sections] == [s.readings for s in handbook.outline.sections]


def test_opml_of_others_may_leave_pages_out(tmp_path):
    path = tmp_path / "a.opml"
    inner = '<outline text="A"><outline text="B" page="4"/></outline>'
    path.write_text(f'<opml version="2.0"><head/><body>{inner}</body></opml>', "utf-8")
    assert read_outline(path) == [
        {"title": "A", "level": 0, "page": None, "y": None},
        {"title": "B", "level": 1, "page": 3, "y": None},
    ]


def test_entities_of_opml_are_not_followed(tmp_path):
    secret = tmp_path / "secret.txt"
    secret.write_text("the password", "utf-8")
    path = tmp_path / "a.opml"
    path.write_text(
        f'<!DOCTYPE opml [<!ENTITY x SYSTEM "{secret.as_uri()}">]><opml><body>'
        '<outline text="A &x;"/><outline text="B"/></body></opml>', "utf-8",
    )  # fmt: skip
    try:
        titles = [row["title"] for row in read_outline(path)]
    except WideMarginError:
        titles = []
    assert not any("password" in title for title in titles)


@pytest.mark.parametrize(
    "text",
    ["", "no outline", "[]", "{}", '[{"level": 0}]', "<opml></opml>", "<opml><body/></opml>",
     '[{"title": "A", "level": "deep"}]', json.dumps([{"title": "  ", "level": 0}])],
)  # fmt: skip
def test_what_is_no_outline_is_told_in_a_sentence(tmp_path, text):
    path = tmp_path / "a.json"
    path.write_text(text, "utf-8")
    with pytest.raises(WideMarginError, match=r"a\.json"):
        read_outline(path)


def test_a_missing_file_is_told(tmp_path):
    with pytest.raises(WideMarginError, match="cannot be read"):
        read_outline(tmp_path / "none.opml")
