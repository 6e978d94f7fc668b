import json

import pytest

from wide_margin.core.export import ANSWER_FORMS, Source, Statement, answer_as, year_of

SOURCE = Source("Ropes & Knots: a *Guide*", "The Rope Office", "1974")
STATEMENTS = (
    Statement("The rope is changed 2 times a year.", ("p. 12", "p. 12")),
    Statement("It is tarred, too.", ("p. xi",), is_quoted=False),
)
QUESTION = "How often is the rope changed?"


def taken(form):
    return answer_as(form, QUESTION, STATEMENTS, SOURCE)


def test_the_words_alone_carry_no_pages():
    assert taken("plain") == "The rope is changed 2 times a year.\nIt is tarred, too.\n"


def test_words_with_pages_mark_what_is_quoted():
    text = taken("cited")
    assert "“The rope is changed 2 times a year.” (p. 12)" in text
    assert "\nIt is tarred, too. (p. xi)" in text
    assert text.endswith("The Rope Office, Ropes & Knots: a *Guide*, 1974.\n")


def test_markdown_keeps_stars_as_stars():
    assert r"*Ropes & Knots: a \*Guide\**" in taken("markdown")


def test_bibtex_escapes_and_locates():
    text = taken("bibtex")
    assert text.startswith("@misc{therope1974,\n")
    assert r"Ropes \& Knots" in text
    assert "pages = {12, xi}" in text


def test_ris_ends_its_record():
    lines = taken("ris").split("\r\n")
    assert lines[0] == "TY  - GEN"
    assert "SP  - 12, xi" in lines
    assert lines[-2] == "ER  - "


def test_csl_json_reads_back():
    (item,) = json.loads(taken("csl-json"))
    assert item["locator"] == "12, xi"
    assert item["issued"] == {"date-parts": [[1974]]}
    assert item["author"] == [{"literal": "The Rope Office"}]


@pytest.mark.parametrize("form", ANSWER_FORMS)
def test_a_source_without_author_or_year_is_cited(form):
    assert answer_as(form, QUESTION, STATEMENTS, Source("Ropes"))


@pytest.mark.parametrize(
    ("date", "year"), [("D:20190412101500Z", "2019"), ("2003-01-02", "2003"), ("", "")]
)
def test_the_year_is_read_from_a_date(date, year):
    assert year_of(date) == year
