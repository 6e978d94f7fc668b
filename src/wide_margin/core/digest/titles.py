"""What a document is called: the largest type of its first pages that reads like a title.

The file's metadata helps to choose among what is printed, and gives the blanks where a title is
set letter by letter.
"""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Container, Sequence
from dataclasses import replace
from itertools import pairwise, takewhile
from typing import TYPE_CHECKING

from wide_margin.core.digest.front import (
    APART,
    APART_ON_TITLE_PAGE,
    FULL_PAGE,
    FrontLine,
    begins_abstract,
    blocks_of,
    letters_of,
    overlap_across,
    running_lines,
)
from wide_margin.core.digest.gist import initials_in
from wide_margin.core.digest.imprint import DANGLES, MONTH_NAMES, ONLY_KIND, VERSION, has_date
from wide_margin.core.digest.kinds import DEGREE_WORK
from wide_margin.core.digest.names import AUTHORS, names_going_on, names_in_line, people_in_block
from wide_margin.core.digest.roles import Role, role_of_title
from wide_margin.core.explain.short_forms import spelled_out_front
from wide_margin.core.explain.verbs import opens_clause
from wide_margin.core.later import regex
from wide_margin.core.layout import STOPS, UNSPACED, fold, is_spaced, is_torn, tidy
from wide_margin.core.lexicon import bare, squashed
from wide_margin.core.outline.candidates import is_label
from wide_margin.core.outline.numbering import number_of, unnumbered
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import NOT_LATIN, words

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

