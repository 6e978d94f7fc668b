"""Translations taken out and in: TMX 1.4b, XLIFF 2.0, bilingual HTML, plain text, JSON."""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from enum import StrEnum
from typing import TYPE_CHECKING

from markupsafe import Markup

from wide_margin import __version__
from wide_margin.core.errors import WideMarginError
from wide_margin.core.later import loaded_later
from wide_margin.core.plain import plain
from wide_margin.core.translate import RIGHT_TO_LEFT, Kept, language_name

if TYPE_CHECKING:
    from lxml import etree

    from wide_margin.core.translate import Pair
else:
    etree = loaded_later("lxml.etree")

MAX_UNITS = 200_000
_XML = "http://www.w3.org/XML/1998/namespace"
_XLIFF = "urn:oasis:names:tc:xliff:document:2.0"


class TranslationFormat(StrEnum):
    """Formats that translations are taken out in."""

    TMX = "tmx"
    XLIFF = "xliff"
    HTML = "html"
    TEXT = "txt"
    JSON = "json"


def export_pairs(
    pairs: Sequence[Pair], source: str, target: str, form: TranslationFormat, *, title: str = ""
) -> str:
    """Pairs as a file's text; those without a translation are left out of memories.

    Args:
        pairs: In reading order.
        source: Code of the language they are in.
        target: Code of the language they are translated to.
        form: Of the file.
        title: Of the document.
    """
    match form:
        case TranslationFormat.TMX:
            done = [Kept(p.source, p.target, source, target) for p in pairs if p.target]
            return export_memory(done, source)
        case TranslationFormat.XLIFF:
            return _xliff(pairs, source, target, title)
        case TranslationFormat.HTML:
            return _html(pairs, source, target, title)
        case TranslationFormat.TEXT:
            return "\n\n".join(f"{p.source}\n{p.target}" for p in pairs) + "\n"
        case TranslationFormat.JSON:
            rows = [
                {"source": p.source, "target": p.target, "doubts": list(p.doubts),
                 "origin": p.origin or "model"} for p in pairs
            ]  # fmt: skip
            values = {"from": source, "to": target, "title": title, "pairs": rows}
            return json.dumps(values, ensure_ascii=False, indent=2) + "\n"


def export_memory(pairs: Sequence[Kept], source: str = "en") -> str:
    """A memory as TMX 1.4b (LISA OSCAR, 2005)."""
    root = etree.Element("tmx", version="1.4")
    etree.SubElement(
        root, "header", creationtool="Wide Margin", creationtoolversion=__version__,
        segtype="sentence", adminlang="en", srclang=source, datatype="plaintext",
        **{"o-tmf": "Wide Margin"},
    )  # fmt: skip
    body = etree.SubElement(root, "body")
    for kept in pairs:
        unit = etree.SubElement(body, "tu")
        if kept.changed:
            unit.set("changedate", _tmx_date(kept.changed))
        for language, text in ((kept.from_language, kept.source), (kept.to_language, kept.target)):
            variant = etree.SubElement(unit, "tuv")
            variant.set(f"{{{_XML}}}lang", language)
            etree.SubElement(variant, "seg").text = plain(text)
    return _written(root, '<!DOCTYPE tmx SYSTEM "tmx14.dtd">')


def _tmx_date(changed: str) -> str:
    digits = "".join(c for c in changed if c.isdigit())
    return f"{digits[:8]}T{digits[8:14]:0<6}Z"


def read_memory(data: bytes) -> Iterator[Kept]:
    """The pairs of a TMX file: of each unit, its first language with every other.

    Raises:
        WideMarginError: It is not TMX.
    """
    parser = etree.XMLParser(
        resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False
    )
    try:
        root = etree.fromstring(data, parser)
    except (etree.XMLSyntaxError, ValueError) as error:
        raise _not_tmx() from error
    if etree.QName(root).localname != "tmx":
        raise _not_tmx()
    for n, unit in enumerate(root.iter("{*}tu")):
        if n >= MAX_UNITS:
            return
        variants = []
        for variant in unit.iter("{*}tuv"):
            language = variant.get(f"{{{_XML}}}lang") or variant.get("lang") or ""
            segment = variant.find("{*}seg")
            text = "".join(segment.itertext()) if segment is not None else ""
            if language and text.strip():
                variants.append((language[:2].lower(), plain(" ".join(text.split()))))
        changed = unit.get("changedate") or ""
        for language, text in variants[1:]:
            yield Kept(variants[0][1], text, variants[0][0], language, changed)


def _not_tmx() -> WideMarginError:
    return WideMarginError("This file is no TMX memory.", hint="Choose a file that ends in .tmx.")


def _xliff(pairs: Sequence[Pair], source: str, target: str, title: str) -> str:
    root = etree.Element(
        f"{{{_XLIFF}}}xliff", nsmap={None: _XLIFF}, version="2.0", srcLang=source, trgLang=target
    )
    whole = etree.SubElement(root, f"{{{_XLIFF}}}file", id="f1")
    if title:
        whole.set("original", plain(title))
    for n, pair in enumerate(pairs, start=1):
        unit = etree.SubElement(whole, f"{{{_XLIFF}}}unit", id=f"u{n}")
        if pair.doubts:
            notes = etree.SubElement(unit, f"{{{_XLIFF}}}notes")
            for doubt in pair.doubts:
                etree.SubElement(notes, f"{{{_XLIFF}}}note").text = plain(doubt)
        segment = etree.SubElement(unit, f"{{{_XLIFF}}}segment")
        state = (
            "reviewed" if pair.origin == "corrected" else "translated" if pair.target else "initial"
        )
        segment.set("state", state)
        etree.SubElement(segment, f"{{{_XLIFF}}}source").text = plain(pair.source)
        if pair.target:
            etree.SubElement(segment, f"{{{_XLIFF}}}target").text = plain(pair.target)
    return _written(root)


def _html(pairs: Sequence[Pair], source: str, target: str, title: str) -> str:
    rows = Markup("").join(
        Markup(
            '<tr><td lang="{}" dir="{}">{}</td><td lang="{}" dir="{}">{}{}</td></tr>\n'
        ).format(
            source, _direction(source), pair.source, target, _direction(target), pair.target,
            Markup('<p class="doubt">{}</p>').format("; ".join(pair.doubts)) if pair.doubts else "",
        )
        for pair in pairs
    )  # fmt: skip
    name = title or "Translation"
    return str(
        Markup(
            '<!DOCTYPE html>\n<html lang="{target}"><head><meta charset="utf-8">'
            "<title>{name}</title>\n<style>body{{font-family:serif;max-width:60em;margin:2em auto}}"
            "td{{vertical-align:top;"
            "width:50%;padding:.4em .8em}}.doubt{{color:#9d2235;font-size:.85em}}</style></head>\n"
            "<body><h1>{name}</h1>\n<table><thead><tr><th>{from_}</th><th>{to}</th></tr></thead>\n"
            "<tbody>\n{rows}</tbody></table></body></html>\n"
        ).format(
            target=target,
            name=name,
            from_=language_name(source),
            to=language_name(target),
            rows=rows,
        )
    )


def _direction(language: str) -> str:
    return "rtl" if language in RIGHT_TO_LEFT else "ltr"


def _written(root: etree._Element, doctype: str | None = None) -> str:
    text: bytes = etree.tostring(
        root, encoding="UTF-8", xml_declaration=True, pretty_print=True, doctype=doctype
    )
    return text.decode("utf-8")
