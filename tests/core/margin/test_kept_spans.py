"""The passages that a reader has kept."""

from dataclasses import replace

from wide_margin.core.answers import WHOLE, Excerpt, Quote
from wide_margin.core.document import Locator
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import Anchor, EntryKind, MarkBody, QuestionBody, kept_spans, new_entry

FIRST, SECOND, THIRD = SpanOnPage(1, 0, 9), SpanOnPage(2, 5, 20), SpanOnPage(4, 1, 3)


def mark(span):
    return new_entry(EntryKind.MARK, Anchor(span.page, -1.0, (span,), "words"), MarkBody())


def test_marks_and_what_answers_quote_are_kept_in_order_and_once():
    quoted, other = Locator(4, "4", (THIRD,), ()), Locator(1, "1", (FIRST,), ())
    body = QuestionBody("Who?", "who", WHOLE, (Quote("He did.", (quoted,)),),
                        (Excerpt("Elsewhere.", other, 1.0),))  # fmt: skip
    question = new_entry(EntryKind.QUESTION, Anchor(2, -1.0, (SECOND,), "asked here"), body)
    assert kept_spans([mark(SECOND), question, mark(SECOND)]) == (SECOND, THIRD)


def test_what_has_lost_its_place_is_left_out():
    lost = mark(FIRST)
    lost = replace(lost, anchor=replace(lost.anchor, is_lost=True))
    assert kept_spans([lost]) == ()
    assert kept_spans([]) == ()
