"""What is at hand where the reader points: the selection's tab, the menu, links."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint, QUrl
from PySide6.QtGui import QDesktopServices
from PySide6.QtWidgets import QMenu

from wide_margin.desktop.read_view.marking import MORE_COMMANDS
from wide_margin.desktop.read_view.selection_tab import COMMANDS

if TYPE_CHECKING:
    from wide_margin.core.pages import Link
    from wide_margin.desktop.read_view.read_view import ReadView


class AtHand:
    """Offers what can be done with the selection, or under the pointer."""

    def __init__(self, view: ReadView) -> None:
        """For one view."""
        self._view = view

    def move_tab(self) -> None:
        """Put the tab at the page's right edge, level with the selection."""
        spans = self._view.pages.selected_spans() if self._view.pages.has_selection else ()
        boxes = self._view.pages.boxes_in_view(spans)
        view = self._view.pages.viewport()
        visible = [box for box in boxes if box.bottom() > 0 and box.top() < view.height()]
        if not visible:
            self._view.tab.hide()
            self._view.margin.keep_free(None)
            return
        self._view.tab.adjustSize()
        corner = self._view.pages.mapTo(self._view, QPoint(0, 0))
        edge = self._view.pages.page_rect(spans[0].page).right()
        x = corner.x() + min(int(edge) + 1, self._view.pages.width() - 24)
        lowest = corner.y() + view.height() - self._view.tab.height() - 4
        y = min(max(corner.y() + int(visible[0].top()) - 4, corner.y() + 4), lowest)
        self._view.tab.move(x, y)
        self._view.tab.show()
        self._view.tab.raise_()
        top = y - self._view.margin.mapTo(self._view, QPoint(0, 0)).y()
        self._view.margin.keep_free((top - 4, top + self._view.tab.height() + 4))

    def show_menu(self, where: QPoint) -> None:
        """What can be done with the selection, or here."""
        menu = QMenu(self._view)
        if self._view.pages.has_selection:
            menu.addAction("Copy", self._view.pages.copy)
            menu.addAction("Copy with its place", self._view.commands.copy_with_citation)
            menu.addSeparator()
            for name, letter, _ in COMMANDS:
                menu.addAction(name, partial(self._view.commands.act, letter))
            for name, letter in MORE_COMMANDS:
                menu.addAction(name, partial(self._view.commands.act, letter))
            menu.addSeparator()
            menu.addAction("Start a section here", self._view.commands.start_section)
        else:
            menu.addAction("Back", self._view.go_back).setEnabled(bool(self._view.history.behind))
            menu.addAction("Zoom in", lambda: self._view.pages.zoom(1))
            menu.addAction("Zoom out", lambda: self._view.pages.zoom(-1))
            menu.addAction("Fit the width", self._view.pages.fit_width)
        menu.exec(where)

    def follow_link(self, link: Link) -> None:
        """Go where a link of the document leads; outside of it only when the reader agrees."""
        if link.page is not None:
            self._view.jump(link.page, max((link.y or 0.0) - 8, 0.0))
        elif link.address and self._view.confirm_address(link.address):
            QDesktopServices.openUrl(QUrl(link.address))
