"""Places where one was, to go back to."""

from dataclasses import dataclass, field

MAX_PLACES = 200


@dataclass(slots=True)
class History:
    """Places (page index, y) before and after the present one."""

    behind: list[tuple[int, float]] = field(default_factory=list)
    ahead: list[tuple[int, float]] = field(default_factory=list)

    def leave(self, place: tuple[int, float]) -> None:
        """A jump starts here."""
        if not self.behind or self.behind[-1] != place:
            self.behind.append(place)
        del self.behind[:-MAX_PLACES]
        self.ahead.clear()

    def back(self, here: tuple[int, float]) -> tuple[int, float] | None:
        """The place before this one."""
        if not self.behind:
            return None
        self.ahead.append(here)
        return self.behind.pop()

    def forward(self, here: tuple[int, float]) -> tuple[int, float] | None:
        """The place that back left."""
        if not self.ahead:
            return None
        self.behind.append(here)
        return self.ahead.pop()
