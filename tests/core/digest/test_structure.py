"""The shape of a document: occurrences as find counts them, sections that belong together."""

import numpy as np
import pytest

from wide_margin.core.digest.structure import Sections, occurrences, uneven_first
from wide_margin.core.search import find_all, make_findable


@pytest.fixture(scope="module")
def sections(handbook):
    return Sections(handbook)


@pytest.mark.parametrize("term", ["surge", "in suspense", "Closing ERROR", "zeppelin", "  "])
def test_a_term_occurs_as_often_as_find_counts_and_where_it_does(handbook, term):
    findable = make_findable(handbook.paragraphs)
    hits = find_all(findable, handbook.paragraphs, term)
    found = occurrences(handbook, findable, term)
    assert len(found) == len(hits)
    for occurrence, hit in zip(found, hits, strict=True):
        paragraph = handbook.paragraphs[hit.paragraph]
        pages = [span.page for span in paragraph.spans(hit.start, hit.end)]
        assert int(occurrence.at) == pages[0]
        assert occurrence.section == handbook.outline.at_paragraph(hit.paragraph)
    assert [o.at for o in found] == sorted(o.at for o in found) or term == "surge"


def test_sections_that_belong_together_stand_apart(handbook, sections):
    outline = handbook.outline
    parents = outline.parents

    def top(row):
        while parents[row] >= 0:
            row = parents[row]
        return row

    n_found = 0
    for row in range(len(outline.sections)):
        found = sections.related(row)
        n_found += bool(found)
        assert [r.nearness for r in found] == sorted((r.nearness for r in found), reverse=True)
        assert all(top(r.section) != top(row) for r in found)
        assert all(0.0 < r.nearness <= 1.0 for r in found)
    assert n_found > 20


def test_the_sections_on_the_closing_error_find_each_other(handbook, sections):
    rows = {s.title: k for k, s in enumerate(handbook.outline.sections)}
    one, other = rows["9.3 Closing error"], rows["38.3 The closing error of a real line"]
    assert sections.related(one)[0].section == other
    assert one in [r.section for r in sections.related(other)]


def test_a_section_without_enough_words_is_compared_with_none(handbook, sections):
    assert sections.related(-1) == ()
    assert sections.related(10**6) == ()


def test_nearness_is_that_of_a_plain_computation(handbook, sections):
    rows, terms, weights = sections._counts
    n = len(handbook.index.term_ids)
    titles = {s.title: k for k, s in enumerate(handbook.outline.sections)}
    vectors = {}
    for title in ("9.3 Closing error", "38.3 The closing error of a real line"):
        vector = np.zeros(n)
        own = rows == titles[title]
        vector[terms[own]] = weights[own]
        vectors[title] = vector / np.linalg.norm(vector)
    one, other = vectors.values()
    first = sections.related(titles["9.3 Closing error"])[0]
    assert first.nearness == pytest.approx(float(one @ other))


def test_terms_that_lie_unevenly_come_first(handbook):
    assert uneven_first(handbook, ["height", "surge", "zeppelin"]) == (
        "surge",
        "height",
        "zeppelin",
    )


def test_words_that_go_along_with_a_term_are_offered(handbook, sections):
    found = sections.related_terms("surge")
    assert "prediction" in found
    assert "surge" not in found
    assert len(found) <= 5
    for word in found:
        stem = handbook.index.analyser.terms_of(word)[0]
        assert stem in handbook.index.term_ids


def test_words_of_a_term_are_not_offered_beside_it(sections):
    assert not {"closing", "error", "errors"} & set(sections.related_terms("closing error"))


@pytest.mark.parametrize("term", ["zeppelin", "", "   ", "the"])
def test_a_term_that_says_nothing_has_none_beside_it(sections, term):
    assert sections.related_terms(term) == ()
