"""How the sheets of a talk look, in every format."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wide_margin.core.digest.talk import Sheet

if TYPE_CHECKING:
    from wide_margin.core.digest.talk import Talk

PictureOf = Callable[[Sheet], bytes | None]
"""The picture of a sheet's figure as PNG; None where it has none."""


@dataclass(frozen=True, slots=True)
class Look:
    """Colours of a sheet, by day and by night."""

    ground: str
    ink: str
    quiet: str
    edge: str
    night_ground: str
    night_ink: str
    night_quiet: str
    night_edge: str
    is_serif: bool = True

    def colours(self, *, night: bool) -> tuple[str, str, str, str]:
        """Ground, ink, quiet ink and edge."""
        if night:
            return self.night_ground, self.night_ink, self.night_quiet, self.night_edge
        return self.ground, self.ink, self.quiet, self.edge


LOOKS = {
    "margin paper": Look("FBF8F1", "23272B", "555B62", "2F6B5E",
                         "1E2124", "E4DFD3", "A9A596", "7FC2B0"),
    "tide table": Look("FFFFFF", "1F2D3A", "51606E", "9E3B2F",
                       "14191F", "E6EAEE", "9AA7B3", "E39A8C", is_serif=False),
    "slate": Look("EFEDE8", "2B2B2B", "5E5A52", "B7862B",
                  "22262A", "EFEAE0", "B0AA9E", "C79A45", is_serif=False),
}  # fmt: skip
"""Three looks of our own."""


def sheets_of(talk: Talk) -> list[Sheet]:
    """The sheets of a talk, the ending among them."""
    return [*talk.sheets, talk.ending]
