"""Whether a document is the same however many processes read it.

    python bench/same.py [PDF …]

Each document in .eval-documents, or given, is read by one process alone, then with all help, and
what is kept of both is compared part by part: lines, paragraphs, sections, sentences and every
number of the index. Ends with 1 where anything differs.
"""

import os
import sys
import tempfile
from dataclasses import fields
from pathlib import Path

import numpy as np
from run import DOCUMENTS, have_documents

from wide_margin.core.document import ReadDocument
from wide_margin.core.pages.files import sha256_of
from wide_margin.core.session import Session, cache

PATIENCE = 600.0
"""Seconds that a document may take."""


def read(path: Path, *, alone: bool) -> ReadDocument:
    """A document as it is kept after it was read."""
    with tempfile.TemporaryDirectory() as folder:
        os.environ["XDG_CACHE_HOME"] = folder
        with Session(path, two_readers=not alone) as session:
            session.read().result(PATIENCE)
            session.settle(PATIENCE)
        found = cache.load(sha256_of(path))
    if found is None:
        sys.exit(f"{path.name} was not kept")
    return found


def differences(one: object, other: object, name: str) -> list[str]:
    """The names of the parts in which two values of one kind differ."""
    if isinstance(one, np.ndarray):
        return [] if np.array_equal(one, other, equal_nan=one.dtype.kind == "f") else [name]
    if isinstance(one, tuple | list) and not hasattr(one, "_fields"):
        assert isinstance(other, tuple | list)
        pairs = zip(one, other, strict=False)
        each = [d for k, (a, b) in enumerate(pairs) for d in differences(a, b, f"{name}[{k}]")]
        return each[:3] if len(one) == len(other) else [f"{name}: {len(one)} and {len(other)}"]
    if hasattr(one, "__dataclass_fields__"):
        return [
            found for part in fields(one)  # type: ignore[arg-type]
            for found in differences(
                getattr(one, part.name), getattr(other, part.name), f"{name}.{part.name}"
            )
        ]  # fmt: skip
    if type(one).__eq__ is object.__eq__:  # knows no other like itself, as the analyser of words
        return [] if repr(type(one)) == repr(type(other)) else [name]
    return [] if one == other else [name]


def main() -> None:
    """Compare all."""
    paths = [Path(argument) for argument in sys.argv[1:]]
    if not paths:
        have_documents()
        paths = sorted(DOCUMENTS.glob("*.pdf"))
    n_other = 0
    for path in paths:
        found = differences(read(path, alone=True), read(path, alone=False), "document")
        n_other += bool(found)
        print(f"{path.stem:24} {', '.join(found) or 'the same'}", flush=True)
    print(f"{len(paths)} documents, {n_other} of them read otherwise")
    sys.exit(bool(n_other))


if __name__ == "__main__":
    main()