_NO_TITLES = squashed(
    "contents", "list_of", "index", "preface", "abstract", "acknowledgements", "glossary"
) | frozenset(
    ["dedication", "foreword", "widmung", "dedicace", "dedicatoria", "introduction", "einleitung", "einfuhrung", "introduccion", "introduzione", "introducao",
     "inleiding", "generalinformation", "copyright", "documents"]
)  # fmt: skip
"""What heads a part of a document is not what the document is called."""
LONGEST_TITLE, LONGEST_SUBTITLE = 30, 20
"""Words."""
LARGER = 1.05
"""So many times the usual size of its page a title has past the first one, or it is bold."""
LONGEST_SENTENCE, LARGEST = 10, 1.15
"""Words; what is longer and ends in a full stop is a sentence, unless it is set so much larger than
all that stands on the first page else."""
TITLE_PAGES = 3
LONG_TITLE = 14
"""Letters from which a printed line that is the title of the metadata is no coincidence."""
TITLE_PAGE_LINES = 8
"""A page with no more lines below its title is a title page, and no first page of text."""
_SERIES = regex(
    r"\b(?:journal of|the journal|proceedings of|transactions on|annals of|letters|bulletin of)\b",
    re.I,
)
OF_CHAPTER = 1.5
"""Taken from the score of what stands under "Chapter 1"."""
OF_KIND, OF_SERIES, LONGEST_SERIES = 1.2, 2.5, 8
"""Taken from the score of a title that only names a kind, or the journal it came out in; words."""
_POOR_TITLE = regex(
    r"^(?:untitled|no title|title|document\d*|microsoft word|slide \d|\W*)$|\.(?:docx?|tex|dvi|pdf|indd|fm|rnw)\b|^microsoft",
    re.I,
)  # fmt: skip
_SENTENCE = regex(
    r"[.!?]\s+[A-Z]|\b(?:the|of|and|a|an|to|by|from|for|with|in|on|or)$"
    r"|^(?:this|these|those|you|if|please)\b", re.I
)  # fmt: skip
"""What begins, ends within or runs over a sentence is no subtitle."""
_NO_SUBTITLE = regex(
    r"(?:generated|created|compiled|printed|published|updated|revised|released?|last (?:changed|modified|updated)|version|rev(?:ision)?)\b"
    r"|(?:date|datum|stand|fecha|data)\b(?:\s+(?:of|de|di|da)\b.*)?\s*[:\d]"
    r"|(?:copyright|©|\(c\))", re.I
)  # fmt: skip
LONGEST_NAME, TAKEN_UP = 4, 3
"""Words of a name; sentences from which on one is taken up as what the document is about."""
_IMPRINT = regex(
    r"(?:written|edited|compiled|prepared|maintained) by\b|by\s+[A-Z]|©|\(c\)|copyright\b", re.I
)
_DATE_ALONE = regex(
    rf"^\W*(?:{MONTH_NAMES}\W*)?(?:\d{{1,2}}\W+)?(?:{MONTH_NAMES}\W+)?(?:1[89]|20)\d\d\W*(?:[\da-f]{{6,12}})?$",
    re.I,
)
_VERSION_ALONE = regex(
    r"^\(?(?:(?:version|release|edition|revision)\b.{0,24}\d.{0,12}|v\.?\s?\d+(?:\.\d+)+\W*)$", re.I
)
"""A line that only names the version: "Version 2.1", "(Release : 0.9.3)"."""
_BETWEEN_DASHES = regex(r"[-–—]\s+(?P<said>\w.*?)\s+[-–—]$")
"""Says of what kind a document is, below its name: "– Users' guide –"."""
OF_TITLE = 0.75
"""Share of the largest line's size that each line of a title has; smaller ones are a subtitle."""
_STATE = regex(
    r"\W*(?:(?:first|final|working|preliminary|early) )?(?:draft|entwurf|brouillon|borrador|bozza|rascunho|concept|confidential|preprint"
    r"|preliminary(?: version)?|internal|unclassified)(?: (?:version|copy|only))?\W*$",
    re.I,
)
"""Says in which state a document is."""
_SIGNS, FEW_SIGNS = regex(r"[\[\]\\^`~|{}]|(?<=[^\W_])!(?=[^\W_])"), 4
"""Signs of code, and how many of them no title has."""
_NO_NAME = regex(r"\.(?:[a-z]|/)")
"""The name of a sign in a font, or a path."""
_YEARS_FIRST = regex(
    r"\W*(?:copyright\s*)?(?:©\s*)?(?:19|20)\d\d(?:\s*[-–,]\s*(?:19|20)\d\d)*,\s+\w", re.I
)
"""Since when somebody holds the rights: "1999-2021, the Harbour Office"."""
_NAMES_THEM = regex(rf"\W*(?:{AUTHORS})\s*:", re.I)
"""Says who wrote it: "Authors:"."""
_OTHER = (
    r"(?:previous|prev|next|zurück|weiter|précédent|suivant|anterior|siguiente|próximo|precedente|successivo|vorige|volgende"
    r"|föregående|nästa|forrige|neste|næste|poprzedni\w*|następn\w+|назад|далее|предыдущ\w+|следующ\w+|προηγ\w*|επόμεν\w+"
    r"|[上下前后後]一?[页頁]|戻る|次へ|前へ|이전|다음|السابق|التالي)"
)
_TO_OTHERS = regex(rf"\W*{_OTHER}(?!\w).*(?<!\w){_OTHER}\W*$", re.I)
"""Leads to the pages on both sides of one from the web: "Previous The Harbour Handbook Next"."""
_BELONGS = regex(r"\s[|–—·-]\s")
OF_PAGE = 3.0
"""What counts for the words before the first dash of the title that the file has."""
GOES_ON = 2.2
"""Sizes of its letters between two lines of a subtitle, at most."""
ALIKE = 0.5
"""Share of its words from which a title is that of the file in other words."""
SAYS = 7
"""Words of a sentence; a subtitle of fewer may have a verb."""


OF_TITLE_PAGE, LEAST_SAID = 0.7, 4
"""For a first page that has little else than what is set largest and has so many words."""
OF_RUNNING_HEAD = 1.5
"""For what stands at the head of more than one of the first pages too."""
OF_PEOPLE, OF_NAMED_KIND = 1.5, 0.7
"""Against lines that say who wrote it, and for those that end with the kind of work they name."""
_NAMED_KIND = regex(
    r"\w\W+(?:guide|manual|handbook|tutorial|reference|documentation|specification|handbuch|anleitung|manuel"
    r"|manuale|guida|handleiding)\W*$", re.I
)  # fmt: skip
"""A thing and the kind of work: "Console and Operators Guide"."""


