"""Asked while it is being read: from what has been read, and finally from all of it."""

import os

import pytest

from tests.making import make_pdf
from wide_margin.core.answers import WHOLE, Reach, pages_named
from wide_margin.core.errors import NotReadyError
from wide_margin.core.export import write_bookmarks
from wide_margin.core.layout import PageLabels
from wide_margin.core.outline import Outline, Section
from wide_margin.core.session.blocks import BLOCK, Order
from wide_margin.core.session.reading_service import ReadingService
from wide_margin.core.session.requests import ReadRequest

N_PAGES = 80
WELL = "The rope of the well is changed every eighteen months by the keeper of the gate."
MILL = "The wheel of the mill is greased with tallow on the first day of every winter."
FILLER = (
    "Page {0} speaks of stones, of which {0} lie in the yard beside the wall of the old house."
    " They are counted in spring and painted white, and nobody carries any of them away."
)


def nothing(kind, value):
    """Reports are for others."""


@pytest.fixture(scope="module")
def long_pdf(tmp_path_factory):
    """The well on page 10, the mill on page 70."""
    path = tmp_path_factory.mktemp("long") / "long.pdf"
    pages = [[("h1", f"{k + 1} Stones"), ("text", FILLER.format(k + 1))] for k in range(N_PAGES)]
    pages[9].append(("text", WELL))
    pages[69].append(("text", MILL))
    make_pdf(path, pages)
    return path


def read_and(path, at, do):
    """Read a document; what ``do`` gives in between, once so many pages are touched."""
    service, given, touched = ReadingService(), [], []

    def give_way():
        touched.append(1)
        if len(touched) in at:
            given.append(do(service))

    service.give_way = give_way
    service.read(nothing, ReadRequest(path, os.getpid()))
    return service, given


def asked(question):
    return lambda service: service.ask(nothing, question, WHOLE)


def test_before_anything_is_read_this_is_told(long_pdf):
    def ask(service):
        with pytest.raises(NotReadyError):
            service.ask(nothing, "How often is the rope changed?", WHOLE)

    read_and(long_pdf, {3}, ask)


def test_an_answer_in_between_cites_only_pages_that_are_read(long_pdf):
    question = "How often is the rope of the well changed?"
    service, (early,) = read_and(long_pdf, {40}, asked(question))
    assert early.so_far == 32
    assert early.n_searched <= 32
    assert early.n_pages == N_PAGES
    places = [at.page for q in early.quotes for at in q.locators]
    places += [e.locator.page for e in early.excerpts]
    assert places
    assert max(places) < 32
    assert "eighteen months" in early.quotes[0].text
    final = service.ask(nothing, question, WHOLE)
    assert final.so_far == 0
    assert final.n_searched == N_PAGES
    assert early.without_text == ()


def test_what_stands_further_on_is_not_answered_before_it_is_read(long_pdf):
    question = "What is the wheel of the mill greased with?"
    service, (early,) = read_and(long_pdf, {40}, asked(question))
    assert not any("tallow" in quote.text for quote in early.quotes)
    assert "tallow" in service.ask(nothing, question, WHOLE).quotes[0].text


def test_the_final_answer_is_that_of_a_document_that_was_not_asked_early(
    long_pdf, tmp_path, monkeypatch
):
    question = "How often is the rope of the well changed?"
    service, _ = read_and(long_pdf, {20, 50, 79}, asked(question))
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "other"))
    plain = ReadingService()
    plain.read(nothing, ReadRequest(long_pdf, os.getpid()))
    assert service.ask(nothing, question, WHOLE) == plain.ask(nothing, question, WHOLE)
    assert service._summary() == plain._summary()


def test_more_pages_make_a_better_answer(long_pdf):
    question = "What is the wheel of the mill greased with?"
    _, answers = read_and(long_pdf, {20, 79}, asked(question))
    assert [answer.so_far for answer in answers] == [16, 64]


def test_words_are_found_in_what_is_read(long_pdf):
    def find(service):
        return [hit.page for hit in service.find(nothing, "stones")]

    service, (early,) = read_and(long_pdf, {40}, find)
    assert max(early) < 32
    assert max(hit.page for hit in service.find(nothing, "stones")) == N_PAGES - 1


def test_a_word_is_explained_from_what_is_read(long_pdf):
    _, (early,) = read_and(long_pdf, {40}, lambda s: s.explain(nothing, "rope of the well", 9))
    assert early.text == "rope of the well"


# --- what is read first


def test_blocks_can_be_put_in_front_while_they_are_read():
    order = Order(range(6))
    taken = []
    for block in order:
        taken.append(block)
        if block == 1:
            order.put_first([5 * BLOCK + 3, 4 * BLOCK, 0, 99 * BLOCK, -BLOCK])
    assert taken == [0, 1, 5, 4, 2, 3]


