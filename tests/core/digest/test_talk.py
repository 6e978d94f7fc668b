"""A talk: sheets for the chief sections, points with their pages, all within their sheets."""

import io

import pytest
from pptx import Presentation
from pptx.util import Emu

from wide_margin.core.answers import WHOLE, named_reach
from wide_margin.core.digest import Digester
from wide_margin.core.digest.talk import (
    POINT_WORDS,
    POINTS,
    Point,
    Sheet,
    Talk,
    cut_short,
    make_talk,
)
from wide_margin.core.export.looks import LOOKS
from wide_margin.core.export.slides import fitting_size, height_of
from wide_margin.core.export.talk import TalkFormat, talk_as


@pytest.fixture(scope="module")
def digester(handbook):
    return Digester(handbook)


@pytest.fixture(scope="module")
def talk(handbook, digester):
    return make_talk(handbook, digester, WHOLE, 15)


def test_every_point_is_cut_from_its_section_and_short(handbook, talk):
    assert 3 <= len(talk.sheets) <= 8
    text = " ".join(s.text for s in handbook.text.sentences)
    for sheet in talk.sheets[1:]:
        assert 1 <= len(sheet.points) <= POINTS
        for point in sheet.points:
            assert sheet.title in point.locator.path
            assert len(point.text.split()) <= POINT_WORDS + 1
            words = point.text.rstrip(" …").split(" … ")[0].split(" …")[0]
            assert words[1:40] in text
        assert sheet.notes


def test_it_begins_with_what_the_document_is_and_says_nothing_twice(handbook, talk):
    opening = talk.sheets[0]
    assert opening.title == "What it is"
    assert "This handbook is for the people who keep the tide gauges" in opening.points[0].text
    points = [point.text for sheet in (*talk.sheets, talk.ending) for point in sheet.points]
    assert len(set(points)) == len(points)


def test_points_of_a_part_come_from_its_chapters(talk):
    chapters = [{point.locator.path[1] for point in sheet.points} for sheet in talk.sheets[1:]]
    assert all(len(own) > 1 for own in chapters)


def test_sheets_come_in_reading_order(handbook, talk):
    rows = [next(k for k, s in enumerate(handbook.outline.sections) if s.title == title)
            for title in talk.course[1:]]  # fmt: skip
    assert rows == sorted(rows)


def test_a_longer_talk_has_more_sheets(handbook, digester, talk):
    assert len(make_talk(handbook, digester, WHOLE, 40).sheets) > len(talk.sheets)
    assert len(make_talk(handbook, digester, WHOLE, 3).sheets) == 3


def test_a_section_has_a_talk_of_its_own(handbook, digester):
    reach = named_reach(handbook, "Part III Levelling")
    made = make_talk(handbook, digester, reach, 10)
    assert made.title == "Part III Levelling"
    for sheet in made.sheets:
        assert "Part III Levelling" in sheet.points[0].locator.path


def test_a_figure_stands_on_the_sheet_of_its_section(talk):
    with_figure = [sheet for sheet in talk.sheets if sheet.figure is not None]
    assert with_figure
    for sheet in with_figure:
        pages = [point.locator.page for point in sheet.points]
        assert min(pages) - 12 <= sheet.figure.page <= max(pages) + 12


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("It rains.", "It rains."),
        ("If three successive lines fail, the primary mark is presumed to have moved and the zero"
         " of the gauge is held in suspense.", "The primary mark is presumed to have moved and the"
         " zero of the gauge is held in suspense …"),
        ("one " * 30, ("one " * POINT_WORDS) + "…"),
    ],
)  # fmt: skip
def test_long_sentences_are_cut_to_their_main_statement(text, said):
    assert cut_short(text.strip()) == said


# --- taken away


HOSTILE = Talk(
    "<b>T</b> & # co", "A\u202eB", 10,
    [Sheet("*One*", [Point("a <script>x</script> _b_"), Point("long " * 60)], ["say <i>it</i>"])],
)  # fmt: skip


def test_in_markdown_and_html_a_text_is_a_text():
    text = talk_as(TalkFormat.MARKDOWN, HOSTILE).decode()
    assert r"\<b\>T\</b\> & \# co" in text
    assert r"## \*One\*" in text
    html = talk_as(TalkFormat.HTML, HOSTILE).decode()
    assert "<script>" not in html
    assert "&lt;b&gt;T&lt;/b&gt;" in html
    assert "\u202e" not in html + text


@pytest.mark.parametrize("look", list(LOOKS))
@pytest.mark.parametrize("night", [False, True])
def test_a_presentation_is_read_by_its_library_and_nothing_leaves_its_sheet(talk, look, night):
    data = talk_as(TalkFormat.PPTX, talk, look=look, night=night)
    made = Presentation(io.BytesIO(data))
    assert len(made.slides) == len(talk.sheets) + 2
    for slide, sheet in zip(list(made.slides)[1:], [*talk.sheets, talk.ending], strict=True):
        said = [shape.text_frame.text for shape in slide.shapes if shape.has_text_frame]
        assert sheet.title in said
        assert any(all(point.text in text for point in sheet.points) for text in said)
        assert sheet.notes[0] in slide.notes_slide.notes_text_frame.text
        for shape in slide.shapes:
            assert shape.left >= 0
            assert shape.left + shape.width <= made.slide_width
            assert shape.top + shape.height <= made.slide_height
    assert talk.sheets[0].points[0].shown.endswith(")")


@pytest.mark.parametrize("n", [1, 4, 9, 20])
def test_points_fit_their_frame_by_measure(n):
    points = ["a word and another one of some length " * 3] * n
    width, height = 8_000_000, 4_500_000
    size = fitting_size(points, width, height)
    assert height_of(points, width, size) <= height or size == 14
    assert fitting_size(points[:1], width, height) >= size


def test_pictures_stand_within_their_sheet(talk):
    from PIL import Image

    out = io.BytesIO()
    Image.new("RGB", (300, 1400), "white").save(out, "PNG")
    made = Presentation(io.BytesIO(
        talk_as(TalkFormat.PPTX, talk, picture_of=lambda sheet: out.getvalue())
    ))  # fmt: skip
    slide = made.slides[1]
    (picture,) = [shape for shape in slide.shapes if shape.shape_type == 13]
    assert picture.top + picture.height <= made.slide_height
    assert picture.left + picture.width <= made.slide_width + Emu(1)
