"""The index: how often each term stands in each sentence and passage."""

from __future__ import annotations

from array import array
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.passages import names_in
from wide_margin.core.search.abbreviations import find_abbreviations
from wide_margin.core.search.analysis import Analyser, is_common, language_of, words
from wide_margin.core.search.coded import as_array, code_all, places
from wide_margin.core.search.equals import Pair, find_equals
from wide_margin.core.search.postings import Postings
from wide_margin.core.search.vectors import vectors_of

if TYPE_CHECKING:
    from wide_margin.core.outline import Outline
    from wide_margin.core.passages import Text
    from wide_margin.core.search.coded import Coded

PAGES_ASKED = 60
"""Pages that tell the document's language; at most twice as many are looked at."""
OF_PAGE = 1_000
"""Characters of each that are looked at: all would take a hundredth of the time of reading."""
FAMILY = 5
"""Letters that stems of one family share at least."""


@dataclass(frozen=True, slots=True, eq=False)
class Index:
    """Term statistics of one document.

    t terms, s sentences, p passages, k sections.
    """

    analyser: Analyser
    term_ids: dict[str, int]
    forms: tuple[str, ...]
    """(t,) the most frequent written form of each term."""
    tokens: IntArray
    """Terms of all sentences, one after the other."""
    token_starts: IntArray
    """(s + 1,) where each sentence starts in tokens."""
    by_sentence: Postings
    by_passage: Postings
    titles: Postings
    """Over k + 1 rows: the weight of each term in a section's title (1) and its parents' (0.5);
    the last row, for text before the first section, is empty."""
    entries: Postings
    """Over e + 1 rows: the same of the terms that the text describes, and the terms around them;
    the last row is for what describes none."""
    passage_lengths: FloatArray
    """(p,) terms in each passage."""
    document_frequency: IntArray
    """(t,) passages that hold each term."""
    sentence_passage: IntArray
    """(s,) the passage of each sentence."""
    sentence_entry: IntArray
    """(s,) the row in entries of each sentence."""
    uncommon: tuple[str, ...]
    """(u,) the document's English words that may have a vector."""
    uncommon_terms: IntArray
    """(u,) term of each of them."""
    families: dict[str, tuple[str, ...]]
    """First letters, FAMILY of them, to the stems that begin so."""
    abbreviations: dict[str, tuple[str, ...]]
    """Abbreviations in capitals to the words they stand for."""
    equals: tuple[Pair, ...]
    """Terms that the document says are the same."""

    @property
    def language(self) -> str:
        """The document's language."""
        return self.analyser.language

    def idf(self, term: int) -> float:
        """Inverse document frequency over passages (Robertson and Zaragoza 2009, eq. 3.1)."""
        n, df = len(self.passage_lengths), int(self.document_frequency[term])
        return float(np.log1p((n - df + 0.5) / (df + 0.5)))


def build_index(text: Text, outline: Outline, before: Coded | None = None) -> Index:
    """Count every term of a document.

    Args:
        text: Its sentences and passages.
        outline: Its sections.
        before: The words of some of its sentences, where they have been numbered.
    """
    analyser = Analyser(language_of(_some_pages(text)))
    coded = code_all([sentence.text for sentence in text.sentences], before)
    counts = np.bincount(coded.numbers, minlength=len(coded.words)).tolist()
    written = Counter(dict(zip(coded.words, counts, strict=True)))
    term_ids: dict[str, int] = {}
    all_tokens, token_starts = _tokens(coded, analyser, term_ids)
    title_rows = _title_terms(outline, analyser, term_ids, written)
    entry_rows = _entry_terms(text, analyser, term_ids)
    entry_of = np.array([s.term for s in text.sentences], dtype=np.int64)
    first = np.array([p.first for p in text.passages] + [len(text.sentences)], dtype=np.int64)
    sentence_passage = np.repeat(np.arange(len(text.passages)), np.diff(first))
    token_sentence = np.repeat(
        np.arange(len(text.sentences), dtype=np.int32), np.diff(token_starts)
    )
    n_terms = len(term_ids)
    by_sentence = Postings.count(all_tokens, token_sentence, n_terms, len(text.sentences))
    by_passage = Postings.count(
        all_tokens, sentence_passage[token_sentence], n_terms, len(text.passages)
    )
    forms, uncommon = _written_forms(written, analyser, term_ids)
    return Index(
        analyser=analyser,
        term_ids=term_ids,
        forms=forms,
        tokens=all_tokens,
        token_starts=token_starts,
        by_sentence=by_sentence,
        by_passage=by_passage,
        titles=_title_postings(title_rows, n_terms),
        entries=_title_postings(entry_rows, n_terms),
        passage_lengths=np.diff(token_starts[first]).astype(np.float32),
        document_frequency=by_passage.document_frequency(),
        sentence_passage=sentence_passage,
        sentence_entry=np.where(entry_of < 0, len(entry_rows), entry_of),
        uncommon=tuple(uncommon),
        uncommon_terms=np.array(list(uncommon.values()), dtype=np.int64),
        families=_families(term_ids),
        abbreviations=find_abbreviations(s.text for s in text.sentences),
        equals=find_equals(text.sentences, text.terms, analyser.language),
    )


