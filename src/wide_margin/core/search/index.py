"""The index: how often each term stands in each sentence and passage."""

from array import array
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy import sparse

from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.outline import Outline
from wide_margin.core.passages import Text
from wide_margin.core.search.analysis import Analyser, guess_language, is_common, words
from wide_margin.core.search.vectors import vectors_of


@dataclass(frozen=True, slots=True, eq=False)
class Index:
    """Term statistics of one document.

    Matrices are sparse; t terms, s sentences, p passages, k sections.
    """

    analyser: Analyser
    term_ids: dict[str, int]
    forms: tuple[str, ...]
    """(t,) the most frequent written form of each term."""
    tokens: IntArray
    """Terms of all sentences, one after the other."""
    token_starts: IntArray
    """(s + 1,) where each sentence starts in tokens."""
    by_sentence: sparse.csr_array
    """(s, t) counts."""
    by_passage: sparse.csc_array
    """(p, t) counts."""
    titles: sparse.csc_array
    """(k + 1, t) weight of each term in a section's title (1) and its parents' (0.5); the
    last row, for text before the first section, is empty."""
    passage_lengths: FloatArray
    """(p,) terms in each passage."""
    document_frequency: IntArray
    """(t,) passages that hold each term."""
    sentence_passage: IntArray
    """(s,) the passage of each sentence."""
    vectors: FloatArray
    """(v, 96) unit vectors of the document's words that have one."""
    vector_terms: IntArray
    """(v,) term of each of them."""

    @property
    def language(self) -> str:
        """The document's language."""
        return self.analyser.language

    def idf(self, term: int) -> float:
        """Inverse document frequency over passages (Robertson and Zaragoza 2009, eq. 3.1)."""
        n, df = len(self.passage_lengths), int(self.document_frequency[term])
        return float(np.log1p((n - df + 0.5) / (df + 0.5)))


def build_index(text: Text, outline: Outline) -> Index:
    """Count every term of a document."""
    sample = " ".join(s.text for s in text.sentences[:: max(1, len(text.sentences) // 400)])
    analyser = Analyser(guess_language(sample))
    term_ids: dict[str, int] = {}
    written: Counter[str] = Counter()
    tokens, starts = array("i"), array("i", [0])
    for sentence in text.sentences:
        for word in words(sentence.text):
            written[word] += 1
            for term in analyser.terms_of(word):
                tokens.append(term_ids.setdefault(term, len(term_ids)))
        starts.append(len(tokens))
    title_rows = _title_terms(outline, analyser, term_ids, written)
    all_tokens = np.frombuffer(tokens, dtype=np.int32) if tokens else np.zeros(0, np.int32)
    token_starts = np.frombuffer(starts, dtype=np.int32)
    by_sentence = _counts(all_tokens, token_starts, len(term_ids))
    first = np.array([p.first for p in text.passages] + [len(text.sentences)], dtype=np.int64)
    by_passage = _counts(all_tokens, token_starts[first], len(term_ids)).tocsc()
    forms, vectors, vector_terms = _written_forms(written, analyser, term_ids)
    return Index(
        analyser=analyser,
        term_ids=term_ids,
        forms=forms,
        tokens=all_tokens,
        token_starts=token_starts,
        by_sentence=by_sentence,
        by_passage=by_passage,
        titles=_title_matrix(title_rows, len(term_ids)),
        passage_lengths=np.diff(token_starts[first]).astype(np.float32),
        document_frequency=np.diff(by_passage.indptr),
        sentence_passage=np.repeat(np.arange(len(text.passages)), np.diff(first)),
        vectors=vectors,
        vector_terms=vector_terms,
    )


def _counts(tokens: IntArray, starts: IntArray, n_terms: int) -> sparse.csr_array:
    """(len(starts) - 1, n_terms) how often each term stands between two starts."""
    ones = np.ones(len(tokens), dtype=np.float32)
    # Copied: summing sorts the columns in place, and tokens must keep their order.
    shape = (len(starts) - 1, n_terms)
    matrix = sparse.csr_array((ones, tokens.copy(), starts.copy()), shape=shape)
    matrix.sum_duplicates()
    return matrix


def _title_terms(
    outline: Outline, analyser: Analyser, term_ids: dict[str, int], written: Counter[str]
) -> list[dict[int, float]]:
    rows: list[dict[int, float]] = []
    open_: list[tuple[int, dict[int, float]]] = []
    for section in outline.sections:
        while open_ and open_[-1][0] >= section.level:
            open_.pop()
        row = {term: 0.5 for term in open_[-1][1]} if open_ else {}
        for word in words(section.title):
            written[word] += 1
            if is_common(word, analyser.language):
                continue
            for term in analyser.terms_of(word):
                row[term_ids.setdefault(term, len(term_ids))] = 1.0
        open_.append((section.level, row))
        rows.append(row)
    return rows


def _title_matrix(rows: Sequence[dict[int, float]], n_terms: int) -> sparse.csc_array:
    at = [(k, term, weight) for k, row in enumerate(rows) for term, weight in row.items()]
    shape = (len(rows) + 1, n_terms)
    if not at:
        return sparse.csc_array(shape, dtype=np.float32)
    k, term, weight = zip(*at, strict=True)
    return sparse.csc_array((np.array(weight, dtype=np.float32), (k, term)), shape=shape)


def _written_forms(
    written: Counter[str], analyser: Analyser, term_ids: dict[str, int]
) -> tuple[tuple[str, ...], FloatArray, IntArray]:
    forms = [""] * len(term_ids)
    usable: list[str] = []
    for word, _ in written.most_common():
        terms = analyser.terms_of(word)
        if not terms or terms[0] not in term_ids:
            continue
        if not forms[term_ids[terms[0]]]:
            forms[term_ids[terms[0]]] = word
        if word.isalpha() and not is_common(word, analyser.language):
            usable.append(word)
    if analyser.language != "en":
        return tuple(forms), np.zeros((0, 96), np.float32), np.zeros(0, np.int64)
    vectors, found = vectors_of(usable)
    terms_of = [term_ids[analyser.terms_of(usable[k])[0]] for k in found]
    return tuple(forms), vectors, np.array(terms_of, dtype=np.int64)
