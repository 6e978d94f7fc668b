import numpy as np
import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import answer_quoted
from wide_margin.core.search import rank, read_terms, weigh
from wide_margin.core.search.fine import read_signals, with_meaning


@pytest.fixture(scope="module")
def document(tmp_path_factory):
    path = tmp_path_factory.mktemp("fine") / "fine.pdf"
    filler = "The harbour is wide and the boats lie at the quay in the evening light of summer."
    make_pdf(path, [
        [("text", f"A quoin holds the shutter once. {filler}")],
        [("text", f"A quoin of oak holds it. The quoin is wedged, and no quoin slips. {filler}")],
        [("text", f"{filler} {filler}")],
        [("text", "The hull is scraped in May. The hull is tarred in June. Its hull plates are"
                  " counted in July.")],
    ])  # fmt: skip
    return read_document(path)


def weighed(document, text):
    query = read_terms(text, document.index)
    ranked = rank(document.index, document.text, query)
    return weigh(
        document.index, document.text, query, ranked, lambda rows: np.zeros(len(rows), np.float32)
    )


def test_a_page_that_repeats_the_rare_word_goes_before_one_that_has_it_once(document):
    found = weighed(document, "What holds the quoin?")
    assert found.page_score(1) > found.page_score(0) > found.page_score(2)


def test_evidence_on_a_page_adds_up(document):
    found = weighed(document, "When is the hull scraped and tarred?")
    assert found.page_score(3) > max(found.scores)


def test_a_word_counts_for_its_near_relatives(document):
    found = weighed(document, "Where are the ships?")
    boats = [k for k, row in enumerate(found.sentences)
             if "boats" in document.text.sentences[row].text]  # fmt: skip
    assert boats
    assert found.held[boats].max() > 0.2


def test_a_page_without_any_word_has_no_evidence(document):
    assert weighed(document, "quoin").page_score(99) == -np.inf


def test_excerpts_name_each_page_once_before_any_twice(handbook):
    pages = [e.locator.page for e in answer_quoted(handbook, "What is done about ice?").excerpts]
    first_repeat = next((k for k, page in enumerate(pages) if page in pages[:k]), len(pages))
    assert first_repeat == len(set(pages))


def test_words_of_one_family_find_each_other(tmp_path):
    path = tmp_path / "family.pdf"
    filler = "The harbour is wide and the boats lie at the quay in the evening light of summer."
    make_pdf(path, [
        [("text", f"{filler} {filler}")],
        [("text", f"The diversion of the brook was dug by hand. {filler}")],
    ])  # fmt: skip
    found = weighed(read_document(path), "Who diverted it?")
    assert found.page_score(1) > found.page_score(0)


def test_meaning_is_told_of_the_best_sentences_and_the_others_count_as_far(document):
    query = read_terms("Who tars the hull?", document.index)
    ranked = rank(document.index, document.text, query)
    found = read_signals(
        document.index, document.text, query, ranked, lambda rows: np.zeros(len(rows), np.float32)
    )
    assert not found.pages[:, -1].any()
    told = with_meaning(found, document.text, "Who tars the hull?", most=3).pages[:, -1]
    values, n_of = np.unique(told, return_counts=True)
    assert n_of[0] >= len(told) - 3
    assert len(values) <= 4
    best = document.text.sentences[int(found.sentences[int(told.argmax())])].text
    assert best == "The hull is tarred in June."


def test_without_a_question_words_alone_are_weighed(document):
    assert weighed(document, "quoin").meaning is None


def test_nothing_is_told_of_the_meaning_of_no_sentences(tmp_path):
    path = tmp_path / "empty.pdf"
    make_pdf(path, [[]])
    document = read_document(path)
    query = read_terms("quoin", document.index)
    found = weigh(
        document.index, document.text, query, rank(document.index, document.text, query),
        lambda rows: np.zeros(len(rows), np.float32), "What is a quoin?",
    )  # fmt: skip
    assert found.meaning is None
