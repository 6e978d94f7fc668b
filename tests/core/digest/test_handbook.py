"""The handbook's own set, demo/digest.jsonl: its facts, and questions about it and its parts."""

import json
from pathlib import Path

import pytest

from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

SET = Path(__file__).resolve().parents[3] / "demo" / "digest.jsonl"
ROWS = [json.loads(line) for line in SET.read_text(encoding="utf-8").splitlines()]


@pytest.fixture(scope="module")
def digester(handbook):
    return Digester(handbook)


@pytest.mark.parametrize("row", [row for row in ROWS if "fact" in row], ids=lambda r: r["fact"])
def test_facts(digester, row):
    found = getattr(digester.facts, row["fact"])
    if row["text"] is None:
        assert not found
    elif "page" in row:
        assert (found.text, found.locator.page + 1) == (row["text"], row["page"])
    else:
        assert str(found) == row["text"]


@pytest.mark.parametrize("row", [r for r in ROWS if "question" in r], ids=lambda r: r["question"])
def test_questions(request, digester, row):
    if "missed" in row:
        request.applymarker(pytest.mark.xfail(strict=True, reason=row["missed"]))
    answer = digester.answer(row["question"], WHOLE, None)
    if "pages" in row:
        assert answer.quotes
        assert {q.locators[0].page + 1 for q in answer.quotes} <= set(row["pages"])
    elif row["gives"] is None:
        assert answer.declined
    else:
        assert row["gives"] in " ".join(quote.text for quote in answer.quotes)
