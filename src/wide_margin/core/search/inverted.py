"""Verbs that a question takes apart or turns round, in the languages that do so."""

from __future__ import annotations

import re

from wide_margin.core.later import regex
from wide_margin.core.search.analysis import is_common

_TURNED = regex(
    r"(?<=\w)(?<!rendez)-(?:t-)?(?:je|tu|il|elle|on|nous|vous|ils|elles|ce)(?![\w-])", re.I
)
"""What follows the verb of a French question: "puis-je", "configure-t-on"."""
_PARTICLES = {
    "de": r"ab|an|auf|aus|bei|ein|fest|her|hin|los|mit|nach|um|vor|weg|weiter|wieder|zu|zurück"
          r"|zusammen|heraus|heran|hinein|hinzu|herunter|durch|über|frei|bereit|dar",
    "nl": r"aan|af|bij|door|in|mee|na|om|op|over|terug|toe|uit|vast|voor|weg",
}  # fmt: skip
_PARTED = {
    language: regex(
        rf"^(?P<asks>\W*\w+(?:\s+(?:viele?|oft|lange?))?\s+)(?P<verb>[^\W\d_]{{3,}})"
        rf"(?P<rest>\s.*\s)(?P<particle>{particles})(?P<end>\W*)$", re.I | re.S
    )
    for language, particles in _PARTICLES.items()
}  # fmt: skip
"""A question whose verb has its first part at the end: "Wie lege ich ein Konto an?"."""


def plainly_asked(text: str, language: str) -> str:
    """A question with each verb as it stands in a text.

    "Comment puis-je …" becomes "Comment puis …", "Wie lege ich ein Konto an?" becomes "Wie anlege
    ich ein Konto?"; one in another language stays as it is.
    """
    if language == "fr":
        return _TURNED.sub("", text)
    match = _PARTED[language].match(text) if language in _PARTED else None
    if match is not None and not is_common(match["verb"].lower(), language):  # "ist … zu"
        verb = match["particle"].lower() + match["verb"].lower()
        return f"{match['asks']}{verb}{match['rest'].rstrip()}{match['end']}"
    return text