def _some_pages(text: Text) -> list[str]:
    """How some pages begin, evenly over the document."""
    pages = sorted({sentence.page for sentence in text.sentences})
    said: dict[int, list[str]] = {page: [] for page in pages[:: max(1, len(pages) // PAGES_ASKED)]}
    for sentence in text.sentences:
        if sentence.page in said:
            said[sentence.page].append(sentence.text)
    return [" ".join(texts)[:OF_PAGE] for texts in said.values()]


def _families(stems: Iterable[str]) -> dict[str, tuple[str, ...]]:
    found: dict[str, list[str]] = {}
    for stem in stems:
        if len(stem) >= FAMILY and stem.isalpha():
            found.setdefault(stem[:FAMILY], []).append(stem)
    return {front: tuple(members) for front, members in found.items()}


def _tokens(
    coded: Coded, analyser: Analyser, term_ids: dict[str, int]
) -> tuple[IntArray, IntArray]:
    """The terms of all texts, and (t + 1,) where each text starts in them.

    Args:
        coded: The words of t texts.
        analyser: Turns words to terms.
        term_ids: Is given the number of every term.
    """
    terms, lengths = array("i"), array("i")
    for word in coded.words:
        found = analyser.terms_of(word)
        terms.extend([term_ids.setdefault(term, len(term_ids)) for term in found])
        lengths.append(len(found))
    n_terms = as_array(lengths)
    n_of = n_terms[coded.numbers]
    tokens = as_array(terms)[places((np.cumsum(n_terms) - n_terms)[coded.numbers], n_of)]
    ends = np.concatenate(([0], np.cumsum(n_of)))
    return tokens, ends[coded.starts].astype(np.int32)


def _title_terms(
    outline: Outline, analyser: Analyser, term_ids: dict[str, int], written: Counter[str]
) -> list[dict[int, float]]:
    rows: list[dict[int, float]] = []
    for section, parent in zip(outline.sections, outline.parents, strict=True):
        row = dict.fromkeys(rows[parent], 0.5) if parent >= 0 else {}
        for word in words(section.title):
            written[word] += 1
            if is_common(word, analyser.language):
                continue
            for term in analyser.terms_of(word):
                row[term_ids.setdefault(term, len(term_ids))] = 1.0
        rows.append(row)
    return rows


AROUND = 0.8
"""What a word of the term around a term counts: of the function whose option is described."""


def _entry_terms(
    text: Text, analyser: Analyser, term_ids: dict[str, int]
) -> list[dict[int, float]]:
    rows: list[dict[int, float]] = []
    known: dict[str, list[int]] = {}
    for entry in text.terms:
        if entry.text not in known:  # "Usage", "Arguments", "Value": many stand again and again
            named = [w for w in words(names_in(entry.text)) if not is_common(w, analyser.language)]
            terms = [term for word in named for term in analyser.terms_of(word)]
            known[entry.text] = [term_ids.setdefault(term, len(term_ids)) for term in terms]
        around = rows[entry.parent] if entry.parent >= 0 else {}
        row = {term: AROUND * weight for term, weight in around.items()}
        row.update(dict.fromkeys(known[entry.text], 1.0))
        rows.append(row)
    return rows


def _title_postings(rows: Sequence[dict[int, float]], n_terms: int) -> Postings:
    at = [(term, k, weight) for k, row in enumerate(rows) for term, weight in row.items()]
    terms, sections, weights = (np.array(column) for column in zip(*at, strict=True)) if at else (
        np.zeros(0, np.int64), np.zeros(0, np.int64), np.zeros(0)
    )  # fmt: skip
    return Postings.weigh(terms, sections, weights, n_terms, len(rows) + 1)


def _written_forms(
    written: Counter[str], analyser: Analyser, term_ids: dict[str, int]
) -> tuple[tuple[str, ...], dict[str, int]]:
    """The most frequent form of each term, and the terms of the words that may have a vector."""
    forms = [""] * len(term_ids)
    uncommon: dict[str, int] = {}
    is_english = analyser.language == "en"
    for word, _ in written.most_common():
        terms = analyser.terms_of(word)
        if not terms or terms[0] not in term_ids:
            continue
        if not forms[term_ids[terms[0]]]:
            forms[term_ids[terms[0]]] = word
        if is_english and word.isalpha() and not is_common(word, analyser.language):
            uncommon[word] = term_ids[terms[0]]
    return tuple(forms), uncommon


@lru_cache(maxsize=1)
def vectors_in(index: Index) -> tuple[FloatArray, IntArray]:
    """(v, 96) unit vectors of the document's words that have one, and (v,) the terms of these.

    They are looked up when a question first asks for them: reading and the cache do without.
    """
    vectors, found = vectors_of(index.uncommon)  # none for none, without the file
    return vectors, index.uncommon_terms[found]
