"""How fast a worker reads: at full speed, or holding back for another window's."""

import os
import time
from collections.abc import Iterable
from pathlib import Path

RESTS = 3.0
"""A worker that holds back rests so many times as long as it worked."""
LONGEST = 0.5
"""Seconds that it rests at once at most: it may be wanted again."""


class Pace:
    """Called after each piece of work; rests where the worker holds back."""

    def __init__(self) -> None:
        """At full speed."""
        self.holds_back = False
        self._since = time.perf_counter()

    def __call__(self) -> None:
        """Rest for as long as is due."""
        if self.holds_back:
            time.sleep(min(RESTS * (time.perf_counter() - self._since), LONGEST))
        self._since = time.perf_counter()


def memory_of(process_ids: Iterable[int]) -> float:
    """Proportional set size of some processes together, in megabytes; those that ended have none.

    What several of them share is counted once (Linux, smaps_rollup).
    """
    total = 0
    for process_id in process_ids:
        try:
            lines = Path(f"/proc/{process_id}/smaps_rollup").read_text(encoding="ascii")
        except OSError:
            continue
        total += sum(int(line.split()[1]) for line in lines.splitlines() if line[:4] == "Pss:")
    return total / 1024


def processor_seconds(process_id: int) -> float:
    """Seconds of processor time that a process has had; 0 where it has ended (Linux, stat)."""
    try:
        stat = Path(f"/proc/{process_id}/stat").read_text(encoding="utf-8", errors="replace")
    except OSError:
        return 0.0
    in_user, in_kernel = stat.rpartition(")")[2].split()[11:13]  # its name may hold blanks
    return (int(in_user) + int(in_kernel)) / os.sysconf("SC_CLK_TCK")
