"""Talks, recognised pages and figures on the command line."""

import io
import json
import shutil

import pytest
from pptx import Presentation
from typer.testing import CliRunner

import wide_margin.cli_passages
import wide_margin.cli_recognise
import wide_margin.cli_talk  # noqa: F401 (their commands join the app)
from wide_margin.cli import app
from wide_margin.core.errors import WideMarginError


def run(*arguments):
    return CliRunner().invoke(app, [str(argument) for argument in arguments])


@pytest.mark.usefixtures("shared_cache")
def test_a_talk_is_written_as_markdown_with_pages(handbook_path):
    result = run("talk", handbook_path, "--minutes", "10")
    assert result.exit_code == 0, result.output
    lines = result.stdout.splitlines()
    assert lines[0].startswith("# ")
    assert sum(line.startswith("## ") for line in lines) >= 3
    points = [line for line in lines if line.startswith("- ")]
    assert points
    assert all(line.endswith(")") for line in points)


@pytest.mark.usefixtures("shared_cache")
def test_a_talk_of_a_section_is_a_presentation(handbook_path, tmp_path):
    out = tmp_path / "talk.pptx"
    result = run("talk", handbook_path, "--section", "Part III Levelling", "--format", "pptx",
                 "--look", "slate", "--night", "-o", out)  # fmt: skip
    assert result.exit_code == 0, result.output
    made = Presentation(io.BytesIO(out.read_bytes()))
    said = [s.text_frame.text for s in made.slides[0].shapes if s.has_text_frame]
    assert "Part III Levelling" in said


@pytest.mark.parametrize(
    ("arguments", "said"),
    [
        (["--format", "pptx"], "needs a name"),
        (["--look", "neon"], "no look"),
        (["--section", "99.9"], "no “99.9”"),
    ],
)
@pytest.mark.usefixtures("shared_cache")
def test_what_cannot_be_made_is_told(handbook_path, arguments, said):
    result = run("talk", handbook_path, *arguments)
    assert isinstance(result.exception, WideMarginError)
    assert said in result.exception.message
    assert result.exception.hint


@pytest.mark.usefixtures("shared_cache")
def test_a_table_is_explained(handbook_path):
    result = run("explain", handbook_path, "--figure", "Table 2")
    assert "column Highest level in m: 3.20 to 4.12" in result.stdout
    told = json.loads(run("explain", handbook_path, "--figure", "Table 2", "--json").stdout)
    assert told["rows"] == 7
    assert told["columns"][1]["unit"] == "m"
    assert told["locator"]["label"] == "33"
    missing = run("explain", handbook_path, "--figure", "Table 99")
    assert isinstance(missing.exception, WideMarginError)


@pytest.mark.skipif(not shutil.which("tesseract"), reason="no engine here")
def test_a_picture_page_is_recognised_once(handbook_path):
    first = run("recognise", handbook_path)
    assert first.exit_code == 0, first.output
    assert "1 page recognised" in first.output
    again = run("recognise", handbook_path)
    assert "Every page has text" in again.output


def test_without_an_engine_this_is_told(handbook_path, tmp_path, monkeypatch):
    monkeypatch.setenv("PATH", str(tmp_path))
    result = run("recognise", handbook_path)
    assert isinstance(result.exception, WideMarginError)
    assert "tesseract-ocr" in result.exception.hint
