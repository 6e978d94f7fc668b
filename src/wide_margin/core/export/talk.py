"""A talk taken away: Markdown, HTML, and PPTX (Office Open XML, by python-pptx)."""

from __future__ import annotations

import base64
from enum import StrEnum
from typing import TYPE_CHECKING

from markupsafe import Markup

from wide_margin.core.export.looks import LOOKS, sheets_of
from wide_margin.core.plain import for_markdown, one_line, plain

if TYPE_CHECKING:
    from wide_margin.core.digest.talk import Talk
    from wide_margin.core.export.looks import Look, PictureOf


class TalkFormat(StrEnum):
    """Formats that a talk is taken away in."""

    MARKDOWN = "md"
    HTML = "html"
    PPTX = "pptx"


def talk_as(
    form: TalkFormat,
    talk: Talk,
    *,
    look: str = "margin paper",
    night: bool = False,
    picture_of: PictureOf = lambda sheet: None,
) -> bytes:
    """A talk as the bytes of a file.

    Args:
        form: Of the file.
        talk: As it is now.
        look: One of LOOKS; Markdown has none.
        night: Whether the sheets are dark.
        picture_of: Draws the figure that a sheet rests on.
    """
    match form:
        case TalkFormat.MARKDOWN:
            return _markdown(talk).encode()
        case TalkFormat.HTML:
            return _html(talk, LOOKS[look], night, picture_of).encode()
        case TalkFormat.PPTX:
            from wide_margin.core.export.slides import slides_of  # loads a large package

            return slides_of(talk, LOOKS[look], night, picture_of)


def _markdown(talk: Talk) -> str:
    lines = [f"# {for_markdown(one_line(talk.title))}", ""]
    if talk.subtitle:
        lines += [for_markdown(one_line(talk.subtitle)), ""]
    lines += [f"{k}. {for_markdown(one_line(title))}" for k, title in enumerate(talk.course, 1)]
    for sheet in sheets_of(talk):
        lines += ["", f"## {for_markdown(one_line(sheet.title))}", ""]
        lines += [f"- {for_markdown(one_line(point.shown))}" for point in sheet.points]
        if sheet.figure is not None:
            lines += ["", f"*{for_markdown(one_line(sheet.figure.caption))}*"]
        if sheet.notes:
            lines += ["", *(f"> {for_markdown(one_line(note))}" for note in sheet.notes)]
    return "\n".join(lines) + "\n"


def _html(talk: Talk, look: Look, night: bool, picture_of: PictureOf) -> str:
    ground, ink, quiet, edge = look.colours(night=night)
    family = "Georgia, 'Noto Serif', serif" if look.is_serif else "'Noto Sans', sans-serif"
    parts = [
        Markup('<!DOCTYPE html>\n<html><head><meta charset="utf-8"><title>{}</title>\n').format(
            plain(talk.title)
        ),
        Markup(
            "<style>body{{margin:0;background:#{ground};color:#{ink};font:1.25em/1.4 {family}}}"
            "section{{min-height:92vh;padding:4vh 8vw;border-bottom:1px solid #{edge};"
            "box-sizing:border-box}}h1,h2{{border-left:6px solid #{edge};padding-left:.6em}}"
            "small,aside{{color:#{quiet};font-size:.7em}}img{{max-width:100%;max-height:45vh}}"
            "</style></head><body>\n"
        ).format(ground=ground, ink=ink, quiet=quiet, edge=edge, family=Markup(family)),
        Markup("<section><h1>{}</h1><p>{}</p><ol>{}</ol></section>\n").format(
            plain(talk.title), plain(talk.subtitle),
            Markup("").join(Markup("<li>{}</li>").format(plain(t)) for t in talk.course),
        ),
    ]  # fmt: skip
    for sheet in sheets_of(talk):
        parts.append(Markup("<section><h2>{}</h2><ul>").format(plain(sheet.title)))
        for point in sheet.points:
            page = point.locator.shown if point.locator is not None else ""
            told = f"{point.unbacked} {page}".strip()
            parts.append(
                Markup("<li>{} <small>{}</small></li>").format(plain(point.text), plain(told))
            )
        parts.append(Markup("</ul>"))
        if (data := picture_of(sheet)) is not None and sheet.figure is not None:
            parts.append(
                Markup('<img alt="{}" src="data:image/png;base64,{}">').format(
                    plain(sheet.figure.caption), base64.b64encode(data).decode()
                )
            )
        said = Markup("").join(Markup("<p>{}</p>").format(plain(note)) for note in sheet.notes)
        parts.append(Markup("<aside>{}</aside></section>\n").format(said))
    return str(Markup("").join([*parts, Markup("</body></html>\n")]))
