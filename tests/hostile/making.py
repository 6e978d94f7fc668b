"""Files made to do harm: mutants of small PDFs, and files that are heavy in one way each.

Everything comes from a seed, so that a file that does harm can be made again.
"""

import random
import re
from collections.abc import Callable
from itertools import pairwise
from pathlib import Path

import pikepdf
from pikepdf import Array, Dictionary, Name, String

from tests.making import make_pdf

SEED = 20261126
TEXT = "A well is a hole in the ground that holds water. It must be covered at night."
MARKUP = '<img src="/dev/zero"><b>bold</b>&amp;'
OVERRIDE = "safe\u202egnp.exe"
"""What turns the direction of the rest of its line."""


def small_pdfs(folder: Path) -> list[Path]:
    """Six small PDFs of different structure."""
    folder.mkdir(parents=True, exist_ok=True)
    pages = [[("h1", "1 Wells"), ("text", TEXT)], [("h1", "2 Buckets"), ("text", TEXT * 3)]]
    plain = folder / "plain.pdf"
    make_pdf(plain, pages)
    bookmarked = folder / "bookmarked.pdf"
    make_pdf(bookmarked, pages, bookmarks=[("1 Wells", 0, 0), ("2 Buckets", 0, 1)])
    many = folder / "many.pdf"
    make_pdf(many, pages * 6)
    made = [plain, bookmarked, many]
    for name, options in (
        ("packed", {"object_stream_mode": pikepdf.ObjectStreamMode.generate}),
        ("unpacked", {"compress_streams": False,
                      "stream_decode_level": pikepdf.StreamDecodeLevel.all}),
        ("linear", {"linearize": True}),
    ):  # fmt: skip
        path = folder / f"{name}.pdf"
        with pikepdf.open(bookmarked) as pdf:
            pdf.Root.PageLabels = Dictionary(Nums=Array([0, Dictionary(S=Name.r)]))
            pdf.save(path, **options)
        made.append(path)
    return made


def mutants(sources: list[Path], n: int, folder: Path, seed: int = SEED) -> list[Path]:
    """Copies with something wrong: bytes turned, cut, doubled, numbers and names exchanged."""
    chance = random.Random(seed)
    made = []
    for k in range(n):
        data = bytearray(sources[k % len(sources)].read_bytes())
        for _ in range(chance.choice((1, 2, 6, 20))):
            chance.choice(_CHANGES)(data, chance)
        path = folder / f"mutant-{k:03}.pdf"
        path.write_bytes(data)
        made.append(path)
    return made


def _turn_bytes(data: bytearray, chance: random.Random) -> None:
    for _ in range(chance.randint(1, 8)):
        data[chance.randrange(len(data))] = chance.randrange(256)


def _cut(data: bytearray, chance: random.Random) -> None:
    if chance.random() < 0.2 and len(data) > 200:
        at = chance.randrange(20, len(data))
        del data[at : at + chance.randint(1, 400)]


def _double(data: bytearray, chance: random.Random) -> None:
    at = chance.randrange(len(data))
    data[at:at] = data[at : at + chance.randint(1, 300)]


def _other_number(data: bytearray, chance: random.Random) -> None:
    places = list(re.finditer(rb"\d+", bytes(data)))
    if places:
        place = chance.choice(places)
        number = chance.choice((b"0", b"-1", b"999999999", b"2147483648", b"1e30", b"7"))
        data[place.start() : place.end()] = number


def _other_name(data: bytearray, chance: random.Random) -> None:
    places = list(re.finditer(rb"/[A-Za-z]+", bytes(data)))
    if len(places) > 1:
        place, other = chance.sample(places, 2)
        data[place.start() : place.end()] = other.group()


_CHANGES: tuple[Callable[[bytearray, random.Random], None], ...] = (
    _turn_bytes, _cut, _double, _other_number, _other_name,
)  # fmt: skip


def a_page_called_a_million(path: Path) -> None:
    """/Count says a million; there are two pages."""
    make_pdf(path, [[("h1", "1 Wells"), ("text", TEXT)], [("text", TEXT * 4)]])
    path.write_bytes(path.read_bytes().replace(b"/Count 2", b"/Count 1000000"))


