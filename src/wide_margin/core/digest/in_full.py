"""What is said of what a short form stands for, where a document does more than spell it out."""

from __future__ import annotations

import re
from itertools import islice
from typing import TYPE_CHECKING

from wide_margin.core.answers.within import rows_with
from wide_margin.core.explain.verbs import seems_to_have_verb

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

MOST_LOOKED_AT = 100
"""Sentences with a short form, or with what it stands for, among which one may say what that is."""
MOST_SAID = 2
"""Sentences that are quoted of what stands under it."""
_IS = r"(?:is|are|was|were)\s+(?:\w+ly\s+)?(?:an?|the|one|any|used|defined|called|based|designed|intended)\b|means\b|refers?\s+to\b|describes?\b"
_DOES = r"(?:\w+ly\s+)?(?!(?:is|was|has|does|as|needs|requires)\s)(?:[a-z]+[^\Ws]s|can|may|will)\s"


def rows_in_full(document: ReadDocument, short: str, long: str) -> range:
    """Rows that say what the thing is that a short form stands for; none where nothing does.

    That is a sentence that begins with it ("Depth of water (DOW) is the …") or with the short form,
    else what stands under a line that has it alone.
    """
    sentences, terms_of = document.text.sentences, document.index.analyser.terms
    written = r"[\s-]+".join(map(re.escape, re.split(r"[\s-]+", long)))
    name = rf"\W*(?:(?:the|an?)\s+)?{written}s?(?:\s*[(\[]\W*{re.escape(short)}s?\W*[)\]])?"
    in_short = rf"\W*(?:(?:the|an?)\s+)?(?-i:{re.escape(short)}s?)"
    begins = [
        re.compile(rf"{called},?\s+(?:{says})", re.I)
        for says in (_IS, _DOES) for called in (name, in_short)
    ]  # fmt: skip
    alone = re.compile(rf"(?:[\d.]+\s+)?{name}[\s.:]*", re.I)
    among = sorted({
        *islice(rows_with(document, terms_of(short)), MOST_LOOKED_AT),
        *islice(rows_with(document, terms_of(long)), MOST_LOOKED_AT),
    })  # fmt: skip
    for pattern in begins:
        for row in among:
            said = sentences[row]
            is_told = said.kind in ("body", "item") and not said.text.endswith("?")
            if is_told and pattern.match(said.text):
                return range(row, row + 1)
    spoken = re.compile(rf"\b(?:{written}|{re.escape(short)})", re.I)
    for row in among:
        head = sentences[row]
        if head.kind in ("heading", "body", "item") and alone.fullmatch(head.text):
            after = [k for k in range(row + 1, row + 1 + MOST_SAID) if k < len(sentences)]
            below = [sentences[k] for k in after]
            under = [s for s in below if s.paragraph == below[0].paragraph and s.kind == "body"]
            if under and seems_to_have_verb(under[0].text) and spoken.search(under[0].text):
                return range(row + 1, row + 1 + len(under))
    return range(0)


def is_defined_in_full(text: str, short: str) -> bool:
    """Whether a sentence that spells a short form out goes on with what it is: "DOW (…) is a …"."""
    says = re.compile(rf"\b{re.escape(short)}\W{{0,3}}\s*(?:\([^)]*\),?\s*)?(?:{_IS})", re.I)
    return says.search(text) is not None
