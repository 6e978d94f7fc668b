"""What a reader asks of each kind of document, each filled with the document's own sentences."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers import WHOLE
from wide_margin.core.answers.within import allowed_sentences
from wide_margin.core.digest.gist import GistLine, gist_lines
from wide_margin.core.digest.kinds import DocumentKind
from wide_margin.core.digest.roles import CUES, OUTLINES, Role
from wide_margin.core.digest.sentences import without_asides
from wide_margin.core.digest.telling import (
    decides,
    naming,
    said_in_front,
    says_what_it_is,
    tells,
    tells_besides,
)
from wide_margin.core.digest.telling_abroad import told_abroad
from wide_margin.core.explain import tell_changes
from wide_margin.core.explain.definitions import without_notes
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.digest.gist import Scored
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.geometry import BoolArray, FloatArray

MOST_LINES = 3
OF_NAMED = 1.2
"""For a sentence that says what the thing in the title is."""
OF_CUE, OF_ROLE, OF_PRIOR, OF_PLACE, OF_TELLING = 1.0, 0.9, 1.2, 0.3, 1.0
"""What counts for a sentence: its wording, its section's role, its prior, its place, and whether
its words decide."""
FRONT = 0.1
"""Share of a document, from its first sentence, in which its purpose is usually said."""
FRONT_ROWS = 60
"""Sentences that are near the front of any document."""
LONG = 2000
"""Sentences above which one outside the usual sections must speak of the document itself."""
MANY_SENTENCES = 300
OF_MANY = 0.2
"""The more sentences there are to choose from, the more one has to show: added to LEAST for each
tenfold of MANY_SENTENCES."""
LEAST = 1.15
"""Below this nothing is claimed: "not stated"."""
STATED = 0.4
"""In a digest a slot is filled from this chance on; asked for it, a reader is shown less sure ones
as such."""
OF_WEAK, OF_TOLD, STEEP = 2.0, 2.2, 3.0
"""The score at which it is as likely right as not, in words that may tell it and in words that
decide, and how fast that changes: of 25 answers to questions about eight documents one of five was
right below 2.0, 18 of 20 above."""
OF_DETAIL = 0.3
"""The chance at most that a sentence deep in the document says what one says near the front: a
word like "because" stands in many of them."""
SAID_PLAINLY = frozenset(["method", "result", "change", "data"])
"""Of what else than words that decide seems to tell these, hardly a tenth does: some seventy answers
on two hundred documents were looked at."""
OF_NO_SECTION = 0.5
"""The chance of a slot that has no usual section, whose scores tell less."""
NEXT_TO_BEST = 0.75
"""A further sentence must reach this share of the best one's score."""


@dataclass(frozen=True, slots=True)
class Slot:
    """One thing to know of a kind of document."""

    name: str
    """As it is called in the digest."""
    cue: str
    """Its wording: a name in CUES."""
    roles: tuple[Role, ...] = ()
    """Sections where it is usually said."""
    late: bool = False
    """Whether it is rather said near the end."""
    of_others: tuple[Role, ...] = ()
    """Sections where it is rather said of the work of others."""


@dataclass(frozen=True, slots=True)
class Filled:
    """A slot and the sentences that fill it; none where the document does not state it."""

    slot: Slot
    lines: tuple[GistLine, ...]
    sure: float = 0.0
    """The chance that they say what is asked for, 0 to 1."""


AIM = Slot("Aim", "purpose", (Role.ABSTRACT, Role.INTRODUCTION))
_OPENS = (Role.ABSTRACT, Role.INTRODUCTION)
LIMITS = Slot("Limits", "limit", (Role.DISCUSSION, Role.CONCLUSION), late=True, of_others=_OPENS)
CONCLUSION = Slot("Conclusion", "conclusion", (Role.CONCLUSION, Role.DISCUSSION), late=True)
NEXT = Slot("What comes next", "next", (Role.CONCLUSION, Role.DISCUSSION), late=True)
WHY = Slot("Why it was made", "why", (Role.INTRODUCTION, Role.ABSTRACT))
PURPOSE = Slot("Purpose", "purpose", (Role.INTRODUCTION, Role.ABSTRACT))
AUDIENCE = Slot("For whom", "audience", (Role.INTRODUCTION,))
NEEDS = Slot("Needed first", "needs", (Role.INTRODUCTION, Role.THANKS))
WARNINGS = Slot("Warnings", "warning")
DATA = Slot("Data", "data", (Role.METHOD, Role.RESULTS))
CHANGES = Slot("Changes", "change", (Role.INTRODUCTION,))