_NO_PERSON = regex(
    r"\b(?:summary|overview|notes|primer|introduction|reference|guide|manual|handbook|tutorial|package|library|toolkit|cookbook"
    r"|documentation|specification|report|faq|howto)\W*$", re.I
)  # fmt: skip
"""Ends what is written like a name and is none: "Quorble Summary"."""
_DASH = r"[^\w\s,;.()\[\]]+"
"""A dash, and whatever sign a font has in its place."""
COMMAND = regex(rf"(?P<name>\S+(?:,\s+\S+)*)\s+{_DASH}\s+(?P<says>\w.*)")
"""What stands under "NAME" on the page of a command: "ls - list files"."""
_SAYS = regex(rf"\w\s+{_DASH}\s+\w")
UNDER_NAME = squashed("name")
"""The heading with which the page of a command begins, squashed, in any language."""


OF_LATER, OF_SMALLER = 0.95, 0.5
"""Share of the size of what may be the title on an earlier page, under which a later one is the
heading of a section, and what that takes from its score."""
OF_ITS_SCRIPT, OF_OTHER_SCRIPT = 1.0, 4.0
"""What it counts that a title is in the signs of its document, where another language stands beside,
and against it that it has no Latin letter where the document is written in those."""
_LATIN = regex(r"[A-Za-zÀ-ɏ]")
_DEGREE_WORK = regex(rf"[\u4e00-\u9fff]{{0,6}}(?:{DEGREE_WORK})$")
"""Says that a document is a thesis, and not what it is called."""
_UNSPACED = regex(f"[{UNSPACED}\uac00-\ud7af]")


def title_of(document: ReadDocument, lines: Sequence[FrontLine]) -> list[FrontLine]:
    """The lines of the title: the largest type of the first pages that reads like one."""
    named = metadata_title(document)
    wanted = named or _named_as_file(document.facts.title)
    if spaced := _spaced_title(lines, wanted) or _in_lines(lines, wanted):
        return spaced
    if named_in_page := _title_of_command(lines):
        return named_in_page
    people = _people(document, lines)
    heads = _repeated_heads(document)
    is_unspaced = document.index.language in ("zh", "ja", "ko")
    best: list[FrontLine] = []
    best_score = 0.0
    for page in range(TITLE_PAGES):
        on_page = [line for line in lines if line.page == page]
        is_title_page = len(on_page) <= TITLE_PAGE_LINES + 4
        rivals = [
            line for line in on_page
            if line.text not in people and not _DATE_ALONE.match(line.text)
        ]  # fmt: skip
        blocks = list(blocks_of(on_page, APART_ON_TITLE_PAGE if is_title_page else APART))
        is_of_title = page == 0 and is_title_page and any(_is_largest(b, on_page) for b in blocks)
        for block in blocks:
            block = _without_imprint(block, people)
            score = _title_score(block, rivals or on_page, named, document.facts.author)
            is_of_people = all(
                line.text in people or _ADDRESSES.fullmatch(line.text) for line in block
            )
            is_of_people &= _NO_PERSON.search(block[-1].text) is None
            score -= OF_PEOPLE * is_of_people
            score -= OF_CODE * any(document.paragraphs[k.paragraph].kind == "code" for k in block)
            score += OF_TITLE_PAGE * (score > 0 and is_of_title and not is_of_people)
            said = letters_of(" ".join(line.text for line in block))
            score += OF_RUNNING_HEAD * (score > 0 and said in heads)
            score -= OF_KIND * bool(_DEGREE_WORK.match(said))
            score += OF_ITS_SCRIPT * (score > 0 and is_unspaced and bool(_UNSPACED.search(said)))
            is_foreign = document.index.language not in NOT_LATIN and _LATIN.search(said) is None
            score -= OF_OTHER_SCRIPT * is_foreign
            before = letters_of(" ".join(line.text for line in best))
            is_later = bool(best) and best[0].page < page and before not in said
            score -= OF_SMALLER * (is_later and _size(block) < OF_LATER * _size(best))
            if score > best_score and said != before:
                best, best_score = block, score
    return _in_running_head(document, best, named) or _whole(best, lines)


