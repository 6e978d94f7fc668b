"""The points of a talk, put by a writing model sheet by sheet."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from wide_margin.core.digest.composed_talk import compose_points
from wide_margin.core.search.analysis import Analyser
from wide_margin.desktop.service_writing import ServiceWriter

if TYPE_CHECKING:
    from wide_margin.core.digest.talk import Point, Sheet
    from wide_margin.core.jobs import CancelToken
    from wide_margin.desktop.background import Report

_JOB = "talk"


class TalkWriter(ServiceWriter):
    """One talk at a time; what has been written when it is stopped stays."""

    @property
    def is_writing(self) -> bool:
        """Whether a sheet is being written."""
        return _JOB in self._jobs

    def cancel(self, *_: object) -> None:
        """Stop; the one who had it written is told."""
        if self._stop(_JOB):
            self._ended("Stopped.")

    def write(
        self,
        sheets: Sequence[Sheet],
        came: Callable[[Sheet, list[Point], str], None],
        ended: Callable[[str], None],
    ) -> None:
        """Write the points of some sheets.

        Args:
            sheets: In their order.
            came: Called with each sheet, its points and how far that is.
            ended: Called at the end with what went wrong, or "".
        """
        self.cancel()
        self._ended = ended
        summary = self._reader.summary
        analyser = Analyser(summary.language if summary else "en")

        def work(token: CancelToken, report: Report) -> None:
            model = self._model(token)
            for k, sheet in enumerate(sheets):
                points = compose_points(sheet, model, token, analyser)
                report((sheet, points, f"{k + 1} of {len(sheets)} sheets"))

        def arrived(_: str, value: Any) -> None:
            came(*value)

        self._start(_JOB, work, arrived, lambda _, problem: ended(problem))
