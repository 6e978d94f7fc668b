"""Answers made of the document's own sentences."""

import re
from dataclasses import dataclass

import numpy as np

from wide_margin.core.answers.model import WHOLE, Answer, Excerpt, Quote, Reach, locator_for
from wide_margin.core.answers.question import Question, read_question, topic_of
from wide_margin.core.answers.signs import counted_thing, counts_it, emphasis_for, sign_of
from wide_margin.core.geometry import BoolArray, FloatArray
from wide_margin.core.passages import Sentence
from wide_margin.core.search import Query, Ranked, ReadDocument, rank, read_terms
from wide_margin.core.search.rank import sentence_scores, title_weights

N_EXCERPTS = 12
N_PASSAGES = 40
"""Passages whose sentences are weighed one by one."""
MAX_WORDS = 80
"""A quoted answer stops before this; a list may take twice as many."""
WINDOW_WORDS = 56
"""Neighbouring sentences are quoted together up to this."""
OF_PASSAGE, OF_SENTENCE, OF_NEIGHBOUR, OF_SIGN = 2.0, 0.8, 0.5, 1.0
PLACE_OF_SENTENCE = 0.5
CLOSE = 0.92
OF_TITLE = 0.8
"""What a section's title counts for a \"where\" question, beside its best passage."""
INHERITED = 0.8
"""What a sentence that leans on the one before takes over of that one's words."""
"""What a sentence's score is made of: its passage's score, the share of the question's weight
that it holds, its neighbours' share, and whether it has the form of the wanted answer."""
ENOUGH = 0.36
"""Share of the question's weight that the evidence must hold for an answer."""
_LEANS = re.compile(
    r"^(?:it|its|this|these|that|those|they|their|he|she|such|both|here|there|then|thus|hence|"
    r"however|otherwise|instead|in (?:this|that|such) case|for example|as a result)\b", re.I
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Candidate:
    sentence: int
    passage: int
    score: float
    """As a sentence of the answer."""
    place: float
    """As a place to look at: its passage's score first."""
    held: tuple[float, ...]
    """Weight of the best variant of each of the question's words in the sentence."""


def answer_quoted(document: ReadDocument, text: str, reach: Reach = WHOLE) -> Answer:
    """Answer a question from whole sentences of the document, or decline.

    The same question of the same document is answered the same way every time.
    """
    question = read_question(text)
    query = read_terms(topic_of(question), document.index)
    allowed = _allowed(document, reach)
    ranked = rank(document.index, document.text, query, allowed=allowed)
    candidates = _weigh(document, question, ranked)
    n_searched, n_pages, without = _coverage(document, reach)
    excerpts = _excerpts(document, candidates)
    quotes: tuple[Quote, ...] = ()
    if candidates and _is_enough(document, query, candidates, ranked):
        if question.kind == "where":
            sections = _ranked_sections(document, query, candidates)
            quotes = tuple(_section_quote(document, k, c) for k, c, _ in sections[:2])
            excerpts = _heading_excerpts(document, sections) + excerpts
        quotes = quotes or _quotes(document, question, query, candidates)
    return Answer(
        question=question.text, kind=question.kind, reach=reach, quotes=quotes,
        excerpts=excerpts, n_searched=n_searched, n_pages=n_pages, without_text=without,
        missing=_missing(query, candidates) if quotes else (),
    )  # fmt: skip


def _allowed(document: ReadDocument, reach: Reach) -> BoolArray:
    """(p,) passages that may serve as evidence."""
    passages, sections = document.text.passages, document.outline.sections
    allowed = np.array([p.kind not in ("listing", "heading") for p in passages], dtype=bool)
    if reach.kind == "section" and 0 <= reach.section < len(sections):
        first, end = sections[reach.section].first_paragraph, sections[reach.section].end_paragraph
        sentences = document.text.sentences
        allowed &= np.array([first <= sentences[p.first].paragraph < end for p in passages])
    if reach.kind == "pages":
        allowed &= np.array([reach.first_page <= p.page <= reach.last_page for p in passages])
    return allowed


def _weigh(document: ReadDocument, question: Question, ranked: Ranked) -> list[_Candidate]:
    """Every sentence of the best passages, best first."""
    text = document.text
    if not len(ranked.passages):
        return []
    top = float(ranked.scores[0]) or 1.0
    total = sum(term.weight for term in ranked.query.terms) or 1.0
    topic = tuple(term.word for term in ranked.query.terms)
    thing = counted_thing(question.text)
    weights = np.array([term.weight for term in ranked.query.terms], np.float32)
    found: list[_Candidate] = []
    for row, passage_score in zip(
        ranked.passages[:N_PASSAGES], ranked.scores[:N_PASSAGES], strict=True
    ):
        passage = text.passages[row]
        rows = np.arange(passage.first, passage.end)
        _, held = sentence_scores(document.index, ranked.query, rows)
        for k in range(1, len(rows)):  # "It is changed …" speaks of what the one before names
            if _LEANS.match(text.sentences[rows[k]].text):
                held[k] = np.maximum(held[k], INHERITED * held[k - 1])
        share = held @ weights / total
        works = 0.5 if passage.kind == "works" else 1.0
        for k, sentence_row in enumerate(rows):
            sentence = text.sentences[sentence_row]
            near = max(share[k - 1] if k else 0.0, share[k + 1] if k + 1 < len(rows) else 0.0)
            on_topic = min(1.0, 2 * float(share[k]) + float(near))
            sign = sign_of(question.kind, sentence.text, topic)
            if thing and counts_it(sentence.text, thing):
                sign, on_topic = 1.5, max(on_topic, 0.6)
            score = (
                OF_PASSAGE * float(passage_score) / top
                + OF_SENTENCE * float(share[k])
                + OF_NEIGHBOUR * float(near)
                + OF_SIGN * on_topic * sign
            )
            score *= works * _fitness(sentence)
            place = works * (float(passage_score) / top + PLACE_OF_SENTENCE * score)
            kept = tuple(held[k].tolist())
            found.append(_Candidate(int(sentence_row), int(row), score, place, kept))
    found.sort(key=lambda c: (-c.score, c.sentence))
    return found


def _fitness(sentence: Sentence) -> float:
    """Less for what does not read as a statement: headings, code, scraps, very long runs."""
    n_words = len(sentence.text.split())
    if sentence.kind == "heading":
        return 0.55
    if sentence.kind == "code" or n_words < 4:
        return 0.7
    n_plain = sum(c.isalpha() or c in " ,.’'" for c in sentence.text)
    if n_plain < 0.78 * len(sentence.text):  # formulas, listings, rows of figures
        return 0.75
    if n_words > 70:
        return 0.8
    return 1.0


def _is_enough(
    document: ReadDocument, query: Query, candidates: list[_Candidate], ranked: Ranked
) -> bool:
    """Whether the evidence holds what the question turns on."""
    best = candidates[0]
    at = np.flatnonzero(ranked.passages == best.passage)
    return evidence_share(query, best.held, float(ranked.coverage[at[0]])) >= ENOUGH


def evidence_share(query: Query, held: tuple[float, ...], passage_coverage: float) -> float:
    """Share of a question's weight in the best sentence and its passage, 0 to 1."""
    total = sum(term.weight for term in query.terms) or 1.0
    in_sentence = sum(t.weight * h for t, h in zip(query.terms, held, strict=True)) / total
    return 0.5 * in_sentence + 0.5 * passage_coverage


def _quotes(
    document: ReadDocument, question: Question, query: Query, candidates: list[_Candidate]
) -> tuple[Quote, ...]:
    """The fewest sentences that answer: the best one, then those that add what it lacks."""
    best = candidates[0]
    first, end = _window(document, best)
    quotes = [_quote(document, question, first, end)]
    used = set(range(first, end))
    if question.kind in ("list", "how to"):
        quotes.extend(_items_after(document, end - 1, used))
    n_words = sum(len(q.text.split()) for q in quotes)
    covered = np.max([c.held for c in candidates if c.sentence in used], axis=0)
    weights = np.array([term.weight for term in query.terms])
    total = float(weights.sum()) or 1.0
    for candidate in candidates[1:12]:
        sentence = document.text.sentences[candidate.sentence]
        if candidate.sentence in used or sentence.kind == "heading":
            continue
        adds = float((weights * np.maximum(np.array(candidate.held) - covered, 0)).sum()) / total
        close = candidate.score > CLOSE * best.score and n_words < WINDOW_WORDS / 2
        if (adds > 0.15 and candidate.score > 0.75 * best.score) or (close and len(quotes) < 2):
            first, end = candidate.sentence, candidate.sentence + 1
            length = len(sentence.text.split())
            if n_words + length > MAX_WORDS:
                continue
            quotes.append(_quote(document, question, first, end))
            used.update(range(first, end))
            covered = np.maximum(covered, candidate.held)
            n_words += length
        if len(quotes) >= 3:
            break
    return tuple(quotes)


def _window(document: ReadDocument, candidate: _Candidate) -> tuple[int, int]:
    """A sentence with its neighbours: the one it leans on, then those that go on from it."""
    sentences, row = document.text.sentences, candidate.sentence
    passage = document.text.passages[candidate.passage]
    first, end = row, row + 1
    n_words = len(sentences[row].text.split())

    def fits(other: int) -> bool:
        if not passage.first <= other < passage.end or _fitness(sentences[other]) < 0.8:
            return False
        return n_words + len(sentences[other].text.split()) <= WINDOW_WORDS

    if _LEANS.match(sentences[row].text) and fits(row - 1):
        first -= 1
        n_words += len(sentences[first].text.split())
    while fits(end) and n_words < WINDOW_WORDS / 2:
        n_words += len(sentences[end].text.split())
        end += 1
    if first == row and n_words < WINDOW_WORDS / 2 and fits(row - 1):
        first -= 1
    return first, end


def _quote(document: ReadDocument, question: Question, first: int, end: int) -> Quote:
    """Consecutive sentences, verbatim."""
    text = " ".join(s.text for s in document.text.sentences[first:end])
    return Quote(
        text,
        (locator_for(document, first, end),),
        emphasis=emphasis_for(question.kind, text),
    )


def _items_after(document: ReadDocument, row: int, used: set[int]) -> list[Quote]:
    """The items of the list that a sentence introduces or belongs to."""
    sentences = document.text.sentences
    introduces = sentences[row].text.endswith(":")
    if not introduces and sentences[row].kind not in ("item", "row"):
        return []
    quotes: list[Quote] = []
    n_words = 0
    for after in range(row + 1, min(row + 14, len(sentences))):
        sentence = sentences[after]
        if sentence.section != sentences[row].section or sentence.kind not in ("item", "row"):
            if quotes or not introduces:
                break
            if sentence.kind == "heading":
                break
        n_words += len(sentence.text.split())
        if n_words > MAX_WORDS:
            break
        used.add(after)
        quotes.append(Quote(sentence.text, (locator_for(document, after),)))
    return quotes


def _ranked_sections(
    document: ReadDocument, query: Query, candidates: list[_Candidate]
) -> list[tuple[int, _Candidate, float]]:
    """Sections for a "where" question, best first: by their titles and by what they say.

    Returns:
        (section, its best sentence, score); the second only where it is nearly as good.
    """
    total = sum(term.weight for term in query.terms) or 1.0
    in_title = np.zeros(document.index.titles.n_rows, np.float32)
    for term in query.terms:
        in_title += term.weight * title_weights(document.index, term) / total
    best: dict[int, tuple[float, _Candidate]] = {}
    top = candidates[0].place or 1.0
    for candidate in candidates:
        section = document.text.sentences[candidate.sentence].section
        score = OF_TITLE * float(in_title[section]) + candidate.place / top
        if section >= 0 and (section not in best or score > best[section][0]):
            best[section] = score, candidate
    ordered = sorted(((k, c, score) for k, (score, c) in best.items()), key=lambda row: -row[2])
    return [row for row in ordered if row[2] >= 0.92 * ordered[0][2]][:3]


def _heading_excerpts(
    document: ReadDocument, sections: list[tuple[int, _Candidate, float]]
) -> tuple[Excerpt, ...]:
    """The headings of sections as the first excerpts."""
    found = []
    for section, candidate, score in sections:
        quote = _section_quote(document, section, candidate)
        found.append(Excerpt(quote.text, quote.locators[0], score))
    return tuple(found)


def _section_quote(document: ReadDocument, section: int, candidate: _Candidate) -> Quote:
    place = document.outline.sections[section]
    heading = next(
        (row for row in range(candidate.sentence, -1, -1)
         if document.text.sentences[row].paragraph == place.first_paragraph),
        candidate.sentence,
    )  # fmt: skip
    return Quote(
        place.title, (locator_for(document, heading), locator_for(document, candidate.sentence))
    )


def _excerpts(document: ReadDocument, candidates: list[_Candidate]) -> tuple[Excerpt, ...]:
    """The best sentence of each of the best passages, with its neighbours."""
    excerpts: list[Excerpt] = []
    seen: set[int] = set()
    for candidate in sorted(candidates, key=lambda c: (-c.place, c.sentence)):
        if candidate.passage in seen:
            continue
        seen.add(candidate.passage)
        passage = document.text.passages[candidate.passage]
        first = max(passage.first, candidate.sentence - 1)
        end = min(passage.end, candidate.sentence + 2)
        text = " ".join(s.text for s in document.text.sentences[first:end])
        locator = locator_for(document, candidate.sentence)
        excerpts.append(Excerpt(text, locator, candidate.place))
        if len(excerpts) == N_EXCERPTS:
            break
    return tuple(excerpts)


def _missing(query: Query, candidates: list[_Candidate]) -> tuple[str, ...]:
    """Words of the question that weigh much and that none of the best evidence holds."""
    weights: FloatArray = np.array([term.weight for term in query.terms])
    if not len(weights):
        return ()
    held = np.max([c.held for c in candidates[:6]], axis=0)
    heavy = weights >= 0.6 * weights.max()
    return tuple(t.word for t, h, w in zip(query.terms, held, heavy, strict=True) if w and h < 0.3)


def _coverage(document: ReadDocument, reach: Reach) -> tuple[int, int, tuple[int, ...]]:
    """Pages searched, pages there are within reach, and those of them without text."""
    first, last = 0, document.facts.n_pages - 1
    if reach.kind == "pages":
        first, last = reach.first_page, min(reach.last_page, last)
    if reach.kind == "section" and 0 <= reach.section < len(document.outline.sections):
        section = document.outline.sections[reach.section]
        first, last = section.page, section.end_page
    empty = sorted({*document.without_text, *document.failed})
    inside = tuple(page for page in empty if first <= page <= last)
    n_pages = last - first + 1
    return n_pages - len(inside), n_pages, inside