def deep_bookmarks(path: Path, depth: int = 30_000) -> None:
    """Every bookmark hangs under the one before."""

    def change(pdf: pikepdf.Pdf) -> None:
        below = None
        for k in range(depth):
            item = Dictionary(Title=String(f"level {k}"), Dest=_place(pdf))
            if below is not None:
                item.First = item.Last = below
                item.Count = 1
            below = pdf.make_indirect(item)
        pdf.Root.Outlines = pdf.make_indirect(Dictionary(First=below, Last=below, Count=1))

    _changed(path, change)


def many_bookmarks(path: Path, n: int = 20_000) -> None:
    """A list of bookmarks without end."""

    def change(pdf: pikepdf.Pdf) -> None:
        items = [
            pdf.make_indirect(Dictionary(Title=String(f"entry {k}"), Dest=_place(pdf)))
            for k in range(n)
        ]
        for here, following in pairwise(items):
            here.Next, following.Prev = following, here
        pdf.Root.Outlines = pdf.make_indirect(Dictionary(First=items[0], Last=items[-1], Count=n))

    _changed(path, change)


def doubling_forms(path: Path, n: int = 28) -> None:
    """A form draws another twice, which draws another twice, …"""

    def change(pdf: pikepdf.Pdf) -> None:
        inner = pdf.make_stream(b"BT /F1 4 Tf (x) Tj ET")
        for _ in range(n):
            form = pdf.make_stream(b"/X Do /X Do")
            form.Type, form.Subtype, form.BBox = Name.XObject, Name.Form, [0, 0, 600, 800]
            form.Resources = Dictionary(XObject=Dictionary(X=inner))
            inner = form
        page = pdf.pages[0]
        page.obj.Resources.XObject = Dictionary(X=inner)
        page.contents_add(b"/X Do")

    _changed(path, change)


def huge_label(path: Path, n: int = 1_000_000) -> None:
    """A page label of a megabyte."""
    _labels(path, Dictionary(P=String("L" * n)))


def markup_label(path: Path, text: str = MARKUP) -> None:
    """A page label, a title, an author and a bookmark that look like markup."""

    def change(pdf: pikepdf.Pdf) -> None:
        pdf.Root.PageLabels = Dictionary(Nums=Array([0, Dictionary(P=String(text))]))
        pdf.docinfo.Title, pdf.docinfo.Author = String(text), String(text)
        item = pdf.make_indirect(Dictionary(Title=String(text), Dest=_place(pdf)))
        pdf.Root.Outlines = pdf.make_indirect(Dictionary(First=item, Last=item, Count=1))

    _changed(path, change)


def looping_labels(path: Path) -> None:
    """The tree of labels is its own child."""

    def change(pdf: pikepdf.Pdf) -> None:
        tree = pdf.make_indirect(Dictionary())
        tree.Kids = Array([tree])
        tree.Limits = Array([0, 10])
        pdf.Root.PageLabels = tree

    _changed(path, change)


HEAVY: dict[str, Callable[[Path], None]] = {
    "a page called a million": a_page_called_a_million,
    "deep bookmarks": deep_bookmarks,
    "many bookmarks": many_bookmarks,
    "doubling forms": doubling_forms,
    "a label of a megabyte": huge_label,
    "labels that loop": looping_labels,
    "markup": markup_label,
}


def _labels(path: Path, style: Dictionary) -> None:
    def change(pdf: pikepdf.Pdf) -> None:
        pdf.Root.PageLabels = Dictionary(Nums=Array([0, style]))

    _changed(path, change)


def _place(pdf: pikepdf.Pdf) -> Array:
    return Array([pdf.pages[0].obj, Name.Fit])


def _changed(path: Path, change: Callable[[pikepdf.Pdf], object]) -> None:
    make_pdf(path, [[("h1", "1 Wells"), ("text", TEXT)], [("text", TEXT * 4)]])
    with pikepdf.open(path, allow_overwriting_input=True) as pdf:
        change(pdf)
        pdf.save(path)
