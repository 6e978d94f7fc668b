"""The outline as Markdown, OPML 2.0, JSON, CSV or HTML, with page numbers."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Iterator
from html import escape
from typing import TYPE_CHECKING
from xml.etree import ElementTree

from wide_margin.core.layout import page_shown
from wide_margin.core.plain import for_cell, for_markdown, for_xml, one_line, plain

if TYPE_CHECKING:
    from wide_margin.core.layout import PageLabels
    from wide_margin.core.outline import Outline, Section


def export_outline(outline: Outline, labels: PageLabels, form: str, title: str = "") -> str:
    """An outline as text in a format.

    Args:
        outline: The sections.
        labels: For the printed page numbers.
        form: One of FORMATS.
        title: The document's, for formats that have room for it.

    Raises:
        ValueError: Unknown format.
    """
    if form not in FORMATS:
        raise ValueError(f"format must be one of {', '.join(FORMATS)}, got {form}")
    return FORMATS[form](outline, labels, title)


def section_row(section: Section, labels: PageLabels) -> dict[str, object]:
    """A section as plain values; pages are file pages from 1, y in points from the top."""
    return {
        "title": section.title,
        "level": section.level,
        "page": section.page + 1,
        "label": labels.of(section.page),
        "y": round(section.y, 1),
        "end": {"page": section.end_page + 1, "y": round(section.end_y, 1)},
        "witnesses": list(section.witnesses),
        "disagreements": [
            {"about": d.about, "witness": d.witness, "reason": d.reason}
            for d in section.disagreements
        ],
    }


def _place(section: Section, labels: PageLabels) -> str:
    return labels.of(section.page) or page_shown(None, section.page)


def _markdown(outline: Outline, labels: PageLabels, title: str) -> str:
    lines = [f"# {for_markdown(one_line(title))}", ""] if title else []
    for section, depth in _nested(outline):
        text, place = for_markdown(plain(section.title)), for_markdown(_place(section, labels))
        lines.append(f"{'  ' * depth}- {text}, {place}")
    return "\n".join(lines) + "\n"


def _opml(outline: Outline, labels: PageLabels, title: str) -> str:
    root = ElementTree.Element("opml", version="2.0")
    ElementTree.SubElement(ElementTree.SubElement(root, "head"), "title").text = for_xml(title)
    open_ = [ElementTree.SubElement(root, "body")]
    for section, depth in _nested(outline):
        del open_[depth + 1 :]
        attributes = {
            "text": for_xml(section.title), "page": str(section.page + 1), "y": f"{section.y:.1f}"
        }  # fmt: skip
        if label := labels.of(section.page):
            attributes["label"] = for_xml(label)
        open_.append(ElementTree.SubElement(open_[depth], "outline", attributes))
    ElementTree.indent(root)
    return ElementTree.tostring(root, encoding="unicode", xml_declaration=True) + "\n"


def _json(outline: Outline, labels: PageLabels, title: str) -> str:
    rows = [section_row(section, labels) for section in outline.sections]
    return json.dumps(rows, ensure_ascii=False, indent=1) + "\n"


def _csv(outline: Outline, labels: PageLabels, title: str) -> str:
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(["level", "title", "page", "label"])
    for section in outline.sections:
        label = for_cell(labels.of(section.page) or "")
        writer.writerow([section.level, for_cell(section.title), section.page + 1, label])
    return text.getvalue()


def _html(outline: Outline, labels: PageLabels, title: str) -> str:
    parts = ["<!doctype html>", '<meta charset="utf-8">', f"<title>{escape(title)}</title>"]
    parts.append(f"<h1>{escape(title)}</h1>" if title else "")
    open_ = 0
    for section, depth in _nested(outline):
        while open_ > depth + 1:
            parts.append("</li></ul>")
            open_ -= 1
        parts.append("</li>" if open_ == depth + 1 else "<ul>")
        open_ = depth + 1
        place = escape(_place(section, labels))
        parts.append(f"<li>{escape(section.title)} <span>{place}</span>")
    parts.append("</li></ul>" * open_)
    return "\n".join(part for part in parts if part) + "\n"


def _nested(outline: Outline) -> Iterator[tuple[Section, int]]:
    """Sections with a depth that goes down by one at a time."""
    yield from zip(outline.sections, outline.depths, strict=True)


FORMATS = {"md": _markdown, "opml": _opml, "json": _json, "csv": _csv, "html": _html}
