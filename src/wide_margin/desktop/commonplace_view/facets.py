"""The column of sorts at the left: kinds, inks and tags with their numbers; chosen, they filter."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from PySide6.QtCore import QModelIndex, QPersistentModelIndex, QRect, QSize, Qt, Signal
from PySide6.QtGui import QColor, QPainter
from PySide6.QtWidgets import (
    QListWidget,
    QListWidgetItem,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QWidget,
)

from wide_margin.core.margin import EntryKind, Ink
from wide_margin.core.margin.gathering import PLURALS, Wanted
from wide_margin.core.plain import one_line
from wide_margin.desktop.ink_edges import ink_name, paint_ink
from wide_margin.desktop.look import DAY, sans_font

if TYPE_CHECKING:
    from wide_margin.core.margin.gathering import Counts
    from wide_margin.desktop.look import Colours

WIDTH = 196
ROW, HEAD = 24, 38
MOST_TAGS = 12
_FACET = Qt.ItemDataRole.UserRole


@dataclass(frozen=True, slots=True)
class Facet:
    """A row of the column: a heading, or a sort of entries."""

    name: str
    n: int = -1
    """How many; -1 for a heading."""
    kind: EntryKind | None = None
    ink: Ink | None = None
    tag: str = ""

    @property
    def is_head(self) -> bool:
        """Whether it only names what follows."""
        return self.n < 0


class Facets(QListWidget):
    """What entries can be filtered by; several may hold together."""

    chosen = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("facets")
        self.setAccessibleName("Sorts of entries")
        self.setFixedWidth(WIDTH)
        self.setFrameShape(QListWidget.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.colours: Colours = DAY
        self.kinds: frozenset[EntryKind] = frozenset()
        self.inks: frozenset[Ink] = frozenset()
        self.tags: frozenset[str] = frozenset()
        self.setItemDelegate(_Painter(self))
        self.itemClicked.connect(self._toggle)
        self.itemActivated.connect(self._toggle)

    def wanted(self, words: str) -> Wanted:
        """What is chosen here, with words besides."""
        return Wanted(self.kinds, self.inks, self.tags, words)

    def show_counts(self, counts: Counts) -> None:
        """Show how many there are of each sort."""
        self.tags &= set(counts.tags)
        rows = [Facet("Kind"), Facet("All", counts.n_all)]
        rows += [Facet(PLURALS[k], counts.kinds[k], kind=k) for k in EntryKind if counts.kinds[k]]
        if counts.inks:
            rows.append(Facet("Ink"))
            rows += [Facet(ink_name(i), counts.inks[i], ink=i) for i in Ink if counts.inks[i]]
        if counts.tags:
            rows.append(Facet("Tags"))
            often = [tag for tag, _ in counts.tags.most_common(MOST_TAGS)]
            often += [tag for tag in self.tags if tag not in often]
            rows += [Facet(tag, counts.tags[tag], tag=tag) for tag in often]
        self._fill(rows)

    def _fill(self, rows: Sequence[Facet]) -> None:
        at = self.currentRow()
        self.clear()
        for facet in rows:
            item = QListWidgetItem(facet.name)
            item.setData(_FACET, facet)
            item.setSizeHint(QSize(WIDTH, HEAD if facet.is_head else ROW))
            if facet.is_head:
                item.setFlags(Qt.ItemFlag.NoItemFlags)
            self.addItem(item)
        self.setCurrentRow(min(at, self.count() - 1))

    def is_on(self, facet: Facet) -> bool:
        """Whether a sort is chosen; "All" is where nothing is."""
        if facet.kind is not None:
            return facet.kind in self.kinds
        if facet.ink is not None:
            return facet.ink in self.inks
        if facet.tag:
            return facet.tag in self.tags
        return not facet.is_head and not (self.kinds or self.inks or self.tags)

    def _toggle(self, item: QListWidgetItem) -> None:
        facet = item.data(_FACET)
        if not isinstance(facet, Facet) or facet.is_head:
            return
        if facet.kind is not None:
            self.kinds ^= {facet.kind}
        elif facet.ink is not None:
            self.inks ^= {facet.ink}
        elif facet.tag:
            self.tags ^= {facet.tag}
        else:
            self.kinds, self.inks, self.tags = frozenset(), frozenset(), frozenset()
        self.viewport().update()
        self.chosen.emit()


class _Painter(QStyledItemDelegate):
    """Draws the rows."""

    def __init__(self, facets: Facets) -> None:
        super().__init__(facets)
        self._facets = facets

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem,
        index: QModelIndex | QPersistentModelIndex,
    ) -> None:  # fmt: skip
        """Draw one row."""
        facet, c = index.data(_FACET), self._facets.colours
        if not isinstance(facet, Facet):
            return
        area = QRect(option.rect)
        painter.save()
        if self._facets.is_on(facet):
            painter.fillRect(area.adjusted(8, 0, -8, 0), QColor(c.chosen))
        if self._facets.hasFocus() and self._facets.currentIndex() == index:
            painter.fillRect(
                QRect(area.left() + 8, area.top(), 3, area.height()), QColor(c.verdigris)
            )
        left = area.left() + 18
        if facet.ink is not None:
            paint_ink(painter, QRect(left, area.center().y() - 6, 8, 12), facet.ink, c)
            left += 16
        painter.setFont(sans_font(-0.5 if facet.is_head else 0, bold=facet.is_head))
        painter.setPen(QColor(c.ink))
        align = Qt.AlignmentFlag.AlignBottom if facet.is_head else Qt.AlignmentFlag.AlignVCenter
        room = area.adjusted(left - area.left(), 0, -56, -6 if facet.is_head else 0)
        name = painter.fontMetrics().elidedText(
            one_line(facet.name), Qt.TextElideMode.ElideRight, room.width()
        )
        painter.drawText(room, int(align | Qt.AlignmentFlag.AlignLeft), name)
        if not facet.is_head:
            painter.setPen(QColor(c.secondary))
            count = area.adjusted(0, 0, -18, 0)
            flags = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight
            painter.drawText(count, int(flags), str(facet.n))
        painter.restore()
