"""What is set between the paragraphs of a page: formulas, and the words inside of figures."""

import re
from collections.abc import Sequence

from wide_margin.core.later import regex
from wide_margin.core.layout.model import Line
from wide_margin.core.lexicon import alternatives

FIGURE_CAPTION = regex(rf"^\s*{alternatives('figure')}\b", re.I)
FORMULA_LINES = 4
"""A formula has at most so many lines."""
WORDLESS = 0.4
"""Words of four letters and more hold at most this share of a formula's letters and signs."""
SHORT = 0.6
"""A line inside of a figure is at most this share of the text's lines wide."""
NOTE_WORDS = 3
"""A footnote has more words than a label that begins with a number ("40 m")."""
FAR = 12
"""Lines of body size farther from the caption than this many leadings are looked at no more."""
_RELATION = regex(r"[=<>≤≥≈≡∝∈∼→⇒↦±×÷∑∏∫√∂∇∞≠]|:=")
_LONG_WORD = regex(r"[^\W\d_]{4,}")
_NUMBER_AT_END = regex(r"\t?\s*\([A-Z]?\d{1,3}(?:\.\d{1,3})*[a-z]?\)\s*$")
_MATHS = regex(r"^(?:cmmi|cmsy|cmex|cmbsy|msam|msbm|eu[fsr]m|lmmath|mathematical)", re.I)
_SENTENCE = regex(r"[.!?:;][\"”’)\]]*\s*$")

Kinded = tuple[str, list[Line]]


def is_formula(group: Sequence[Line], page_lines: Sequence[Line]) -> bool:
    """Whether some lines are a displayed formula: signs rather than words, set in from the text."""
    if len(group) > FORMULA_LINES or any(line.is_fixed for line in group):
        return False
    text = " ".join(line.text for line in group)
    if not _RELATION.search(text) and not any(_MATHS.match(line.face) for line in group):
        return False  # nearly all text ends here, before anything slower is asked
    numbered = bool(_NUMBER_AT_END.search(text))
    plain = _NUMBER_AT_END.sub("", text)
    dense = plain.replace(" ", "")
    n_in_words = sum(map(len, _LONG_WORD.findall(plain)))
    if not dense or n_in_words > WORDLESS * len(dense):
        return False
    first = group[0]
    left = min(line.box[0] for line in page_lines if line.column == first.column)
    set_in = first.box[0] > left + first.size
    return set_in or numbered or (len(dense) < 40 and n_in_words <= 0.2 * len(dense))


def with_figures(groups: list[Kinded], body_size: float) -> list[Kinded]:
    """Tell words inside of figures: what stands over a figure's caption and is set unlike text."""
    kinds = [kind for kind, _ in groups]
    for row, (kind, group) in enumerate(groups):
        if kind != "caption" or not FIGURE_CAPTION.match(group[0].text):
            continue
        rows = _inside(groups, row, -1, body_size) or _inside(groups, row, 1, body_size)
        for inner in rows:
            kinds[inner] = "figure"
    return [(kind, group) for kind, (_, group) in zip(kinds, groups, strict=True)]


def _inside(groups: Sequence[Kinded], caption: int, step: int, body_size: float) -> list[int]:
    """Rows of the groups that lie in a figure, from its caption upwards or downwards."""
    lines = [line for kind, group in groups if kind == "body" for line in group]
    wide = max((line.box[2] - line.box[0] for line in lines), default=0.0)
    found: list[int] = []
    at = caption + step
    before = groups[caption][1][0]
    while 0 <= at < len(groups):
        kind, group = groups[at]
        edge = group[-1] if step < 0 else group[0]
        gap = abs(before.box[1] - edge.box[3]) if step < 0 else abs(edge.box[1] - before.box[3])
        is_note = kind == "note" and len(group[0].text.split()) > NOTE_WORDS
        if kind in ("caption", "side", "code") or is_note or edge.column != before.column:
            break
        if gap > FAR * 1.2 * body_size or not _is_label(group, wide, body_size):
            break
        found.append(at)
        before = group[0] if step < 0 else group[-1]
        at += step
    return found


def _is_label(group: Sequence[Line], wide: float, body_size: float) -> bool:
    """Whether lines are labels of a drawing rather than text or a heading."""
    first = group[0]
    if first.size > 1.05 * body_size or (first.is_bold and first.size > 0.95 * body_size):
        return False
    text = " ".join(line.text for line in group)
    unlike = first.size < 0.95 * body_size
    if unlike and not (_SENTENCE.search(text) and len(text.split()) > 8):
        return True
    parts = "\t" in text
    return all(
        (parts or line.box[2] - line.box[0] < SHORT * wide) and not _SENTENCE.search(line.text)
        for line in group
    )