def _size(block: Sequence[FrontLine]) -> float:
    """The largest type of some lines, in points."""
    return max(line.size for line in block)


def _in_lines(lines: Sequence[FrontLine], named: str) -> list[FrontLine]:
    """The lines of the first page that are the file's title together, each set in its own size."""
    wanted = letters_of(named)
    first = [line for line in lines if not line.page]
    for k, line in enumerate(first):
        together, said = [line], letters_of(line.text)
        while (
            said and said != wanted and wanted.startswith(said) and k + len(together) < len(first)
        ):
            together.append(first[k + len(together)])
            said += letters_of(together[-1].text)
        sizes = [each.size for each in together]
        if len(together) > 1 and said == wanted and min(sizes) >= OF_TITLE * max(sizes):
            return together
    return []


def _whole(title: list[FrontLine], lines: Sequence[FrontLine]) -> list[FrontLine]:
    """A title with what stands under it that it asks for: "Introduction to", and what to.

    After a name with a colon, and the mark of a note, that is all that is set as large.
    """
    if not title:
        return title
    title = _in_two_faces(title, lines)
    last = title[-1]
    is_name = _NAME_AND_COLON.match(last.text) is not None
    if not is_name and not DANGLES.search(last.text):
        return title
    below = [line for line in lines if line.page == last.page and line.top > last.top]
    alike = list(takewhile(lambda line: abs(line.size - last.size) <= 0.1 * last.size, below))
    if not is_name or not alike:
        return [*title, *alike[:1]]
    if sum(len(line.text.split()) for line in alike) > LONGEST_TITLE:
        return title  # text, under its own first words
    return [*title[:-1], replace(last, text=last.text.rstrip(_OF_NOTE)), *alike]


def _in_two_faces(title: list[FrontLine], lines: Sequence[FrontLine]) -> list[FrontLine]:
    """A title that goes on in small letters in another face, with the line before or after."""
    near = [
        line for line in lines
        if line.page == title[0].page and abs(line.size - title[0].size) <= 0.1 * line.size
    ]  # fmt: skip
    for one, other in pairwise(near):
        is_next = 0 < other.top - one.top <= APART * one.size and overlap_across(one, other)
        goes_on = other.text[:1].islower() and not one.text.endswith(tuple(STOPS))
        if is_next and goes_on and (one is title[-1] or other is title[0]):
            return [one, *title] if other is title[0] else [*title, other]
    return title


_NAME_AND_COLON, _OF_NOTE = regex(r"\S[^:]{0,40}:\s*[\d*∗†‡]?$"), " 0123456789*∗†‡"
"""A name with a colon and the mark of a note; and what may stand after the colon."""


def _in_running_head(
    document: ReadDocument, best: Sequence[FrontLine], named: str
) -> list[FrontLine]:
    """The running head of a first page that is the file's title, where nothing else is like it."""
    said = " ".join(line.text for line in best)
    if not named or (best and (best[0].page == 0 or overlap(said, named) > ALIKE)):
        return []
    heads = (line for line in running_lines(document) if line.page < TITLE_PAGES)
    return [head for head in heads if letters_of(head.text) == letters_of(named)][:1]


def _repeated_heads(document: ReadDocument) -> frozenset[str]:
    """The letters of what stands at the head or foot of more than one of the first pages."""
    pages: defaultdict[str, set[int]] = defaultdict(set)
    for line in running_lines(document):
        for part in {line.text, *line.text.split("\t")}:
            if number_of(part) is None:
                pages[letters_of(part)].add(line.page)
    return frozenset(said for said, on in pages.items() if len(on) > 1 and len(said) >= LONG_TITLE)


