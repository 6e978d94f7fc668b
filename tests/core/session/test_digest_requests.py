"""The digest through the workers, as the window and the command line ask for it."""

import pytest

from tests.making import PATIENT
from wide_margin.core.digest import DocumentKind
from wide_margin.core.errors import WideMarginError
from wide_margin.core.session import DigestRequest, Session


@pytest.fixture
def session(small_pdf):
    with Session(small_pdf) as opened:
        opened.open().result(PATIENT)
        opened.read().result(PATIENT)
        yield opened


def test_a_digest_travels_whole(session):
    made = session.digest(DigestRequest(n_words=40)).result(PATIENT)
    assert made.facts.n_pages == 3
    assert len(made.sections) == 2
    assert sum(len(line.text.split()) for line in made.gist) <= 40
    assert made.kind is made.facts.kind


def test_the_gist_alone_is_the_same(session):
    whole = session.digest(DigestRequest(n_words=25)).result(PATIENT)
    assert session.gist(DigestRequest(n_words=25)).result(PATIENT) == whole.gist


def test_a_reach_by_its_name(session):
    lines = session.gist(DigestRequest("pages 2-3", n_sentences=2)).result(PATIENT)
    assert {line.locator.page for line in lines} <= {1, 2}
    lines = session.gist(DigestRequest("Buckets", n_sentences=1)).result(PATIENT)
    assert lines[0].locator.path == ("2 Buckets",)


def test_a_reach_that_is_not_there_is_an_error(session):
    with pytest.raises(WideMarginError, match="has no “section 9”"):
        session.gist(DigestRequest("section 9")).result(PATIENT)


def test_another_kind(session):
    made = session.digest(DigestRequest(kind=DocumentKind.THESIS)).result(PATIENT)
    assert made.kind is DocumentKind.THESIS
    assert made.by_kind[0].slot.name == "Question"


def test_fields_and_questions(session):
    fields = session.fields(("How many litres does a bucket hold?",)).result(PATIENT)
    by_name = {field.name: field for field in fields}
    assert by_name["pages"].value == "3"
    assert by_name["date"].value == ""
    assert "12 litres" in by_name["How many litres does a bucket hold?"].value


def test_questions_about_the_whole_are_asked_like_others(session):
    answer = session.ask("Summarise section 2 in one sentence.").result(PATIENT)
    assert answer.kind == "overview: section"
    assert len(answer.quotes) == 1
    assert answer.quotes[0].locators[0].page in (1, 2)
