"""Bookmarks damaged on purpose, with a list of what was done to them."""

import random
from collections.abc import Sequence
from dataclasses import dataclass, replace

from wide_margin.core.pages import Bookmark

DROPPED, MOVED, REWORDED = 0.30, 0.15, 0.10


@dataclass(frozen=True, slots=True)
class Damaged:
    """Bookmarks after the damage, and the conflicts that it planted."""

    bookmarks: list[Bookmark]
    planted: set[tuple[int, str]]
    """(index in bookmarks, "page", "title" or "level")."""


def damage(bookmarks: Sequence[Bookmark], n_pages: int, seed: int) -> Damaged:
    """Drop, move and reword bookmarks at random, and flatten one level.

    A bookmark that is moved lands 1 to 3 pages off; of one that is reworded half of the words,
    and at least one, are exchanged for words of other titles; the sections of one level below
    the first become siblings of what they hung under.
    """
    random_ = random.Random(seed)
    words = [w for b in bookmarks for w in b.title.split() if len(w) >= 4 and w.isalpha()]
    kept: list[Bookmark] = []
    planted: set[tuple[int, str]] = set()
    for bookmark in bookmarks:
        draw = random_.random()
        if draw < DROPPED or bookmark.page is None:
            continue
        changed = bookmark
        if draw < DROPPED + MOVED:
            steps = [s for s in (-3, -2, -1, 1, 2, 3) if 0 <= bookmark.page + s < n_pages]
            changed = replace(bookmark, page=bookmark.page + random_.choice(steps))
            planted.add((len(kept), "page"))
        elif draw < DROPPED + MOVED + REWORDED and words:
            title = _reworded(bookmark.title, words, random_)
            if title != bookmark.title:
                changed = replace(bookmark, title=title)
                planted.add((len(kept), "title"))
        kept.append(changed)
    deepest = max((b.level for b in kept), default=0)
    if deepest:
        flattened = random_.randint(1, deepest)
        planted |= {(k, "level") for k, b in enumerate(kept) if b.level == flattened}
        kept = [replace(b, level=b.level - 1) if b.level >= flattened else b for b in kept]
    return Damaged(kept, planted)


def _reworded(title: str, words: Sequence[str], random_: random.Random) -> str:
    parts = title.split()
    own = [k for k, part in enumerate(parts) if len(part) >= 4 and part.isalpha()]
    for k in random_.sample(own, max(1, len(own) // 2)) if own else []:
        parts[k] = random_.choice([w for w in words if w != parts[k]] or [parts[k]])
    return " ".join(parts)