def _people(document: ReadDocument, lines: Sequence[FrontLine]) -> frozenset[str]:
    """Lines that are the name of somebody: the file's author, or one whom the text hardly names."""
    index, author, found = document.index, fold(document.facts.author), set()
    for line in lines:
        names = names_in_line(line.text)
        if len(names) != 1 or len(line.text.split()) > LONGEST_NAME or _CLOSED.search(line.text):
            continue
        if any(is_common(word, "en") for word in words(names[0])):
            continue  # "Not Yet Another Well"
        if initials_in(document, names[0]) or _stands_over_people(line, lines):
            continue  # "Harbour Entry Register", the HER
        stems = index.analyser.terms(names[0].split()[-1].lower())
        rows = [index.term_ids[stem] for stem in stems if stem in index.term_ids]
        often = min((len(index.by_sentence.of(row)[0]) for row in rows), default=0)
        if (author and fold(names[0]) in author) or often < TAKEN_UP:
            found.add(line.text)
    return frozenset(found)


def _stands_over_people(line: FrontLine, lines: Sequence[FrontLine]) -> bool:
    """Whether a line is set largest on its page, and smaller ones below name who wrote it."""
    others = [other for other in lines if other.page == line.page and other is not line]
    if any(OVER_PEOPLE * other.size > line.size for other in others):
        return False
    return any(names_in_line(other.text) for other in others if other.top > line.top)


OVER_PEOPLE = 1.2
"""So many times the size of all else a title has that is written like a name."""
_CLOSED = regex(r"[^\W\d_]{5}\.\s*$")
"""Ends in a full stop as no name does: "Plain-Weave Patterns."."""


def _without_imprint(block: list[FrontLine], people: Container[str]) -> list[FrontLine]:
    """The lines of a title up to those that say who and when, where all are set alike."""
    for k, line in enumerate(block[1:], start=1):
        following = block[k + 1].text if k + 1 < len(block) else ""
        is_person = line.text in people and (
            k + 1 == len(block) or bool(_DATE_ALONE.match(following))
        )
        if (
            _IMPRINT.match(line.text)
            or _BETWEEN_DASHES.match(line.text)
            or _VERSION_ALONE.match(line.text)
            or _DATE_ALONE.match(line.text)
            or is_person
        ):
            return block[:k]
    return block


def _title_of_command(lines: Sequence[FrontLine]) -> list[FrontLine]:
    """The line under "NAME" with which the manual page of a command begins: "ls - list files"."""
    for k, line in enumerate(lines[:3]):
        is_heading = bare(line.text) in UNDER_NAME and k + 1 < len(lines)
        if is_heading and _SAYS.search(lines[k + 1].text):
            at = lines[k + 1].page, lines[k + 1].paragraph
            return [each for each in lines[k + 1 :] if (each.page, each.paragraph) == at]
    return []


def parted_command(
    document: ReadDocument, lines: Sequence[FrontLine], title: Sequence[FrontLine]
) -> tuple[str, str]:
    """The name of a command, and what it is; "" twice where the document is on none."""
    if not title or list(title) != _title_of_command(lines):
        return "", ""
    match = COMMAND.match(tidy(document.paragraphs[title[0].paragraph].text))
    return (match["name"], match["says"]) if match else ("", "")


