import shutil

import pytest
from typer.testing import CliRunner

import wide_margin.cli_say  # noqa: F401 (its command joins the app)
from tests.sounds import cues_in
from wide_margin.cli import app
from wide_margin.core.errors import WideMarginError


@pytest.mark.skipif(not shutil.which("espeak-ng"), reason="not installed here")
def test_a_document_is_said_into_a_file_with_cues(small_pdf, tmp_path):
    out = tmp_path / "said.wav"
    result = CliRunner().invoke(app, ["say", str(small_pdf), "-o", str(out)])
    assert result.exit_code == 0, result.output
    assert [cue.title for cue in cues_in(out)] == ["1 Wells", "2 Buckets"]


def test_a_section_that_is_not_there_is_told(small_pdf, tmp_path):
    result = CliRunner().invoke(app, ["say", str(small_pdf), "--section", "9", "-o", "x.wav"])
    assert isinstance(result.exception, WideMarginError)