SLOTS: dict[DocumentKind, tuple[Slot, ...]] = {
    DocumentKind.ARTICLE: (
        AIM, WHY, Slot("Method", "method", (Role.METHOD, Role.ABSTRACT)), DATA,
        Slot("Findings", "result", (Role.RESULTS, Role.CONCLUSION, Role.ABSTRACT), late=True),
        LIMITS, CONCLUSION, NEXT,
    ),
    DocumentKind.THESIS: (
        Slot("Question", "purpose", (Role.INTRODUCTION, Role.ABSTRACT)), WHY,
        Slot("Method", "method", (Role.METHOD,)), DATA,
        Slot("Findings", "result", (Role.RESULTS, Role.CONCLUSION), late=True),
        LIMITS, CONCLUSION, NEXT,
    ),
    DocumentKind.MANUAL: (
        PURPOSE, AUDIENCE, NEEDS, Slot("Main procedures", "procedure", (Role.BODY,)), WARNINGS,
        LIMITS, CHANGES,
    ),
    DocumentKind.REPORT: (
        Slot("What it reports on", "purpose", (Role.ABSTRACT, Role.INTRODUCTION)),
        Slot("Figures", "money"), Slot("Findings", "result", (Role.RESULTS, Role.ABSTRACT)),
        Slot("Decisions", "decision"),
        Slot("Recommendations", "recommendation", (Role.CONCLUSION,)), NEXT,
    ),
    DocumentKind.STATUTE: (
        PURPOSE, Slot("Definitions", "definition"), Slot("Duties", "duty"),
        Slot("Rights", "right"), Slot("Dates and sums", "money"),
        Slot("Exceptions", "exception"),
    ),
    DocumentKind.NARRATIVE: (
        Slot("Course", "story"), Slot("Lines worth remembering", "remark"),
    ),
    DocumentKind.FORM: (PURPOSE, Slot("Duties", "duty"), Slot("Dates and sums", "money")),
    DocumentKind.OTHER: (PURPOSE, AUDIENCE, Slot("Findings", "result"), LIMITS, CONCLUSION, NEXT),
}  # fmt: skip


_HOW_THESE = regex(r"\b(?:how|why) (?:these|they|those)(?: \w+ \w+)? (?:are|were|can|have)\b")
"""Says how something is done that only the sentence before names."""


def fill(
    document: ReadDocument,
    scored: Scored,
    slot: Slot,
    rows: Sequence[int],
    most: int = MOST_LINES,
    *,
    only_told: bool = False,
) -> Filled:
    """The sentences that say what a slot asks for, the best ones, in reading order.

    Args:
        document: Where they stand.
        scored: Its sentences.
        slot: What is asked for.
        rows: The sentences of the reach.
        most: How many at most.
        only_told: Whether only those are taken that say it in words that decide.
    """
    scores, telling = slot_scores(document, scored, slot, rows)
    has_words = decides(slot.cue)
    if only_told and has_words:
        scores = np.where(telling, scores, 0.0)
    order = [int(k) for k in np.argsort(-scores, kind="stable")[:12]]
    best = float(scores[order[0]]) if order else 0.0
    least = LEAST + OF_MANY * max(0.0, float(np.log10(max(len(rows), 1) / MANY_SENTENCES)))
    if best < least:
        return Filled(slot, ())
    is_told = bool(telling[order[0]])
    picked: list[int] = []
    for k in order:
        if len(picked) == most:
            break
        enough = scores[k] >= max(least, NEXT_TO_BEST * best) and (telling[k] or not is_told)
        if enough and not _repeats(scored, rows[k], picked):
            picked.append(rows[k])
    chance = _chance(slot, best, OF_TOLD if is_told else OF_WEAK)
    if not is_told and (said_in_front(slot.cue) or slot.cue in SAID_PLAINLY):
        chance = min(chance, OF_DETAIL)
    return Filled(slot, gist_lines(document, _with_what_is_meant(document, picked)), chance)


