"""What a section on one thing says under labels: "Description: …", "Default: off", "Context: …"."""

from __future__ import annotations

import re
from itertools import takewhile
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.named import content_of, own_rows
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from collections.abc import Callable, Mapping, Sequence

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

LOOKED_AT, FEWEST = 24, 3
"""Sentences at a section's beginning among which labels stand, and how many there are at least."""
LABELLED = 0.9
"""The chance that what stands under the label asked for, of the thing asked about, answers: seven
of seven did that were tried on one reference."""
_LABEL = regex(r"\W*([^\W\d_][\w /-]{1,24}?)\s*[:：]\s*\S")
_ALONE = regex(r"\W*([^\W\d_][\w /-]{1,24}?)\s*(?:\([\w ]+\)\s*)?[:：]\W*")
"""A label on a line of its own, over what it is the label of."""
_THING = regex(r"<?([\w.:-]*\w)>?(?:\(\))?(?:\s+[^\W\d_][\w-]*)?\W*")
"""A title that is a name, with a word for what it is at most: "RopeLength Directive"."""
_ASKED = regex(r"<?[\w.:-]*\w>?(?:\(\))?")
_ASKS_WHAT = regex(
    r"\W*(?:what\s+(?:does|do)\s+(?:the\s+)?\S+(?:\s\w+)?\s+do|what(?:\s+is|['’]s)\s+(?:the\s+)?\S+(?:\s\w+)?(?:\s+(?:used\s+)?for)?"
    r"|was\s+(?:macht|bewirkt|ist)\s+\S+|wozu\s+dient\s+\S+|à\s+quoi\s+sert\s+\S+|que\s+(?:fait|hace)\s+\S+"
    r"|para\s+qu[ée]\s+s[ie]rve\s+\S+|a\s+cosa\s+serve\s+\S+)\s*\W*", re.I
)  # fmt: skip
"""Asks what a thing is or does."""
_SAYS_WHAT = (
    "description", "purpose", "summary", "effect", "function", "beschreibung", "zweck", "wirkung",
    "funktion", "effet", "fonction", "descripcion", "efecto", "funcion", "descricao", "efeito",
    "funcao", "descrizione", "effetto", "funzione", "beschrijving", "beskrivning", "verkan",
    "beskrivelse", "virkning", "opis", "описание", "действие", "назначение", "acıklama", "説明",
    "効果", "설명", "描述", "说明", "作用",
)  # fmt: skip
"""Labels of what a thing is or does, squashed."""


def answer_labelled(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What stands under a label in the section on a thing that a question names; else None.

    "What is the default of RopeLength?" asks for "Default: 12" under "RopeLength Directive"; what
    that does is told by its description.

    Args:
        document: It.
        typed: The question.
        search: Answers a question in the usual way, for its excerpts.
    """
    words = {word.strip("<>()").casefold() for word in _ASKED.findall(typed) if len(word) > 2}
    named = {bare(word) for word in words}
    for section, title in enumerate(document.outline.sections):
        said = title.title.casefold()
        if not any(word in said for word in words):
            continue  # most are passed over by that
        match = _THING.fullmatch(unnumbered(title.title).strip())
        if match is None or bare(match[1]) not in named or not _is_name(match[1], typed):
            continue
        labels = _labels_in(document, section)
        first, end = _rows_asked(document, typed, match[1], labels)
        if first < end:
            return told_by(document, search(typed), first, end, LABELLED)
    return None


def _is_name(name: str, typed: str) -> bool:
    """Whether a question names a thing: as it is written, or by what is no word of a language."""
    return name in typed or not name.isalpha() or frequency_rank(name.casefold()) is None


def _labels_in(document: ReadDocument, section: int) -> dict[str, tuple[int, int]]:
    """The labels with which a section begins, and the rows [first, end) of what is under each.

    None where they are too few.
    """
    rows = own_rows(document, section)
    found: dict[str, tuple[int, int]] = {}
    for k, row in enumerate(rows[:LOOKED_AT]):
        text = document.text.sentences[row].text
        if match := _LABEL.match(text):
            found.setdefault(match[1], (row, row + 1))
        elif match := _ALONE.fullmatch(text):
            under = _paragraph_at(document, rows[k + 1 :])
            if under[0] < under[1]:
                found.setdefault(match[1], under)
    return found if len(found) >= FEWEST else {}


def _paragraph_at(document: ReadDocument, rows: Sequence[int]) -> tuple[int, int]:
    """The rows [first, end) of the paragraph that rows begin with; none where it is a label."""
    sentences = document.text.sentences
    if (
        not rows
        or _LABEL.match(sentences[rows[0]].text)
        or _ALONE.fullmatch(sentences[rows[0]].text)
    ):
        return 0, 0
    one = sentences[rows[0]].paragraph
    of_it = list(takewhile(lambda row: sentences[row].paragraph == one, rows))
    return of_it[0], of_it[-1] + 1


def _rows_asked(
    document: ReadDocument, typed: str, name: str, labels: Mapping[str, tuple[int, int]]
) -> tuple[int, int]:
    """The rows [first, end) under the one label asked for; none where it is none or several."""
    if _ASKS_WHAT.fullmatch(typed):
        says = (rows for label, rows in labels.items() if bare(label) in _SAYS_WHAT)
        return next(says, (0, 0))
    asked = content_of(document, typed.replace(name, " "))
    fits = [
        rows for label, rows in labels.items()
        if (said := content_of(document, label)) and said <= asked
    ]  # fmt: skip
    return fits[0] if len(fits) == 1 else (0, 0)