def _title_score(
    block: Sequence[FrontLine], on_page: Sequence[FrontLine], named: str, author: str
) -> float:
    text = " ".join(line.text for line in block)
    n_words, n_letters = len(text.split()), sum(line.n_letters for line in block)
    is_short = n_letters < 3 and letters_of(text) != letters_of(named)
    if is_short or n_words > LONGEST_TITLE or begins_abstract(text):
        return 0.0
    if any(none.match(text) for none in (_NO_NAME, _YEARS_FIRST, _NAMES_THEM, _TO_OTHERS)):
        return 0.0
    if (author and fold(author) in fold(text)) or _ADDRESSES.fullmatch(text):
        return 0.0
    if _VERSION_ALONE.match(text) or _STATE.match(text) or _is_formula(text):
        return 0.0
    if block[0].page and role_of_title(text) is Role.LEGAL:
        return 0.0
    number = number_of(text)
    if bare(number.rest if number else text) in _NO_TITLES or is_torn(text) or _is_code(text):
        return 0.0
    if len(_OPERATORS.findall(text)) >= FEW_OPERATORS or _is_of_table(text) or _are_names(text):
        return 0.0
    largest = max(line.size for line in on_page)
    usual = sorted(line.size for line in on_page for _ in line.text)[
        sum(len(line.text) for line in on_page) // 2
    ]
    size = _size(block)
    others = max((line.size for line in on_page if line not in block), default=0.0)
    is_large = not block[0].page and size >= LARGEST * others
    if n_words > LONGEST_SENTENCE and text.endswith(tuple(STOPS)) and not is_large:
        return 0.0
    is_bold = any(line.is_bold for line in block)
    stands_alone = len(on_page) <= FEW_LINES and size == largest
    if block[0].page and not is_bold and size < LARGER * usual and not stands_alone:
        return 0.0  # text, past the first page
    score = 2.0 * min(size / largest, 1.0) - 0.6 * block[0].page
    score += min(size / max(usual, 1.0), 2.5)
    score += 0.4 * is_bold
    score -= 0.8 * (block[0].top > 450)
    score -= 1.5 * (number is not None and number.scheme == "decimal")
    score -= 1.2 * (n_letters < 0.5 * len(text.replace(" ", "")))
    score -= 1.0 * (len(block) == 1 and bool(names_in_line(text)) and size < largest)
    score -= OF_PEOPLE * (_is_of_people(block) or bool(_COMPANY.search(text)))
    only_kind = bool(ONLY_KIND.match(text))
    score += OF_NAMED_KIND * (bool(_NAMED_KIND.search(text)) and not only_kind)
    score -= OF_CHAPTER * _is_of_chapter(block, on_page)
    score -= OF_KIND * only_kind
    score -= OF_SERIES * (bool(_SERIES.search(text)) and n_words <= LONGEST_SERIES)
    if named:
        score += 3.0 * overlap(text, named)
        # A page from the web says what it is before it says where it belongs.
        first, *rest = _BELONGS.split(unnumbered(named))
        score += OF_PAGE * overlap(unnumbered(text), first) * bool(rest)
    return score


OF_CODE = 0.6
"""Against what is set as code is."""
FEW_LINES = 4
"""A page past the first with so few lines may bear the title in the size of all of them."""
_ADDRESSES = regex(r"(?:[\w.+-]+@[\w-]+\.[\w.-]+[\s,;]*)+")
_OPERATORS = regex(r"[=±÷∀-∑∓-⋿]")
LEAST_OF_ROW, OF_NUMBERS = 8, 0.3
"""Words of a text of which so large a share has figures, that it is the row of a table."""
MOSTLY_SMALL = 0.9
"""Share of its words that begin with small letters or figures in a row of names."""
LEAST_LETTERS = 3
"""Letters of a short form that is a title."""
FEW_OPERATORS = 3
"""Signs of mathematics in one text from which on it is a formula."""


def _is_largest(block: Sequence[FrontLine], on_page: Sequence[FrontLine]) -> bool:
    """Whether some lines are set largest on their page, and say more than a name or a kind."""
    text = " ".join(line.text for line in block)
    is_said = len(text.split()) >= LEAST_SAID and not ONLY_KIND.match(text)
    is_said &= VERSION.search(text) is None
    return is_said and block[0].size == max(line.size for line in on_page)


def _is_formula(text: str) -> bool:
    """Whether a text is made of single letters and signs: "q = Q u", and not "W e l l s"."""
    if is_spaced(text) or _UNSPACED.search(text):
        return False
    return max(map(len, text.split()), default=0) <= 1 < len(text.split())


def _is_code(text: str) -> bool:
    """Whether a text has signs where words have letters: of a font that gives no meanings."""
    return len(_SIGNS.findall(text)) >= FEW_SIGNS


