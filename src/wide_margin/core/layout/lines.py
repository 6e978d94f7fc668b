"""Lines of a page in reading order."""

from wide_margin.core.geometry import FloatArray, union
from wide_margin.core.layout.columns import reading_zones, rows_of
from wide_margin.core.layout.model import Line
from wide_margin.core.layout.segments import WIDE_GAP, Segments, segments_of
from wide_margin.core.pages import PageText

_BLANK = str.maketrans({"\r": " ", "\n": " ", "\t": " ", "\xa0": " "})


def lines_of(page: PageText) -> list[Line]:
    """All lines of a page, column after column, each with its characters.

    Every inked character of the page is in exactly one line.
    """
    segments = segments_of(page)
    lines = []
    for column, zone in enumerate(reading_zones(segments.boxes)):
        for row in rows_of(segments.boxes, zone):
            lines.append(_line(page, segments, row, column))
    return lines


def _line(page: PageText, segments: Segments, row: list[int], column: int) -> Line:
    parts: list[str] = []
    spans: list[tuple[int, int]] = []
    for k, item in enumerate(row):
        first, end = int(segments.first[item]), int(segments.end[item])
        if k:
            gap = float(segments.boxes[item, 0] - segments.boxes[row[k - 1], 2])
            parts.append("\t" if gap > WIDE_GAP * float(segments.size[item]) else " ")
        parts.append(page.chars[first:end].translate(_BLANK))
        spans.append((first, end))
    longest = max(row, key=lambda item: int(segments.end[item] - segments.first[item]))
    weights = [int(segments.end[item] - segments.first[item]) for item in row]
    total = sum(weights)

    def mostly(shares: FloatArray) -> bool:
        values = shares[row]
        return sum(w * float(v) for w, v in zip(weights, values, strict=True)) > 0.6 * total

    is_bold, is_italic = mostly(segments.bold), mostly(segments.italic)
    return Line(
        page=page.index,
        text="".join(parts),
        spans=tuple(spans),
        box=union(segments.boxes[row]),
        size=float(segments.size[longest]),
        is_bold=is_bold,
        is_italic=is_italic,
        is_fixed=mostly(segments.fixed),
        lead=0 if is_bold or is_italic else _lead(page, spans[0][0], spans[-1][1]),
        column=column,
    )


def _lead(page: PageText, first: int, end: int) -> int:
    """Length of the bold or italic start of a line that goes on in another face."""
    runs = page.run_starts
    if not len(runs):
        return 0
    at = int(runs.searchsorted(first, side="right")) - 1
    font = page.fonts[page.run_fonts[at]]
    if not (font.is_bold or font.is_italic):
        return 0
    after = at + 1
    while after < len(runs) and page.fonts[page.run_fonts[after]] == font:
        after += 1
    stop = int(runs[after]) if after < len(runs) else end
    return min(stop, end) - first
