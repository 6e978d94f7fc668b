"""An outline read from OPML 2.0 or JSON."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path
from typing import TYPE_CHECKING, Any

from wide_margin.core.errors import WideMarginError
from wide_margin.core.later import loaded_later
from wide_margin.core.plain import FACT_LENGTH, one_line

if TYPE_CHECKING:
    from lxml import etree
else:
    etree = loaded_later("lxml.etree")

MAX_BYTES = 20_000_000
Row = dict[str, Any]


def read_outline(path: Path) -> list[Row]:
    """The rows of an outline file: title, level from 0, page index or None, y or None.

    JSON is a list of objects with title, level and page (file page from 1), y if known, or an
    object with such a list as "outline"; OPML has its outline elements nested, with the title as
    text and page and y as attributes where they are known.

    Raises:
        WideMarginError: The file cannot be read, or is neither.
    """
    try:
        if path.stat().st_size > MAX_BYTES:
            raise WideMarginError(f"“{path.name}” is too large for an outline.")
        data = path.read_bytes()
    except OSError as error:
        raise WideMarginError(f"“{path.name}” cannot be read.", hint="Is it there?") from error
    try:
        rows = list(_opml(data) if data.lstrip()[:1] == b"<" else _json(data))
    except (
        ValueError,
        TypeError,
        KeyError,
        AttributeError,
        RecursionError,
        etree.LxmlError,
    ) as error:
        raise WideMarginError(
            f"“{path.name}” is not an outline.", hint="Give an OPML file, or JSON as saved here."
        ) from error
    if not rows:
        raise WideMarginError(f"There are no sections in “{path.name}”.")
    return rows


def _json(data: bytes) -> Iterator[Row]:
    read = json.loads(data)
    for row in read["outline"] if isinstance(read, dict) else read:
        yield _row(row["title"], row.get("level") or 0, row.get("page"), row.get("y"))


def _opml(data: bytes) -> Iterator[Row]:
    # Entities and outside files stay unread: an outline needs neither.
    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False)
    body = etree.fromstring(data, parser).find("body")
    if body is None:
        raise ValueError("no body")

    def visit(element: Any, level: int) -> Iterator[Row]:
        for child in element.findall("outline"):
            yield _row(child.get("text") or "", level, child.get("page"), child.get("y"))
            yield from visit(child, level + 1)

    yield from visit(body, 0)


def _row(title: object, level: object, page: object, y: object) -> Row:
    text = one_line(str(title), FACT_LENGTH)
    if not text:
        raise ValueError("a section without a title")
    return {
        "title": text,
        "level": max(0, int(str(level))),
        "page": int(str(page)) - 1 if page is not None else None,
        "y": float(str(y)) if y is not None else None,
    }
