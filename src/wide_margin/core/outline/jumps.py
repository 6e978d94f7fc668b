"""Levels without gaps."""

from collections.abc import Sequence


def without_jumps(ranks: Sequence[float]) -> list[int]:
    """Make levels go down one at a time; a section hangs under the last of lower rank."""
    levels: list[int] = []
    open_: list[float] = []
    for rank in ranks:
        while open_ and open_[-1] >= rank:
            open_.pop()
        levels.append(len(open_))
        open_.append(rank)
    return levels