def test_reading_begins_where_the_reader_is(long_pdf):
    touched = []
    service = ReadingService()
    service.read(
        lambda kind, value: kind == "page" and touched.append(value[0]),
        ReadRequest(long_pdf, os.getpid(), near=40),
    )
    blocks = list(dict.fromkeys(page // BLOCK for page in touched))
    assert blocks == [2, 3, 1, 0, 4]


def test_reading_follows_the_reader(long_pdf):
    touched = []

    def go(service):
        service.come_near(nothing, 79)

    service = ReadingService()

    def give_way():
        if len(touched) == 3:
            go(service)

    service.give_way = give_way
    service.read(
        lambda kind, value: kind == "page" and touched.append(value[0]),
        ReadRequest(long_pdf, os.getpid()),
    )
    blocks = list(dict.fromkeys(page // BLOCK for page in touched))
    assert blocks == [0, 4, 3, 1, 2]
    assert sorted(touched) == list(range(N_PAGES))


def test_the_order_changes_nothing_of_what_is_read(long_pdf, tmp_path, monkeypatch):
    service, _ = read_and(long_pdf, {5}, lambda s: s.come_near(nothing, 70))
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "other"))
    plain = ReadingService()
    plain.read(nothing, ReadRequest(long_pdf, os.getpid()))
    assert [p.text for p in service._document.paragraphs] == [
        p.text for p in plain._document.paragraphs
    ]
    assert service._document.outline == plain._document.outline


@pytest.mark.parametrize("how", ["in words", "by the reach"])
def test_pages_that_are_asked_about_are_read_next(long_pdf, how):
    question = "What is the wheel of the mill greased with on page 70?"
    reach = WHOLE if how == "in words" else Reach("pages", 69, 69, name="page 70")
    answers = []
    service, touched = ReadingService(), []

    def give_way():
        touched.append(1)
        if len(touched) > 20 and not answers:
            try:
                answers.append((len(touched), service.ask(nothing, question, reach)))
            except NotReadyError:
                """Asked again at the next page."""

    service.give_way = give_way
    service.read(nothing, ReadRequest(long_pdf, os.getpid()))
    at, early = answers[0]
    assert at <= 20 + 2 * BLOCK + 2  # not at the end, where page 70 stands
    assert early.so_far < N_PAGES
    assert "tallow" in early.quotes[0].text


def test_pages_named_are_counted_on_from_those_that_are_known():
    labels = PageLabels(("i", "ii", "1", "2", "3", *[None] * 10))
    assert pages_named("What is on page 2?", labels) == [3]
    assert pages_named("Compare pp. 2-3 with page 9", labels) == [3, 4, 10]
    assert pages_named("What is on page 400?", labels) == []
    assert pages_named("What does page mean?", labels) == []


# --- the sections as far as they are known


def test_bookmarks_are_listed_before_a_page_is_read(tmp_path, small_pdf):
    path = tmp_path / "marked.pdf"
    outline = Outline((
        Section("First part", 0, 0, 10.0, 0, 3, 2, 0.0),
        Section("Second part", 0, 2, 5.0, 3, 6, 2, 800.0),
    ))  # fmt: skip
    write_bookmarks(small_pdf, path, outline)
    service, listed = ReadingService(), []
    service.give_way = lambda: listed.append(service.listed_so_far(nothing))
    service.read(nothing, ReadRequest(path, os.getpid()))
    first, labels = listed[0]
    assert [s.title for s in first.sections] == ["First part", "Second part"]
    assert [s.page for s in first.sections] == [0, 2]
    assert len(labels.labels) == 3


def test_without_bookmarks_sections_come_with_the_pages(long_pdf):
    _, (none, some) = read_and(long_pdf, {5, 40}, lambda s: s.listed_so_far(nothing))
    assert none is None
    outline, _ = some
    assert 25 <= len(outline.sections) <= 32
    assert max(s.page for s in outline.sections) < 32


def test_afterwards_what_is_listed_is_the_outline(long_pdf):
    service, _ = read_and(long_pdf, set(), asked(""))
    assert service.listed_so_far(nothing)[0] == service._document.outline


def test_pages_whose_text_is_damaged_are_known_while_reading_goes_on(
    long_pdf, tmp_path, monkeypatch
):
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path))
    monkeypatch.setattr("wide_margin.core.pages.source.is_garbled", lambda chars: True)
    service, given = read_and(long_pdf, {2 * BLOCK + 2}, asked("Who tuned the organ?"))
    assert given[0].declined
    assert given[0].n_searched == 0
    assert given[0].reason == "None of its pages has text that can be read."
    assert len(service._document.garbled) == N_PAGES
