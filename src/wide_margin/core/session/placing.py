"""Where entries lie on their pages, box by box, for an annotated copy."""

from collections.abc import Sequence

from wide_margin.core.errors import PageFailedError
from wide_margin.core.export.annotated import Placed
from wide_margin.core.geometry import Box
from wide_margin.core.layout import TextLayer, boxes_of
from wide_margin.core.margin import CuttingBody, Entry
from wide_margin.core.session.session import Session


def placed(session: Session, entries: Sequence[Entry]) -> list[Placed]:
    """Entries with the boxes of their passages; waits for the pages that they stand on."""
    layers: dict[int, TextLayer | None] = {}
    found = []
    for entry in entries:
        boxes: list[tuple[int, Box]] = []
        if isinstance(entry.body, CuttingBody):
            found.append(Placed(entry, ((entry.anchor.page, entry.body.box),)))
            continue
        for page in dict.fromkeys(span.page for span in entry.anchor.spans):
            if page not in layers:
                try:
                    layers[page] = session.text(page).result()
                except PageFailedError:
                    layers[page] = None
            layer = layers[page]
            if layer is not None:
                boxes += [(page, box) for box in boxes_of(layer.page, entry.anchor.spans)]
        found.append(Placed(entry, tuple(boxes)))
    return found
