"""Marks made longer, shorter and erased in part: ranges of characters joined and taken away."""

from collections.abc import Iterable

from wide_margin.core.layout import SpanOnPage

NEXT = 2
"""Ranges with so few characters between them are one: blanks and line ends."""


def joined(spans: Iterable[SpanOnPage], more: Iterable[SpanOnPage]) -> tuple[SpanOnPage, ...]:
    """All characters of both, in order, each once."""
    found: list[SpanOnPage] = []
    for span in sorted([*spans, *more], key=lambda s: (s.page, s.start, s.end)):
        last = found[-1] if found else None
        if last is not None and last.page == span.page and span.start <= last.end + NEXT:
            found[-1] = SpanOnPage(last.page, last.start, max(last.end, span.end))
        else:
            found.append(span)
    return tuple(found)


def without(spans: Iterable[SpanOnPage], taken: Iterable[SpanOnPage]) -> tuple[SpanOnPage, ...]:
    """The characters of the first that are not among the second, in order."""
    found = list(spans)
    for cut in taken:
        kept: list[SpanOnPage] = []
        for span in found:
            if cut.page != span.page or cut.end <= span.start or cut.start >= span.end:
                kept.append(span)
                continue
            if span.start < cut.start:
                kept.append(SpanOnPage(span.page, span.start, cut.start))
            if cut.end < span.end:
                kept.append(SpanOnPage(span.page, cut.end, span.end))
        found = kept
    return tuple(found)


def touch(spans: Iterable[SpanOnPage], others: Iterable[SpanOnPage]) -> bool:
    """Whether some character of one stands in the other, or right beside it."""
    rest = list(others)
    return any(
        a.page == b.page and a.start <= b.end + NEXT and b.start <= a.end + NEXT
        for a in spans
        for b in rest
    )
