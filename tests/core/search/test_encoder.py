import numpy as np
import pytest

from wide_margin.core.search.encoder import MOST_KNOWN, SentenceEncoder, sentence_encoder
from wide_margin.core.search.word_pieces import WordPieces

PIECES = ["[UNK]", "[CLS]", "[SEP]", "weir", "we", "##ir", "##s", "a", ".", "gate", "5"]


@pytest.mark.parametrize(
    ("text", "pieces"),
    [
        ("Weirs", ["weir", "##s"]),
        ("a  gate.", ["a", "gate", "."]),
        ("GATE", ["gate"]),
        ("gâte", ["gate"]),
        ("lock", ["[UNK]"]),
        ("gate_5", ["gate", "[UNK]", "5"]),
        ("", []),
        ("x" * 200, ["[UNK]"]),
    ],
)
def test_words_are_taken_apart_into_their_longest_pieces(text, pieces):
    rows = WordPieces(PIECES).rows_of(text, 48)
    assert [PIECES[row] for row in rows] == ["[CLS]", *pieces, "[SEP]"]


def test_a_long_text_is_cut_and_still_ended():
    rows = WordPieces(PIECES).rows_of("gate " * 100, 10)
    assert len(rows) == 10
    assert PIECES[rows[-1]] == "[SEP]"


def made(n_layers: int = 2, size: int = 8) -> SentenceEncoder:
    random = np.random.default_rng(7)

    def some(*shape: int) -> np.ndarray:
        return random.normal(0, 0.5, shape).astype(np.float32)

    weights = {
        "embedding": random.integers(-127, 128, (len(PIECES), size)).astype(np.int8),
        "scale": np.full(len(PIECES), 0.01, np.float32),
        "positions": some(48, size), "out": some(size, 6), "out bias": some(6),
    }  # fmt: skip
    for name, rows, columns in (
        ("mixes", size, 3 * size), ("joins", size, size),
        ("widens", size, 2 * size), ("narrows", 2 * size, size),
    ):  # fmt: skip
        weights[name] = some(n_layers, rows, columns)
        weights[f"{name} bias"] = some(n_layers, columns)
    return SentenceEncoder(weights, PIECES)


def test_a_text_has_the_same_vector_alone_and_among_others():
    texts = ["a gate", "weirs.", "gate gate gate a weir . 5", ""]
    together, alone = made().encode(texts), np.concatenate([made().encode([t]) for t in texts])
    np.testing.assert_allclose(together, alone, atol=1e-5)


def test_vectors_are_of_unit_length_and_mind_the_order_of_words():
    vectors = made().encode(["a gate weir", "weir gate a"])
    np.testing.assert_allclose(np.linalg.norm(vectors, axis=1), 1, atol=1e-5)
    assert not np.allclose(vectors[0], vectors[1], atol=1e-3)


def test_more_texts_than_are_remembered_come_out_the_same():
    encoder = made()
    first = encoder.encode(["a gate", "weirs"])
    encoder.encode([f"{k} gate" for k in range(MOST_KNOWN - 1)])
    np.testing.assert_allclose(encoder.encode(["weirs", "a gate"]), first[::-1], atol=1e-5)


@pytest.mark.parametrize(
    ("asked", "near", "far"),
    [
        ("How do I delete a program?", "Software can be removed from the system.",
         "A program has a name and a version."),
        ("Who paid for the work?", "The study was funded by a grant.",
         "The work was done in the north of the valley."),
        ("Can I hand out copies?", "You may redistribute this document freely.",
         "The copier stands in the hall."),
        ("How much does it cost?", "The price is twelve crowns.", "It does much for the harbour."),
    ],
)  # fmt: skip
def test_what_means_the_same_lies_nearer_than_what_shares_a_word(asked, near, far):
    question, one, other = sentence_encoder().encode([asked, near, far])
    assert question @ one > question @ other