def _is_of_table(text: str) -> bool:
    """Whether a text has a number in every third word: "A 0041 B 0042 C 0043"."""
    told = text.split()
    n_numbers = sum(2 * sum(map(str.isdigit, word)) >= len(word) for word in told)
    return len(told) >= LEAST_OF_ROW and n_numbers >= OF_NUMBERS * len(told)


def _are_names(text: str) -> bool:
    """Whether a text is a row of names in small letters, with no small word: "comma period space"."""
    said = list(words(text))
    small = sum(word[0].islower() or word[0].isdigit() for word in text.split())
    is_small = small >= MOSTLY_SMALL * len(text.split())
    return len(said) >= LEAST_OF_ROW and is_small and not any(is_common(w, "en") for w in said)


def _is_of_people(block: Sequence[FrontLine]) -> bool:
    """Whether lines say who, with addresses, or several names: "A. Holm, B. Aas, and C. Vik"."""
    if len(block) == 1:
        return "@" in block[0].text
    names = [names_in_line(line.text.rstrip(", ")) for line in block]
    n_lines, n_commas = sum(map(bool, names)), sum(line.text.count(",") for line in block)
    return any("@" in line.text for line in block) or (2 * n_lines >= len(block) and n_commas > 1)


def _is_of_chapter(block: Sequence[FrontLine], on_page: Sequence[FrontLine]) -> bool:
    """Whether it stands under a line that only says "Chapter 1", or begins so."""
    before = [line for line in on_page if line.top < block[0].top]
    near = max(before, key=lambda line: line.top, default=None)
    # The number of "Chapter 1" may stand apart.
    begins = is_label(block[0].text) or is_label(f"{block[0].text} 1")
    return begins or (near is not None and is_label(near.text))


def closed_up(text: str) -> str:
    """A text set letter by letter as words: "W e l l s" is "Wells"."""
    return re.sub(r"(?<=\b\w) (?=\w\b)", "", text) if is_spaced(text) else text


def metadata_title(document: ReadDocument) -> str:
    """The title that the file's metadata gives, where it can be one."""
    title = document.facts.title
    is_person = bool(names_in_line(title)) and len(title.split()) <= 4
    is_person &= not document.facts.author
    return "" if _POOR_TITLE.search(title) or is_person or _COMPANY.search(title) else title


_COMPANY = regex(
    r"\b(?:limited|ltd|inc|incorporated|corp|corporation|llc|plc|gmbh|co\. kg|b\.v|s\.r\.l|s\.p\.a|e\. ?v)\W*$",
    re.I,
)
"""Ends the name of a company or a society."""


_AS_FILE = regex(
    r"(?:microsoft \w+ - )?(?P<name>[^/\\]+)\.(?:docx?|odt|rtf|tex|dvi|pdf|pptx?)\s*", re.I
)
"""The name of the file that a document was made from, as its metadata have it for a title."""


def _named_as_file(title: str) -> str:
    """What a file is called that was made into the document; its letters may be those of the title."""
    match = _AS_FILE.fullmatch(title)
    return match["name"] if match else ""


def _spaced_title(lines: Sequence[FrontLine], named: str) -> list[FrontLine]:
    """Lines that are the metadata's title to the letter.

    They are set letter by letter ("A  R E P O R T"), or stand on the first page and are long.
    """
    wanted, found = letters_of(named), list[list[FrontLine]]()
    for k, line in enumerate(lines):
        if not is_spaced(line.text) and (line.page or len(wanted) < LONG_TITLE):
            continue
        for end in range(k + 1, min(k + 4, len(lines) + 1)):
            if abs(lines[end - 1].size - line.size) > 0.1 * line.size:
                break  # a subtitle
            if wanted and letters_of("".join(part.text for part in lines[k:end])) == wanted:
                found.append(list(lines[k:end]))
    return max(found, key=lambda block: block[0].size, default=[])  # a half title is smaller


def overlap(one: str, other: str) -> float:
    """Share of the words of two texts that are in both."""
    a, b = ({w for w in re.findall(r"\w+", text.casefold())} for text in (one, other))
    return 2 * len(a & b) / (len(a) + len(b)) if a and b else 0.0


