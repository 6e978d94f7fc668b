"""The registry of views: what the window can show of a document, and in which order.

A view is added here and nowhere else: its word, its key, how it is made, and what it does when
it is turned to. The window makes the words at its right end, the menu and the keys of it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Protocol

from PySide6.QtWidgets import QWidget

from wide_margin.core.answers import Reach
from wide_margin.desktop.read_view import ReadView

if TYPE_CHECKING:
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.main_window import MainWindow


class View(Protocol):
    """What every view can do, besides being a widget."""

    def wear(self, colours: Colours) -> None:
        """Change colours."""


@dataclass(frozen=True, slots=True)
class ViewKind:
    """One view of a document."""

    name: str
    """Its word, in the window and in the menu."""
    menu: str
    """The same with its mnemonic."""
    make: Callable[[MainWindow], QWidget]
    """Called once, when the view is first asked for; it takes up what the reader has by then."""
    turn_to: Callable[[MainWindow], None]
    """Called before it is shown, with what is shown now still in place."""


# A view is loaded with the first window that turns to it: most documents are only read.


def _make_read(window: MainWindow) -> QWidget:
    return ReadView(window.reader)


def _make_digest(window: MainWindow) -> QWidget:
    from wide_margin.desktop.digest_view import DigestView

    view = DigestView(window.reader)
    view.section_followed.connect(window.read_section)
    view.followed.connect(window.read_passage)
    view.compose_asked.connect(window.compose_gist)
    view.lines_to_compose.connect(window.compose_lines)
    return view


def _make_outline(window: MainWindow) -> QWidget:
    from wide_margin.desktop.outline_view import OutlineView

    view = OutlineView(window.reader)
    view.read_asked.connect(window.read_section)
    return view


def _make_map(window: MainWindow) -> QWidget:
    from wide_margin.desktop.map_view import MapView

    view = MapView(window.reader)
    view.section_followed.connect(window.read_section)
    view.passage_followed.connect(window.read_passage)
    view.reach_chosen.connect(window.ask_of_section)
    return view


def _make_commonplace(window: MainWindow) -> QWidget:
    from wide_margin.desktop.commonplace_view import CommonplaceView

    view = CommonplaceView(window.reader)
    view.followed.connect(window.read_entry)
    view.elsewhere_followed.connect(window.read_elsewhere)
    return view


def _turn_to_read(window: MainWindow) -> None:
    window.read_view.pages.setFocus()


def _turn_to_digest(window: MainWindow) -> None:
    view, spans = window.read_view, window.read_view.pages.selected_spans()
    chosen = Reach("selection", name="the selection", spans=tuple(spans)) if spans else None
    window.digest_view.selection, window.digest_view.section = chosen, view.section


def _turn_to_outline(window: MainWindow) -> None:
    summary = window.reader.summary
    if summary is not None:
        page, y = window.read_view.here()
        window.outline_view.show_section(summary.outline.at_place(page, y + 20.0))


def _turn_to_map(window: MainWindow) -> None:
    view, held = window.map_view, window.read_view.margin.held
    view.show_held(held.entry if held is not None else None)
    summary = window.reader.summary
    if summary is not None and window.shown_view == "Read":
        page, y = window.read_view.here()
        view.canvas.section = summary.outline.at_place(page, y + 20.0)
    view.canvas.setFocus()


def _turn_to_commonplace(window: MainWindow) -> None:
    window.commonplace_view.list.setFocus()


VIEWS = (
    ViewKind("Read", "&Read", _make_read, _turn_to_read),
    ViewKind("Digest", "&Digest", _make_digest, _turn_to_digest),
    ViewKind("Outline", "Out&line", _make_outline, _turn_to_outline),
    ViewKind("Map", "&Map", _make_map, _turn_to_map),
    ViewKind("Commonplace", "&Commonplace", _make_commonplace, _turn_to_commonplace),
)
"""In the order of their words and keys: Ctrl+1, Ctrl+2, …"""