def _with_what_is_meant(document: ReadDocument, rows: Sequence[int]) -> list[int]:
    """Rows in reading order, each that goes on about what was named before it with that."""
    sentences = document.text.sentences
    meant = [
        row - 1 for row in rows
        if row and _HOW_THESE.search(sentences[row].text)
        and sentences[row - 1].paragraph == sentences[row].paragraph
    ]  # fmt: skip
    return sorted({*rows, *meant})


def _chance(slot: Slot, score: float, even: float) -> float:
    """How likely what scores so is right."""
    if not slot.roles:
        return OF_NO_SECTION
    return float(1.0 / (1.0 + np.exp(-STEEP * (score - even))))


def n_in_front(n: int) -> int:
    """How many of n sentences, in order, are the front, where it is said what a thing is for."""
    return int(max(FRONT * n, FRONT_ROWS))


def slot_scores(
    document: ReadDocument, scored: Scored, slot: Slot, rows: Sequence[int]
) -> tuple[FloatArray, BoolArray]:
    """How surely each of some sentences says what a slot asks for; 0 without its wording.

    Returns:
        (n,) scores, and (n,) whether each says it in words that decide.
    """
    cue, sentences, language = CUES[slot.cue], document.text.sentences, document.index.language
    # A long table of contents takes none of the front.
    at = np.cumsum(allowed_sentences(document, WHOLE))
    n = max(int(at[-1]) if len(at) else 0, 1)
    scores, telling = np.zeros(len(rows)), np.zeros(len(rows), dtype=bool)
    is_long = len(rows) > LONG
    names = naming(scored.names)
    stands = np.isfinite(scored.prior)
    front = n_in_front(n)
    aside = tells_news(document) if slot.cue == "purpose" else frozenset()
    for k, row in enumerate(rows):
        if not stands[row]:
            continue
        sentence = sentences[row]
        if sentence.section in aside:
            continue
        role = role_at(scored, sentence.section)
        if role in (Role.LEGAL, Role.THANKS) and role not in slot.roles:
            continue
        is_usual = not slot.roles or role in slot.roles
        if is_long and not is_usual and row not in scored.on_itself:
            continue
        if slot is PURPOSE and OUTLINES.search(sentence.text):
            continue  # "Section 2 presents the goals"
        text = without_asides(sentence.text).replace(" …", "").lower()  # what is cut tells nothing
        is_front = at[row] <= front
        is_abroad = told_abroad(slot.cue, text, language, is_front=is_front)
        n_cues = len(cue.findall(text)) + is_abroad
        if not n_cues and not is_front and not tells_besides(slot.cue):
            continue
        text = without_notes(text)
        is_told = is_abroad or tells(slot.cue, text, names, is_front=is_front)
        telling[k] = is_told and role not in slot.of_others
        if not n_cues and not telling[k]:
            continue
        in_role = OF_ROLE * (role in slot.roles) + 0.2 * (slot.roles[:1] == (role,))
        place = at[row] / n if slot.late else 1.0 - min(at[row] / front, 1.0)
        is_named = slot.cue == "purpose" and is_front and says_what_it_is(names, text)
        scores[k] = (
            OF_NAMED * is_named + OF_CUE * min(0.7 + 0.3 * n_cues, 1.3) + OF_TELLING * telling[k]
            + in_role + OF_PLACE * place
            + OF_PRIOR * float(np.clip(scored.prior[row], 0.0, 1.2)) - 0.3
            - OF_ALSO * bool(_ALSO.match(text))
        )  # fmt: skip
    return scores, telling


def tells_news(document: ReadDocument) -> frozenset[int]:
    """Positions of the sections that tell what changed; none where most of a document does."""
    found = frozenset(k for k, told in enumerate(tell_changes(document)) if told)
    return found if 2 * len(found) < len(document.outline.sections) else frozenset()


OF_ALSO = 0.4
"""Against what is told second: "This manual also describes …"."""
_ALSO = regex(r"\W*(?:[\w’'-]+\s+){1,4}also\b")


def role_at(scored: Scored, section: int) -> Role:
    """The role of a section by its position, BODY outside of all."""
    return scored.roles[section] if 0 <= section < len(scored.roles) else Role.BODY


def _repeats(scored: Scored, row: int, picked: Iterable[int]) -> bool:
    own = set(scored.terms[row].tolist())
    return any(len(own & set(scored.terms[p].tolist())) > 0.7 * max(len(own), 1) for p in picked)