def after_title(lines: Sequence[FrontLine], title: Sequence[FrontLine]) -> list[FrontLine]:
    """What follows the title on its page, up to the abstract, the first heading or running text."""
    if not title:
        return [line for line in lines if line.page == 0]
    found: list[FrontLine] = []
    n_lines = sum(line.page == title[0].page for line in lines)
    is_full = n_lines > FULL_PAGE
    for line in lines:
        if line.page != title[0].page or line.top <= title[-1].top or line in title:
            continue
        if is_full and not any(overlap_across(line, part) for part in title):
            continue  # the text of another column
        runs_on = n_lines > TITLE_PAGE_LINES and _is_running_text(line, found)
        if begins_abstract(line.text) or runs_on:
            break
        found.append(line)
    return found


def _is_running_text(line: FrontLine, before: Sequence[FrontLine]) -> bool:
    words = line.text.split()
    n_small = sum(word[:1].islower() for word in words)
    runs_on = len(words) >= 9 and n_small >= 0.6 * len(words)
    return runs_on and bool(before)


def _with_rest(block: list[FrontLine], rest: Sequence[FrontLine]) -> list[FrontLine]:
    """A block with the lines below that go on with it: alike, near, in small letters."""
    for line in rest[len(block) :]:
        last = block[-1]
        near = line.page == last.page and 0 < line.top - last.top <= GOES_ON * last.size
        goes_on = line.text[:1].islower() or bool(DANGLES.search(last.text))
        if not near or abs(line.size - last.size) > 0.1 * last.size or not goes_on:
            break
        block = [*block, line]
    return block


def _says(text: str) -> bool:
    """Whether a text is a sentence, whole or broken off."""
    tokens = text.lower().split()
    return len(tokens) >= SAYS and opens_clause(tokens)


def _stands_for(title: str, text: str) -> bool:
    """Whether a title is a short form, and a text all that it stands for."""
    is_short = len(title) >= LEAST_LETTERS and title.isalpha() and title.isupper()
    return is_short and spelled_out_front(text, title) == text


def without_dashes(text: str) -> str:
    """What stands between two dashes; other texts as they are."""
    match = _BETWEEN_DASHES.match(text)
    return match["said"] if match else text


def subtitle_of(title: Sequence[FrontLine], rest: Sequence[FrontLine]) -> list[FrontLine]:
    """The block right below the title, smaller than it and no name, date or version."""
    if not title or not rest:
        return []
    block = _with_rest(blocks_of(rest)[0], rest)
    block = [*takewhile(lambda line: line is block[0] or not VERSION.search(line.text), block)]
    text = " ".join(line.text for line in block)
    if _stands_for(" ".join(line.text for line in title), text):
        return block
    kinds = [line for line in rest if ONLY_KIND.match(line.text)]
    if kinds and len([line for line in rest if line.page == kinds[0].page]) <= TITLE_PAGE_LINES:
        return kinds[:1]
    close = block[0].top - title[-1].top <= 4.5 * title[-1].size
    after = {id(line): following.text for line, following in pairwise(rest)}
    reads = (
        1 < len(text.split()) <= LONGEST_SUBTITLE
        and not any(names_going_on(line.text, after.get(id(line), "")) for line in block)
        and not (text.islower() and names_in_line(text.title()))
        and not people_in_block(text)
        and not _SENTENCE.search(text)
        and not ((number := number_of(text)) and number.scheme == "decimal")
        and sum(map(str.isalpha, text)) >= 0.6 * len(text.replace(" ", ""))
        and not VERSION.search(text)
        and not has_date(text)
        and not re.match(r"by\b|\W", without_dashes(text), re.I)
        and not _NO_SUBTITLE.match(text)
        and not _says(text)
        and "@" not in text
    )
    on_page = [line for line in rest if line.page == block[0].page]
    larger = block[0].size > 1.05 * min(line.size for line in on_page)
    is_alone = len(on_page) <= TITLE_PAGE_LINES
    return block if close and reads and (larger or is_alone) else []
