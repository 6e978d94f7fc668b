"""Answers made of the document's own sentences."""

import re
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from wide_margin.core.answers.corrections import corrections_of, is_about_another
from wide_margin.core.answers.evidence import is_enough
from wide_margin.core.answers.model import (
    WHOLE,
    Answer,
    Excerpt,
    Locator,
    Quote,
    Reach,
    locator_for,
)
from wide_margin.core.answers.question import Question, topic_of
from wide_margin.core.answers.reading import Asked, paragraphs_within, read_asked
from wide_margin.core.answers.signs import (
    asked_thing,
    begins_alike,
    counted_thing,
    counts_it,
    defined_term,
    emphasis_for,
    sign_of,
)
from wide_margin.core.geometry import BoolArray, FloatArray, IntArray
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.passages import Sentence, names_in
from wide_margin.core.search import (
    Query,
    ReadDocument,
    Weighed,
    is_common,
    leaning_on,
    rank,
    read_terms,
    turning_on,
    weigh,
)
from wide_margin.core.search.analysis import words
from wide_margin.core.search.rank import title_weights

N_EXCERPTS = 12
MAX_WORDS = 80
"""A quoted answer stops before this."""
LONGEST = 115
"""No answer has more words, list and all."""
MAX_LIST_WORDS = 50
"""The items that follow on a sentence are quoted up to this."""
FULL, FULL_LIST = 32, 60
"""With so many words an answer has enough; one more sentence may be begun before."""
LEANING_WORDS = 60
"""A sentence that leans on the quoted one is quoted with it up to so many words."""
MAX_ITEMS = 60
"""Sentences that are looked at for the items of one list."""
SHORTEST_ITEM = 8
"""Words that are left at least of an item where a long list is cut."""
LONGEST_TERM = 14
"""A described term of more words, a function with many forms, is not quoted."""
LONGEST_CODE = 24
"""What a sentence introduces in code is quoted up to so many words."""
N_STATEMENTS = 60
OF_PAGE = 10.0
"""What the evidence on its page counts for a sentence of the answer."""
OF_WORKS = 2.0
"""What it counts for a work to be asked for, and against it where none is."""
UNFIT = 6.0
"""What not reading as a statement costs it."""
BESIDE, OTHER_PAGE, OF_NEW = 2.0, 1.5, 8.0
"""What counts for a further sentence: standing beside, against: another page, for: new words."""
NOT_FAR = 6.0
"""How far behind the best a further sentence may be."""
OF_THING = 0.25
"""What the word for the kind of thing that is asked for weighs as a sign: "method", "option"."""
OF_DEFINING = 3.0
"""What the form of a definition counts against the signs of other kinds of answer."""
OF_ENTRY = 1.3
"""What weighs as a sign that a sentence begins the description of the term asked for."""
COUNTED = 1.5
"""What a number in front of the thing that is counted weighs as a sign."""
INHERITED = 0.8
"""What a sentence that leans on the one before takes over of that one's words."""
_LEANS = re.compile(
    r"^(?:it|its|this|these|that|those|they|their|he|she|such|both|here|there|then|thus|hence|so|therefore|consequently"
    r"|accordingly|however|otherwise|instead|in (?:this|that|such) case|for (?:this|that|these) reasons?|for example"
    r"|as a result)\b", re.I
)  # fmt: skip
_REFERS = re.compile(r"\(?(?:please )?(?:see|refer to|siehe|voir|véase)\b", re.I)
_ENDS = re.compile(r"[.!?][\"'”’)\]]*$")
_STRANGE = re.compile(r"[^A-Za-zÀ-ÿ ,.’']")
_CODE = re.compile(r"[\\{}@$<>=;|#^_~]")
_OF_WORKS = re.compile(
    r"\b(?:authors?|written by|wrote|literature|bibliograph\w+|reading list|publications?|cited|citations?"
    r"|technical reports?|list of references|references? (?:on|about|for|to)|further reading)\b", re.I
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Candidate:
    """A sentence that may answer."""

    sentence: int
    page: int
    score: float
    """As a sentence of the answer, log odds."""
    place: float
    """As a place to look at: the evidence on its page."""
    held: tuple[float, ...]
    """Weight of the best variant of each of the question's words in the sentence."""
    around: tuple[float, ...]
    """The same in its passage and titles."""


def answer_quoted(
    document: ReadDocument, text: str, reach: Reach = WHOLE, before: str | None = None
) -> Answer:
    """Answer a question from whole sentences of the document, or decline.

    The same question of the same document is answered the same way every time.

    Args:
        document: Where the answer must stand.
        text: As typed.
        reach: Where to look.
        before: The question that this one may lean on ("and on Sundays?").
    """
    asked = read_asked(document, text, reach, before)
    question, reach = asked.question, asked.reach
    query = _query_of(document, asked)
    allowed = _allowed(document, reach)
    ranked = rank(document.index, document.text, query, allowed=allowed)

    def signs(rows: IntArray) -> FloatArray:
        return _signs(document, question, rows)

    weighed = weigh(document.index, document.text, query, ranked, signs)
    about_works = bool(_OF_WORKS.search(question.text))
    candidates = _candidates(document, weighed, about_works=about_works)
    if reach.kind in ("selection", "figure"):
        within = set(_rows_within(document, reach.spans))
        candidates = [c for c in candidates if c.sentence in within]
    n_searched, n_pages, without = _coverage(document, reach)
    excerpts = _excerpts(document, candidates)
    quotes: tuple[Quote, ...] = ()
    if is_enough(
        question, query, weighed, candidates,
        narrowed=reach.kind != "document", language=document.index.language,
    ):  # fmt: skip
        if question.kind == "where":
            sections = _ranked_sections(document, question, query, weighed, candidates)
            quotes = tuple(_section_quote(document, k, c) for k, c, _ in sections[:2])
            excerpts = _heading_excerpts(document, sections) + excerpts
        quotes = quotes or _quotes(document, asked, query, candidates)
    return Answer(
        question=text.strip(), kind=question.kind, reach=reach, quotes=quotes,
        excerpts=excerpts, n_searched=n_searched, n_pages=n_pages, without_text=without,
        missing=_missing(query, candidates) if quotes else (),
    )  # fmt: skip


def _query_of(document: ReadDocument, asked: Asked) -> Query:
    query = read_terms(topic_of(asked.question), document.index)
    term = defined_term(asked.question.text) if asked.question.kind == "what is" else ""
    if term:
        query = turning_on(query, frozenset(words(term)))
    if not asked.before:
        return query
    earlier = read_asked(document, asked.before).question
    before = read_terms(topic_of(earlier), document.index)
    return leaning_on(query, before, without=_replaced(asked.question.text, earlier.text))


def _replaced(text: str, before: str) -> frozenset[str]:
    """Names in the question before that a name in this one takes the place of."""
    if not _names(text):
        return frozenset()
    return frozenset(word.lower() for name in _names(before) for word in name.split())


def _names(text: str) -> list[str]:
    return re.findall(r"(?<=\s)[A-Z][\w’'-]+(?:\s[A-Z][\w’'-]+)*", text)


def _allowed(document: ReadDocument, reach: Reach) -> BoolArray:
    """(p,) passages that may serve as evidence."""
    passages = document.text.passages
    allowed = np.array([p.kind not in ("listing", "heading") for p in passages], dtype=bool)
    if reach.kind == "section":
        first, end = paragraphs_within(document, reach)
        sentences = document.text.sentences
        allowed &= np.array([first <= sentences[p.first].paragraph < end for p in passages])
    if reach.kind == "pages":
        allowed &= np.array([reach.first_page <= p.page <= reach.last_page for p in passages])
    if reach.spans:
        rows = _rows_within(document, reach.spans)
        passage_of = document.index.sentence_passage
        inside = np.zeros(len(passages), dtype=bool)
        inside[passage_of[rows]] = True
        allowed &= inside
    return allowed


def _rows_within(document: ReadDocument, spans: tuple[SpanOnPage, ...]) -> list[int]:
    """Rows of the sentences that share a character with some spans."""
    wanted: dict[int, list[SpanOnPage]] = {}
    for span in spans:
        wanted.setdefault(span.page, []).append(span)
    rows = []
    for row, sentence in enumerate(document.text.sentences):
        if sentence.page not in wanted and sentence.page + 1 not in wanted:
            continue
        own = document.paragraphs[sentence.paragraph].spans(sentence.start, sentence.end)
        if any(a.start < b.end and b.start < a.end for a in own for b in wanted.get(a.page, ())):
            rows.append(row)
    return rows


def _signs(document: ReadDocument, question: Question, rows: IntArray) -> FloatArray:
    """(n,) how far each sentence has the form of the wanted answer."""
    text = document.text
    topic = tuple(
        word
        for word in words(defined_term(question.text) if question.kind == "what is" else "")
        if not is_common(word, document.index.language)
    )
    thing = counted_thing(question.text)
    found = OF_THING * _names_thing(document, question, rows)
    for k, row in enumerate(rows):
        sentence = text.sentences[row].text
        sign = sign_of(question.kind, sentence, topic)
        if topic and _explains(document, int(row), topic):
            sign = OF_ENTRY
        if topic:
            sign *= OF_DEFINING
        if thing and counts_it(sentence, thing):
            sign = max(sign, COUNTED)
        found[k] += sign
    return found


def _names_thing(document: ReadDocument, question: Question, rows: IntArray) -> FloatArray:
    """(n,) 1 where a sentence has the word for the kind of thing that is asked for."""
    index = document.index
    stems = index.analyser.terms_of(asked_thing(question.text))
    if not stems or stems[0] not in index.term_ids or question.kind == "where":
        return np.zeros(len(rows), np.float32)
    return (index.by_sentence.counts_of(index.term_ids[stems[0]], rows) > 0).astype(np.float32)


def _explains(document: ReadDocument, row: int, topic: tuple[str, ...]) -> bool:
    """Whether a sentence begins the description of a term, word for word the one in question."""
    text = document.text
    term = text.sentences[row].term
    if term < 0 or text.sentences[row].kind == "code":
        return False
    before = text.sentences[row - 1] if row else None
    if before and before.term == term and before.paragraph != text.terms[term].paragraph:
        return False  # not the first one
    if (
        before
        and before.term == term
        and text.sentences[row].kind == "entry"
        and before.kind == "entry"
    ):
        return False
    named = [
        w
        for w in words(names_in(text.terms[term].text))
        if not is_common(w, document.index.language)
    ]
    return len(named) == len(topic) and all(
        begins_alike(a, b) for a, b in zip(named, topic, strict=True)
    )


def _candidates(document: ReadDocument, weighed: Weighed, *, about_works: bool) -> list[Candidate]:
    """The weighed sentences, best first."""
    text = document.text
    found: list[Candidate] = []
    held = weighed.held.copy()
    for k in range(1, len(held)):  # "It is changed …" speaks of what the one before names
        follows = weighed.sentences[k] == weighed.sentences[k - 1] + 1
        if follows and _LEANS.match(text.sentences[weighed.sentences[k]].text):
            held[k] = np.maximum(held[k], INHERITED * held[k - 1])
    around = np.maximum(weighed.held_around, 0.7 * weighed.titled)
    for k, row in enumerate(weighed.sentences):
        sentence = text.sentences[row]
        evidence = weighed.page_score(sentence.page)
        score = float(weighed.says[k]) + OF_PAGE * evidence - UNFIT * (1 - _fitness(sentence))
        if sentence.kind == "works":
            score += OF_WORKS if about_works else -OF_WORKS
            evidence += about_works
        found.append(
            Candidate(
                int(row), sentence.page, score, evidence,
                tuple(held[k].tolist()), tuple(around[k].tolist()),
            )
        )  # fmt: skip
    found.sort(key=lambda c: (-c.score, c.sentence))
    return found


def _fitness(sentence: Sentence) -> float:
    """Less for what does not read as a statement: headings, code, scraps, very long runs."""
    n_words = len(sentence.text.split())
    if sentence.kind == "heading":
        return 0.55
    if sentence.kind == "code" or n_words < 4:
        return 0.7
    if sentence.text.endswith("?") or _REFERS.match(sentence.text):
        return 0.7
    if len(_CODE.findall(sentence.text)) > 0.05 * len(sentence.text):
        return 0.7
    if sentence.kind in ("row", "note"):
        return 0.9
    n_strange = len(_STRANGE.findall(sentence.text))
    if n_strange > 0.22 * len(sentence.text):  # formulas, listings, rows of figures
        return 0.75
    if n_words > 70:
        return 0.8
    return 1.0


def _quotes(
    document: ReadDocument, asked: Asked, query: Query, candidates: list[Candidate]
) -> tuple[Quote, ...]:
    """The fewest sentences that answer, best first."""
    question, form = asked.question, asked.form
    sentences = document.text.sentences
    statements = [c for c in candidates[:N_STATEMENTS] if sentences[c.sentence].kind != "heading"]
    if not statements:
        return ()
    best = statements[0]
    if question.kind == "list" or form.as_list:
        best = _introducing(document, best)
    rows = _chosen(document, asked, query, best, statements)
    used = set(rows)
    corrections = corrections_of(document, best.sentence, query, used)
    corrected = [_quote(document, question, a, b) for a, b in _runs(sorted(corrections), -1)]
    quotes = [q for q in corrected if not is_about_another(q.text, question.text)]
    items: list[Quote] = []
    last = max(_run_of(rows, best.sentence))
    if question.kind in ("list", "how to") or form.as_list or sentences[last].text.endswith(":"):
        quoted = sum(len(sentences[row].text.split()) for row in rows)
        most = LONGEST if question.kind == "list" or form.as_list else MAX_LIST_WORDS
        items = _items_after(document, last, used, min(most, LONGEST - quoted))
    for first, end in _runs(rows, best.sentence):
        quotes.append(_quote(document, question, first, end))
        if first <= best.sentence < end:
            quotes.extend(items)
    quotes += [q for q in corrected if q not in quotes]
    if form.max_words:
        return tuple(_fitted(quotes, form.max_words))
    while len(quotes) > 1 and sum(len(q.text.split()) for q in quotes) > LONGEST:
        quotes.pop()
    return tuple(quotes)


def _introducing(document: ReadDocument, item: Candidate) -> Candidate:
    """The sentence that introduces the list an item stands in; where there is none, the item."""
    sentences = document.text.sentences
    row = item.sentence
    while sentences[row].kind == "item" and row and item.sentence - row < MAX_ITEMS:
        row -= 1
        if sentences[row].section != sentences[item.sentence].section:
            return item
    if row < item.sentence and sentences[row].text.endswith(":"):
        return replace(item, sentence=row, page=sentences[row].page)
    return item


def _chosen(
    document: ReadDocument,
    asked: Asked,
    query: Query,
    best: Candidate,
    statements: list[Candidate],
) -> list[int]:
    """Rows of the sentences to quote: the best, then what goes on from it or adds to it.

    Sentences of the best page go before those of another, and one that stands beside a chosen
    one before one that does not: an answer is read in its place.
    """
    question, form = asked.question, asked.form
    sentences = document.text.sentences
    full = FULL_LIST if question.kind in ("list", "how to") or form.as_list else FULL
    limit = form.max_words or MAX_WORDS
    most = form.max_sentences or 4
    chosen = [best.sentence]
    listed = _list_after(document, best.sentence)  # quoted as a list, not one by one
    if listed and (question.kind == "list" or form.as_list):
        return chosen
    if question.kind not in ("where", "who", "when", "how many"):
        chosen += _code_after(document, best.sentence)
    if _LEANS.match(sentences[best.sentence].text) and most > 1:
        for before in (best.sentence - 1, best.sentence - 2):
            if before < 0 or not _goes_with(document, before, best.sentence):
                break
            chosen.append(before)
            if len(chosen) >= most or not _LEANS.match(sentences[before].text):
                break  # what it leans on may lean itself
    n_words = sum(len(sentences[row].text.split()) for row in chosen)
    pages = {best.page}
    weights = np.array([term.weight for term in query.terms])
    total = float(weights.sum()) or 1.0
    covered = np.array(best.held)
    left = [c for c in statements if c.sentence not in chosen and c.sentence not in listed]
    while left and len(chosen) < most and n_words < min(full, limit):
        gains = [float(weights @ np.maximum(np.array(c.held) - covered, 0)) / total for c in left]
        worths = [
            c.score
            + BESIDE * _is_beside(document, c.sentence, chosen)
            + OF_NEW * gain
            - OTHER_PAGE * (c.page not in pages)
            for c, gain in zip(left, gains, strict=True)
        ]
        candidate, worth = max(
            zip(left, worths, strict=True), key=lambda pair: (pair[1], -pair[0].sentence)
        )
        left.remove(candidate)
        behind = best.score - worth
        length = len(sentences[candidate.sentence].text.split())
        if behind > NOT_FAR:
            break
        if n_words + length > limit or _fitness(sentences[candidate.sentence]) < 0.7:
            continue
        if n_words + length > 1.8 * full:
            continue
        chosen.append(candidate.sentence)
        covered = np.maximum(covered, candidate.held)
        pages.add(candidate.page)
        n_words += length
    after = max(_run_of(chosen, best.sentence)) + 1
    if len(chosen) < most and after < len(sentences) and _LEANS.match(sentences[after].text):
        length = len(sentences[after].text.split())  # "They must not …" belongs to what it is about
        fits = n_words + length <= min(LEANING_WORDS, limit) and after not in chosen
        if fits and _goes_with(document, after, best.sentence):
            chosen.append(after)
    return sorted(chosen)


def _code_after(document: ReadDocument, row: int) -> list[int]:
    """The lines of code that a sentence runs into: "They are created using", then the command."""
    sentences = document.text.sentences
    if _ENDS.search(sentences[row].text):
        return []
    rows: list[int] = []
    n_words = 0
    for after in range(row + 1, min(row + 5, len(sentences))):
        n_words += len(sentences[after].text.split())
        if sentences[after].kind != "code" or n_words > LONGEST_CODE:
            break
        rows.append(after)
    return rows


def _is_beside(document: ReadDocument, row: int, chosen: list[int]) -> bool:
    """Whether a sentence follows or precedes a chosen one in the same passage."""
    return any(other in chosen and _goes_with(document, row, other) for other in (row - 1, row + 1))


def _goes_with(document: ReadDocument, row: int, other: int) -> bool:
    """Whether two sentences stand in one passage, neither a row of a table nor a footnote."""
    passage_of = document.index.sentence_passage
    kinds = {document.text.sentences[row].kind, document.text.sentences[other].kind}
    return bool(passage_of[row] == passage_of[other]) and not kinds & {"row", "note"}


def _run_of(rows: list[int], row: int) -> list[int]:
    """The consecutive rows that one of them belongs to."""
    first = end = row
    while first - 1 in rows:
        first -= 1
    while end + 1 in rows:
        end += 1
    return list(range(first, end + 1))


def _runs(rows: list[int], best: int) -> list[tuple[int, int]]:
    """Consecutive rows as [first, end), that of the best first."""
    runs: list[tuple[int, int]] = []
    for row in rows:
        if runs and runs[-1][1] == row:
            runs[-1] = runs[-1][0], row + 1
        else:
            runs.append((row, row + 1))
    return sorted(runs, key=lambda run: not run[0] <= best < run[1])


def _fitted(quotes: list[Quote], max_words: int) -> list[Quote]:
    """As many quotes as fit a number of words; the first is cut where it alone is longer."""
    kept: list[Quote] = []
    left = max_words
    for quote in quotes:
        parts = quote.text.split()
        if len(parts) <= left:
            kept.append(quote)
            left -= len(parts)
        elif not kept:
            text = " ".join(parts[: max_words - 1]) + " …"
            inside = tuple(e for e in quote.emphasis if e[1] < len(text) - 2)
            kept.append(replace(quote, text=text, emphasis=inside))
            break
    return kept


def _quote(document: ReadDocument, question: Question, first: int, end: int) -> Quote:
    """Consecutive sentences, verbatim.

    A table's row comes with the head of its table, a description with the term it describes; the
    place of what is said goes before that of what it belongs to.
    """
    sentences = document.text.sentences
    term = _rows_of_term(document, first)
    if term and term[1] == first:
        first = term[0]
    text = _joined(document, first, end)
    locators: tuple[Locator, ...] = (locator_for(document, first, end),)
    if term and term[0] < first:
        text = f"{document.text.terms[sentences[first].term].text} … {text}"
        locators = (*locators, locator_for(document, *term))
    head = _head_row(document, first) if sentences[first].kind == "row" else first
    if head != first:
        text = f"{sentences[head].text} … {text}"
        locators = (*locators, locator_for(document, head))
    return Quote(text, locators, emphasis=emphasis_for(question.kind, text))


def _joined(document: ReadDocument, first: int, end: int) -> str:
    """Sentences [first, end) as one text; items, rows and the next term described begin a line."""
    sentences, terms = document.text.sentences, document.text.terms
    parts = [sentences[first].text]
    for before, sentence in pairwise(sentences[first:end]):
        is_apart = sentence.paragraph != before.paragraph and (
            bool({sentence.kind, before.kind} & {"item", "row", "code"})
            or sentence.term != before.term
        )
        if sentence.term >= 0 and terms[sentence.term].paragraph == before.paragraph:
            is_apart = False  # a description follows its term
        parts.append(("\n" if is_apart else " ") + sentence.text)
    return "".join(parts)


def _rows_of_term(document: ReadDocument, row: int) -> tuple[int, int] | None:
    """Rows [first, end) of the sentences that name what a sentence describes, where it does not."""
    sentences = document.text.sentences
    if sentences[row].term < 0 or sentences[row].kind == "heading":
        return None
    term = document.text.terms[sentences[row].term]
    if term.is_label or len(term.text.split()) > LONGEST_TERM:
        return None
    end = row
    while end and sentences[end - 1].paragraph > term.paragraph:
        end -= 1
    first = end
    while first and sentences[first - 1].paragraph == term.paragraph:
        first -= 1
    if sentences[row].page > sentences[first].page + 1:
        return None  # too far away to be read together
    if sentences[first].kind == "entry":  # the term stands in the first sentence itself
        return (first, first + 1) if first < row else None
    return (first, end) if first < end else None


def _head_row(document: ReadDocument, row: int) -> int:
    """The first row of the table that a row belongs to."""
    sentences = document.text.sentences
    head = row
    while (
        head
        and sentences[head - 1].kind == "row"
        and (
            sentences[head - 1].section == sentences[row].section
            and sentences[head - 1].page == sentences[row].page
        )
    ):
        head -= 1
    return head


def _items_after(document: ReadDocument, row: int, used: set[int], limit: int) -> list[Quote]:
    """The items of the list that a sentence introduces or belongs to, so many words of them.

    Where all of them have more words, each is cut: a reader wants to see how many there are.
    """
    sentences = document.text.sentences
    rows = _list_after(document, row)
    firsts = [r for k, r in enumerate(rows) if not k or _begins_item(document, r)]
    whole = sum(len(sentences[r].text.split()) for r in rows)
    shown = rows if whole <= limit else firsts[: limit // SHORTEST_ITEM]
    most = LONGEST if whole <= limit or not shown else max(SHORTEST_ITEM, limit // len(shown))
    used.update(shown)
    return [_item(document, r, most) for r in shown]


def _list_after(document: ReadDocument, row: int) -> list[int]:
    """Rows of the items that a sentence ending in a colon introduces, or that follow an item."""
    sentences = document.text.sentences
    introduces = sentences[row].text.endswith(":")
    if not introduces and sentences[row].kind != "item":
        return []
    rows: list[int] = []
    for after in range(row + 1, min(row + MAX_ITEMS, len(sentences))):
        sentence = sentences[after]
        if sentence.section != sentences[row].section or sentence.kind == "heading":
            break
        if sentence.kind in ("item", "row", "entry"):
            rows.append(after)
        elif rows or not introduces:
            break
    return rows


def _begins_item(document: ReadDocument, row: int) -> bool:
    """Whether a sentence is the first of its item."""
    sentences = document.text.sentences
    return sentences[row].paragraph != sentences[row - 1].paragraph


def _item(document: ReadDocument, row: int, most: int) -> Quote:
    """An item of a list, cut after so many words."""
    parts = document.text.sentences[row].text.split()
    text = " ".join(parts) if len(parts) <= most else " ".join(parts[: most - 1]) + " …"
    return Quote(text, (locator_for(document, row),))


TITLE_OF_WHERE = 3.0
"""What a section's own title counts beside its evidence, for a "where" question."""
SECTION_BEHIND = 0.5
OF_CHILD = 0.5
"""What the evidence in a section counts for the section around it."""
_CHAPTER = re.compile(r"\b(?:chapter|kapitel|chapitre|cap[ií]tulo)\b", re.I)
_PART = re.compile(r"(?:part|teil|partie|parte)\s+[\divxlc]+\b", re.I)


def _ranked_sections(
    document: ReadDocument,
    question: Question,
    query: Query,
    weighed: Weighed,
    candidates: list[Candidate],
) -> list[tuple[int, Candidate, float]]:
    """Sections for a "where" question, best first: by their titles and by all that they say.

    A section that spreads the evidence over several of its own is a better place than each.

    Returns:
        (section, its best sentence, score); the second only where it is nearly as good.
    """
    sentences = document.text.sentences
    sections = np.array([sentences[row].section for row in weighed.sentences], dtype=np.int64)
    best: dict[int, Candidate] = {}
    for candidate in candidates:
        best.setdefault(sentences[candidate.sentence].section, candidate)
    in_title = titles_share(document, query)
    top = float(weighed.scores.max())
    odds = np.bincount(sections[sections >= 0], np.exp(weighed.scores[sections >= 0] - top),
                       minlength=len(document.outline.sections))  # fmt: skip
    parents = _parents(document)
    for section in range(len(odds) - 1, -1, -1):  # children before their parents
        parent = parents[section]
        if parent >= 0 and odds[section]:
            odds[parent] += OF_CHILD * odds[section]
            child = best[section]
            if parent not in best or best[parent].score < child.score:
                best[parent] = child
    level = _level_asked(document, question)
    found = []
    for section, candidate in best.items():
        if section >= 0 and document.outline.sections[section].level <= level:
            score = float(np.log(odds[section])) + top
            found.append((section, candidate, score + TITLE_OF_WHERE * float(in_title[section])))
    found.sort(key=lambda row: (-row[2], row[0]))
    return [row for row in found if row[2] >= found[0][2] - SECTION_BEHIND][:3]


def _parents(document: ReadDocument) -> list[int]:
    """The section around each section, -1 for none."""
    parents: list[int] = []
    open_: list[int] = []
    for k, section in enumerate(document.outline.sections):
        while open_ and document.outline.sections[open_[-1]].level >= section.level:
            open_.pop()
        parents.append(open_[-1] if open_ else -1)
        open_.append(k)
    return parents


def _level_asked(document: ReadDocument, question: Question) -> int:
    """The deepest level that is meant: a chapter is at the first or, within parts, the second."""
    levels = [section.level for section in document.outline.sections]
    if not _CHAPTER.search(question.text) or not levels:
        return max(levels, default=0)
    tops = [s for s in document.outline.sections if s.level == min(levels)]
    within_parts = sum(bool(_PART.match(s.title)) for s in tops) > 0.3 * len(tops)
    return min(levels) + within_parts


def titles_share(document: ReadDocument, query: Query) -> FloatArray:
    """(k + 1,) share of a question's weight in the titles of each section."""
    total = sum(term.weight for term in query.terms) or 1.0
    share = np.zeros(document.index.titles.n_rows, np.float32)
    for term in query.terms:
        share += term.weight * title_weights(document.index, term) / total
    return share


def _heading_excerpts(
    document: ReadDocument, sections: list[tuple[int, Candidate, float]]
) -> tuple[Excerpt, ...]:
    """The headings of sections as the first excerpts."""
    found = []
    for section, candidate, score in sections:
        quote = _section_quote(document, section, candidate)
        found.append(Excerpt(quote.text, quote.locators[0], score))
    return tuple(found)


def _section_quote(document: ReadDocument, section: int, candidate: Candidate) -> Quote:
    place = document.outline.sections[section]
    heading = next(
        (row for row in range(candidate.sentence, -1, -1)
         if document.text.sentences[row].paragraph == place.first_paragraph),
        candidate.sentence,
    )  # fmt: skip
    return Quote(
        place.title, (locator_for(document, heading), locator_for(document, candidate.sentence))
    )


def _excerpts(document: ReadDocument, candidates: list[Candidate]) -> tuple[Excerpt, ...]:
    """The best sentence of each page by the evidence on it, then of the other passages."""
    passage_of = document.index.sentence_passage
    firsts: list[Candidate] = []
    others: list[Candidate] = []
    pages: set[int] = set()
    passages: set[int] = set()
    for candidate in candidates:  # best sentence first
        passage = int(passage_of[candidate.sentence])
        if passage in passages:
            continue
        passages.add(passage)
        (others if candidate.page in pages else firsts).append(candidate)
        pages.add(candidate.page)
    firsts.sort(key=lambda c: (-c.place, c.sentence))
    chosen = (firsts + others)[:N_EXCERPTS]
    return tuple(_excerpt(document, candidate) for candidate in chosen)


def _excerpt(document: ReadDocument, candidate: Candidate) -> Excerpt:
    passage = document.text.passages[int(document.index.sentence_passage[candidate.sentence])]
    first = max(passage.first, candidate.sentence - 1)
    end = min(passage.end, candidate.sentence + 2)
    near = document.text.sentences[first:end]
    best = document.text.sentences[candidate.sentence]
    text = " ".join(s.text for s in near if s.kind != "heading" or s is best)
    return Excerpt(text, locator_for(document, candidate.sentence), candidate.place)


def _missing(query: Query, candidates: list[Candidate]) -> tuple[str, ...]:
    """Words of the question that weigh much and that none of the best evidence holds."""
    weights: FloatArray = np.array([term.weight for term in query.terms])
    if not len(weights):
        return ()
    held = np.max([np.maximum(c.held, c.around) for c in candidates[:6]], axis=0)
    heavy = weights >= 0.6 * weights.max()
    return tuple(t.word for t, h, w in zip(query.terms, held, heavy, strict=True) if w and h < 0.3)


def _coverage(document: ReadDocument, reach: Reach) -> tuple[int, int, tuple[int, ...]]:
    """Pages searched, pages there are within reach, and those of them without text."""
    pages = set(range(document.facts.n_pages))
    if reach.kind in ("pages", "section"):
        pages &= set(range(reach.first_page, reach.last_page + 1))
    if reach.spans:
        pages &= {span.page for span in reach.spans}
    inside = tuple(sorted(pages & {*document.without_text, *document.failed}))
    return len(pages) - len(inside), len(pages), inside
