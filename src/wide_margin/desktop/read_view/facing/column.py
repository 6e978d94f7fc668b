"""The column facing the pages: a translation whose paragraphs stand level with their sources."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QApplication, QFrame, QHBoxLayout, QMenu, QVBoxLayout, QWidget

from wide_margin.core.margin import TranslationBody
from wide_margin.core.translate import LANGUAGES, language_name
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.read_view.cards.translation import ACTIONS, PairBox, progress_told
from wide_margin.desktop.read_view.facing.alignment import Extent, runs_of, tops_beside
from wide_margin.desktop.read_view.facing.pairs import FacingPairs, holds
from wide_margin.desktop.read_view.facing.paragraph import FacingParagraph
from wide_margin.desktop.read_view.page_painting import Laid
from wide_margin.desktop.words import WrappedWords, set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.layout import SpanOnPage
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.read_view.facing.pairs import Key, PairAt
    from wide_margin.desktop.read_view.read_view import ReadView

LEAST_WIDTH, MARGIN, PAGES = 280, 260, 0.54
"""Pixels of the column, and of the margin beside it; what the pages get of the rest."""
SIDE, GAP = 14, 8
NEAR = 1
"""Pages before and after those in view whose paragraphs are aligned too."""
MOST_BUILT = 160
"""Paragraphs kept built."""


class FacingColumn(QFrame):
    """Hidden until a translation is shown. All translations into its language stand in it."""

    def __init__(self, view: ReadView) -> None:
        super().__init__()
        self._view = view
        self.colours: Colours = DAY
        self.pairs = FacingPairs(lambda: view.reader.entries)
        self.chosen: PairAt | None = None
        """Entry and pair that the foot of the column shows."""
        self._built: dict[Key, FacingParagraph] = {}
        self._pointed: PairAt | None = None
        self._bare = 0
        """A page in view that has no translation."""
        self._spans: dict[PairAt, tuple[SpanOnPage, ...]] = {}
        """Of the sentences that have been looked for on their pages."""
        self.setObjectName("facing")
        self.setMinimumWidth(LEAST_WIDTH)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Translation facing the pages")
        self._build()
        view.pages.scrolled.connect(self.align)
        view.pages.text_pointed.connect(self._page_pointed)
        keeper = view.reader.keeper
        keeper.added.connect(self._entry_came)
        keeper.changed.connect(self._entry_came)
        keeper.removed.connect(lambda _: self._gather())
        keeper.shown.connect(self._gather)
        view.reader.opened.connect(lambda _: self.close_it())
        self.hide()

    def _build(self) -> None:
        view = self._view
        self.into = word_button("", "Choose the language to translate to")
        menu = QMenu(self.into)
        for code, name in LANGUAGES.items():
            menu.addAction(name, partial(self._choose_language, code))
        self.into.setMenu(menu)
        self.action = word_button("")
        self.action.clicked.connect(self._act)
        self.check = word_button("", "Go to the next sentence that a check has marked")
        self.check.clicked.connect(self.next_doubt)
        self.terms = word_button("Terms…", "How terms of this document are rendered")
        self.terms.clicked.connect(
            lambda: self._view.commands.facing.list_terms(self.pairs.language)
        )
        close = word_button("Close", "The pages alone again; the translation stays in the margin")
        close.clicked.connect(self.close_it)
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        for button in (self.into, self.action, self.check):
            row.addWidget(button)
        row.addStretch(1)
        row.addWidget(self.terms)
        row.addWidget(close)
        self.told = WrappedWords("", sans_font(-0.5), role="secondary")
        self.told.setContentsMargins(12, 0, 8, 2)
        self.sheet = QWidget()
        self.sheet.setObjectName("facingSheet")
        self.offer = word_button("Translate this page", "Ctrl+T")
        self.offer.setParent(self.sheet)
        self.offer.clicked.connect(lambda: view.commands.facing.translate_page(self._bare))
        self.foot = PairBox()
        self.foot.setObjectName("facingFoot")
        self.foot.set_margins(SIDE, 6)
        self.foot.offers_always = True
        self.foot.corrected.connect(self._correct)
        self.foot.resized.connect(lambda: QTimer.singleShot(0, self, self.align))
        self.foot.hide()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(row)
        column.addWidget(self.told)
        column.addWidget(self.sheet, 1)
        column.addWidget(self.foot)

    def wear(self, colours: Colours) -> None:
        """Change colours: the paragraphs are built anew."""
        self.colours = colours
        self._drop_all()
        self.align()

    # --- showing and closing

    def show_entry(self, entry_id: str) -> None:
        """Show a translation, and those into the same language with it."""
        body = self.pairs.body(entry_id)
        if body is None or not body.is_facing:
            return
        view = self._view
        if not self.isVisible():
            view.beside.close_it()
            self.show()
            view.panels.share(self, LEAST_WIDTH, MARGIN, PAGES)
            QTimer.singleShot(0, self, view.pages.fit_width)
        self.pairs.language = body.language
        first = body.paragraphs[0].place
        self._gather()
        if first.page not in view.pages.visible_pages():
            view.jump(first.page, max(first.y - 8, 0.0))

    def close_it(self) -> None:
        """Show the pages alone again."""
        was_visible = self.isVisible()
        self.hide()
        self._choose(None)
        self._point_at(None)
        self._drop_all()
        self.pairs.on_page = {}
        if was_visible:
            self._view.pages.fit_width()

    def _gather(self) -> None:
        """Find which paragraphs are there; of one translated twice the later counts."""
        if not self.isVisible():
            return
        self.pairs.gather(self._view.reader.outline.outline)
        known = self.pairs.known()
        if not known:
            self.close_it()
            return
        for key in [key for key in self._built if key not in known]:
            self._drop(key)
        self._tell()
        self.align()

    def _entry_came(self, entry: Entry) -> None:
        body = entry.body
        if not self.isVisible() or not isinstance(body, TranslationBody) or not body.is_facing:
            return
        is_known = any(key.entry_id == entry.id for key in self.pairs.known())
        if is_known and body.language != self.pairs.language:  # it was changed on its card
            self.pairs.language = body.language
            self._gather()
        elif not is_known:
            self._gather()
        self._tell()
        self._show_foot()
        self.align()

    # --- the head

    def _here(self) -> str:
        """The translation that is read now: of the page in view, else the last one."""
        for page in self._view.pages.visible_pages():
            if keys := self.pairs.on_page.get(page):
                return keys[0].entry_id
        bodies = self.pairs.bodies()
        return bodies[-1][0] if bodies else ""

    def _tell(self) -> None:
        set_word(self.into, f"Into {language_name(self.pairs.language)} ▾")
        body = self.pairs.body(self._here())
        doubts = len(self.pairs.doubtful())
        set_word(self.check, f"{doubts} to check")
        self.check.setVisible(doubts > 0)
        if body is None:
            return
        set_word(self.action, ACTIONS.get(body.state, ""))
        self.action.setVisible(body.state in ACTIONS)
        origin = ""
        if body.pairs and all(pair.origin == "glosses" for pair in body.pairs if pair.target):
            origin = "glosses, word by word: no translation" if body.n_done else ""
        elif "stand-in" in body.model:
            origin = "simulated"
        elif body.model:
            origin = f"composed by {body.model}"
        self.told.setText(" · ".join(filter(None, (body.of, progress_told(body), origin))))

    def _act(self) -> None:
        entry_id = self._here()
        if body := self.pairs.body(entry_id):
            commands = self._view.commands
            (commands.cancel if body.state.is_under_way else commands.go_on)(entry_id)

    def _choose_language(self, code: str) -> None:
        entry_id = self._here()
        self.pairs.language = code
        self._view.commands.choose_language(entry_id, code)
        self._gather()

    # --- where the paragraphs stand

    def align(self) -> None:
        """Put the paragraphs in view level with their sources."""
        if not self.isVisible():
            return
        near = self.pairs.near(self._view.pages.visible_pages(), NEAR)
        keys = [key for key in near if self.pairs.body(key.entry_id)]  # it may just have gone
        extents = [self._extent(key) for key in keys]
        offset = self._view.pages.viewport().mapTo(self._view, self._view.pages.rect().topLeft())
        shift = offset.y() - self.sheet.mapTo(self._view, self.sheet.rect().topLeft()).y()
        width = max(self.sheet.width() - 2 * SIDE, 120)
        runs = runs_of(extents)
        widgets = [[self._paragraph(key) for key in keys[a:b]] for a, b, _ in runs]
        heights = [
            sum(w.heightForWidth(width) for w in run) + GAP * (len(run) - 1) for run in widgets
        ]
        line = self._view.pages.viewport().height() / 4
        tops = tops_beside([extent for *_, extent in runs], heights, line, GAP)
        shown = set()
        for (first, _, _), run, top in zip(runs, widgets, tops, strict=True):
            y = int(top) + shift
            for k, widget in enumerate(run):
                height = widget.heightForWidth(width)
                if y + height > 0 and y < self.sheet.height():
                    widget.setGeometry(SIDE, y, width, height)
                    widget.show()
                    shown.add(keys[first + k])
                y += height + GAP
        for key in [key for key in self._built if key not in shown]:
            self._built[key].hide()
            if len(self._built) > MOST_BUILT:
                self._drop(key)
        self._offer_page(shift)

    def _offer_page(self, shift: int) -> None:
        """Offer to translate the page in view that has no translation yet."""
        pages = self._view.pages
        middle = next(iter(pages.visible_pages()), 0)
        is_bare = bool(pages.n_pages) and middle not in self.pairs.on_page
        self._bare = middle
        self.offer.adjustSize()
        above = [w for key, w in self._built.items() if w.isVisible()]
        top = max(int(pages.page_rect(middle).top()) + shift + 40, 40)
        top = max([top, *(w.geometry().bottom() + GAP for w in above)])
        self.offer.move(SIDE - 4, top)
        self.offer.setVisible(is_bare and top < self.sheet.height() - self.offer.height())

    def _extent(self, key: Key) -> Extent:
        """Where the source of a paragraph is in the view of the pages."""
        pages = self._view.pages
        body = self.pairs.body(key.entry_id)
        assert body is not None
        place = body.paragraphs[key.number].place
        if boxes := pages.boxes_in_view(place.spans):
            return Extent(min(b.top() for b in boxes), max(b.bottom() for b in boxes))
        top = pages.y_in_view(place.page, max(place.y, 0.0))
        return Extent(top, top + 1.0)

    def _paragraph(self, key: Key) -> FacingParagraph:
        widget = self._built.get(key)
        if widget is None:
            is_heading = self.pairs.is_heading(key)
            is_row = self.pairs.is_row(key)
            widget = FacingParagraph(self.colours, self.sheet, is_heading=is_heading, is_row=is_row)
            self._built[key] = widget
            widget.pointed.connect(lambda k: self._point_at(self._pair_of(key, k)))
            widget.chosen.connect(lambda k: self._choose(self._pair_of(key, k)))
        body, rows = self.pairs.body(key.entry_id), self.pairs.rows(key)
        pairs = body.pairs[rows.start : rows.stop] if body is not None else ()
        widget.show_pairs(pairs, self.pairs.language)
        return widget

    def _drop(self, key: Key) -> None:
        widget = self._built.pop(key)
        widget.hide()
        widget.deleteLater()

    def _drop_all(self) -> None:
        for key in list(self._built):
            self._drop(key)
        self._spans = {}

    # --- one pair

    def _pair_of(self, key: Key, k: int) -> PairAt | None:
        return (key.entry_id, self.pairs.rows(key).start + k) if k >= 0 else None

    def _point_at(self, pair: PairAt | None) -> None:
        """Mark a pair on both sides; the chosen one where none is pointed at."""
        pair = pair or self.chosen
        if pair == self._pointed:
            return
        self._pointed = pair
        for key, widget in self._built.items():
            rows = self.pairs.rows(key)
            is_here = pair is not None and pair[0] == key.entry_id and pair[1] in rows
            widget.mark(pair[1] - rows.start if pair is not None and is_here else -1)
        spans = self._spans_of(pair) if pair is not None else ()
        self._view.pages.lay("evidence", [Laid(spans, "tint")] if spans else [])

    def _spans_of(self, at: PairAt) -> tuple[SpanOnPage, ...]:
        """The characters of a pair's sentence on the pages, once these are at hand."""
        if known := self._spans.get(at):
            return known  # asked at every move of the pointer
        pair, key = self.pairs.pair(at), self.pairs.paragraph_of(at)
        if pair is None or key is None:
            return ()
        found = self._view.pages.part_of(self.pairs.spans_of(key), pair.source)
        self._spans[at] = found
        return found

    def _page_pointed(self, page: int, character: int) -> None:
        """The pointer is on a character of a page, or on none for -1."""
        if not self.isVisible():
            return
        found = None
        for key in self.pairs.over(page) if character >= 0 else ():
            if holds(self.pairs.spans_of(key), page, character):
                for row in self.pairs.rows(key):
                    if holds(self._spans_of((key.entry_id, row)), page, character):
                        found = key.entry_id, row
        self._point_at(found)

    def _choose(self, pair: PairAt | None) -> None:
        """Show a pair at the foot, to be compared and corrected."""
        self.chosen = pair
        self._show_foot()
        self._point_at(pair)
        if pair is not None and (spans := self._spans_of(pair)):
            self._view.pages.reveal(spans)

    def _show_foot(self) -> None:
        pair = self.pairs.pair(self.chosen) if self.chosen else None
        self.foot.setVisible(pair is not None)
        if pair is not None:
            self.foot.show_pair(pair, self.pairs.language)
            self.foot.correct.setVisible(bool(pair.target))

    def _correct(self, text: str) -> None:
        if self.chosen is not None:
            self._view.commands.correct_pair(*self.chosen, text)
        self.setFocus()

    # --- keys

    def step(self, by: int) -> None:
        """Choose the next sentence, or the one before; the first one in view to begin with."""
        order = self.pairs.in_order()
        if not order:
            return
        if self.chosen in order:
            at = min(max(order.index(self.chosen) + by, 0), len(order) - 1)
        else:
            keys = [key for key, widget in self._built.items() if widget.isVisible()]
            seen = [pair for key in keys if (pair := self._pair_of(key, 0))]
            at = min((order.index(pair) for pair in seen if pair in order), default=0)
        self._choose(order[at])

    def next_doubt(self) -> None:
        """Choose the next sentence that a check has marked."""
        order, doubtful = self.pairs.in_order(), self.pairs.doubtful()
        if not doubtful:
            return
        at = order.index(self.chosen) if self.chosen in order else -1
        later = [pair for pair in doubtful if order.index(pair) > at]
        self._choose((later or doubtful)[0])
        self.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Down and up go along the sentences, Return corrects, Escape leaves."""
        key = event.key()
        if key in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            self.step(1 if key == Qt.Key.Key_Down else -1)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.chosen is not None:
            self.foot.edit()
        elif key == Qt.Key.Key_Escape:
            self._choose(None)
            self._view.pages.setFocus()
        else:
            super().keyPressEvent(event)

    def wheelEvent(self, event: QWheelEvent) -> None:
        """The pages scroll, and this column with them."""
        QApplication.sendEvent(self._view.pages.viewport(), event)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Heights follow from the width."""
        super().resizeEvent(event)
        QTimer.singleShot(0, self, self.align)
