"""Entries as cards in the margin: what was asked, explained, translated, marked or noted."""

import base64
from collections.abc import Sequence
from functools import partial
from html import escape
from typing import Any, ClassVar

from PySide6.QtCore import (
    QEvent,
    QRect,
    QSize,
    Qt,
    QTimer,
    Signal,
)
from PySide6.QtGui import (
    QColor,
    QCursor,
    QEnterEvent,
    QFont,
    QFontInfo,
    QImage,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QTextDocument,
)
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QLayout,
    QMenu,
    QPlainTextEdit,
    QPushButton,
    QSizePolicy,
    QToolTip,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.export import ANSWER_FORMS
from wide_margin.core.margin import Entry
from wide_margin.core.translate import LANGUAGES, language_name
from wide_margin.desktop.bodies import coverage_text, places_in
from wide_margin.desktop.flow import Flow
from wide_margin.desktop.look import Colours, sans_font, serif_font
from wide_margin.desktop.picture_frame import PictureFrame
from wide_margin.desktop.read_view.page_images import png_of


def word_button(text: str, tip: str = "") -> QPushButton:
    """A word that can be acted on."""
    button = QPushButton(text)
    button.setProperty("role", "word")
    button.setFont(sans_font(-1))
    button.setToolTip(tip)
    button.setCursor(Qt.CursorShape.PointingHandCursor)
    return button


class WrappedLabel(QLabel):
    """A label of wrapped rich text that asks for exactly the height its text takes.

    QLabel measures rich text of mixed fonts some pixels short, and asks for the height of a
    narrow column as its least height.
    """

    def __init__(self, text: str, font: QFont) -> None:
        super().__init__(text)
        self.setFont(font)
        self.setWordWrap(True)
        self.setTextFormat(Qt.TextFormat.RichText)
        self.setTextInteractionFlags(
            Qt.TextInteractionFlag.TextSelectableByMouse
            | Qt.TextInteractionFlag.LinksAccessibleByMouse
            | Qt.TextInteractionFlag.LinksAccessibleByKeyboard
        )
        policy = QSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)

    def heightForWidth(self, width: int) -> int:
        """Pixels that the text takes at a width."""
        document = QTextDocument()
        document.setDefaultFont(self.font())
        document.setDocumentMargin(0)
        document.setHtml(self.text())
        document.setTextWidth(max(width, 20))
        return int(document.size().height()) + 3

    def minimumSizeHint(self) -> QSize:
        """One line: the height follows from the width."""
        return QSize(40, self.fontMetrics().height())

    def sizeHint(self) -> QSize:
        """As high as the text at the width it has."""
        return QSize(200, self.heightForWidth(max(self.width(), 200)))


def text_label(text: str, font: QFont, role: str = "") -> QLabel:
    """A label that wraps, with selectable text; text is HTML."""
    label = WrappedLabel(text, font)
    if role:
        label.setProperty("role", role)
    return label


def place_link(index: int, shown: str, colours: Colours, *, here: bool) -> str:
    """A locator as rich text; the one being visited is inverted."""
    family = QFontInfo(sans_font()).family()
    colour = (
        f"color:{colours.paper};background-color:{colours.madder}"
        if here
        else f"color:{colours.madder}"
    )
    line = "none" if here else "underline"
    gap = "&nbsp;" if here else ""
    size = sans_font(-1).pointSizeF()
    return (
        f'<a href="place:{index}" style="{colour};text-decoration:{line};'
        f"font-family:'{family}';font-size:{size}pt;font-weight:600\">{gap}{escape(shown)}{gap}</a>"
    )


class Backing(QWidget):
    """The bar at the left of a statement: full, half or hollow."""

    TELLS: ClassVar = {"backed": "Backed: the document's own words",
             "partly": "Partly backed: the excerpt holds only part of this",
             "unbacked": "Unbacked: the excerpt does not hold this"}  # fmt: skip

    def __init__(self, backing: str, colours: Colours, notes: Sequence[str] = ()) -> None:
        super().__init__()
        self._backing, self._colours = backing, colours
        self.setFixedWidth(4)
        tells = self.TELLS[backing] if backing != "backed" or not notes else "Backed"
        self.setToolTip("\n".join([tells, *(f"· {note}" for note in notes)]))
        self.setAccessibleName(tells)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the bar."""
        painter = QPainter(self)
        colour = QColor(self._colours.verdigris)
        rect = self.rect()
        if self._backing == "backed":
            painter.fillRect(rect, colour)
            return
        painter.setPen(colour)
        painter.drawRect(rect.adjusted(0, 0, -1, -1))
        if self._backing == "partly":
            painter.fillRect(rect.adjusted(0, rect.height() // 2, 0, 0), colour)


class PassagePicture(PictureFrame):
    """A small picture of where an excerpt stands; larger under the pointer."""

    clicked = Signal()
    HIGH, LARGE = 50, 460
    """Pixels of the strip's height and of the larger picture's width."""

    def __init__(self, shown: str) -> None:
        super().__init__(highest=self.HIGH)
        self.setMinimumWidth(60)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(f"Picture of {shown}")
        self.is_asked_for = False

    def show_image(self, image: QImage) -> None:
        """Show the picture, and the larger one under the pointer."""
        super().show_image(image)
        self.setToolTip(f'<img width="{self.LARGE}" src="data:image/png;base64,{png_of(image)}">')

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Go there."""
        self.clicked.emit()


class Card(QFrame):
    """One entry. Subclasses fill ``column`` under the head."""

    place_chosen = Signal(str, int)
    delete_asked = Signal(str)
    hold_asked = Signal(str)
    resized = Signal()

    def __init__(self, entry: Entry, colours: Colours, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("entry")
        self.entry, self.colours = entry, colours
        self.here = -1
        self.edge = colours.verdigris
        self._labels: list[tuple[QLabel, Any]] = []
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(12, 2, 4, 4)
        self.column.setSpacing(4)
        self.head = text_label("", sans_font(-1.5), "secondary")
        self._delete = word_button("Delete", "Delete this entry; Ctrl+Z brings it back")
        self._delete.clicked.connect(lambda: self.delete_asked.emit(self.entry.id))
        keep = self._delete.sizePolicy()
        keep.setRetainSizeWhenHidden(True)
        self._delete.setSizePolicy(keep)
        self._delete.hide()
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.head, 1)
        row.addWidget(self._delete, 0, Qt.AlignmentFlag.AlignTop)
        self.column.addLayout(row)
        self.fill()

    def fill(self) -> None:
        """Build the content."""

    def update_entry(self, entry: Entry) -> None:
        """Show a changed entry."""
        self.entry = entry

    def show_here(self, index: int) -> None:
        """Mark the locator that is being visited."""
        self.here = index
        for label, make in self._labels:
            label.setText(make())

    def rich(self, font: QFont, make: Any) -> QLabel:
        """A label of rich text that is made anew when the visited place changes."""
        label = text_label(make(), font)
        label.linkActivated.connect(self._link)
        label.linkHovered.connect(self._tell_place)
        self._labels.append((label, make))
        return label

    def link(self, index: int, shown: str) -> str:
        """A locator of this card as rich text."""
        return place_link(index, shown, self.colours, here=index == self.here)

    def _link(self, target: str) -> None:
        kind, _, value = target.partition(":")
        if kind == "place":
            self.place_chosen.emit(self.entry.id, int(value))

    def height_at(self, width: int) -> int:
        """Pixels that the card takes at a width."""
        for layout in self.findChildren(QLayout):
            layout.invalidate()  # what was found before the style was applied is too small
        frame = 2 * self.frameWidth()
        return self.column.heightForWidth(width - frame) + frame

    def places(self) -> list[dict[str, Any]]:
        """The places this card leads to, in the order of its locators."""
        return places_in(self.entry.kind, self.entry.body)

    def _tell_place(self, target: str) -> None:
        """File page and section path of a locator under the pointer."""
        _, _, value = target.partition(":")
        places = self.places()
        if value.isdigit() and int(value) < len(places):
            place = places[int(value)]
            path = " / ".join(place["path"])
            QToolTip.showText(QCursor.pos(), f"file page {place['page'] + 1} · {path}", self)
        else:
            QToolTip.hideText()

    def enterEvent(self, event: QEnterEvent) -> None:
        """Offer to delete."""
        self._delete.show()

    def leaveEvent(self, event: QEvent) -> None:
        """Stop offering."""
        self._delete.setVisible(self._delete.hasFocus())

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the edge that tells the kind."""
        super().paintEvent(event)
        painter = QPainter(self)
        painter.fillRect(0, 0, 2, self.height(), QColor(self.edge))


class AnswerCard(Card):
    """A question and its answer, beside its first place."""

    def fill(self) -> None:
        """Question, first quote, and the way to hold it again."""
        body = self.entry.body
        self.edge = self.colours.madder
        self.head.setText(f"Question · {body['reach']}")
        self.column.addWidget(text_label(escape(body["question"]), sans_font(bold=True)))
        if body["quotes"]:
            places = iter(range(99))
            for quote in body["quotes"][:2]:
                indexes = [next(places) for _ in quote["places"]]
                self.column.addWidget(
                    self.rich(serif_font(), lambda q=quote, i=indexes: quote_html(self, q, i))
                )
        else:
            self.column.addWidget(text_label("The document does not say.", sans_font()))
        hold = word_button("Hold", "Hold this answer at the top of the margin")
        hold.clicked.connect(lambda: self.hold_asked.emit(self.entry.id))
        self.column.addWidget(hold, 0, Qt.AlignmentFlag.AlignLeft)


def quote_html(
    card: Card, quote: dict[str, Any], indexes: list[int], *, quoted: bool = True
) -> str:
    """A statement with its locators behind it, in quotation marks where it is the document's."""
    shown: dict[str, int] = {}
    for index, place in zip(indexes, quote["places"], strict=True):
        shown.setdefault(place["shown"], index)
    links = " ".join(card.link(index, text) for text, index in shown.items())
    text = _emphasised(quote["text"], quote["emphasis"])
    if quoted:
        return f"“{text}” {links}"
    small, colour = sans_font(-1.5).pointSizeF(), card.colours.secondary
    nowhere = f'<span style="font-size:{small}pt;color:{colour}">no place in the document</span>'
    return f"{text} {links or nowhere}"


def _emphasised(text: str, ranges: list[list[int]]) -> str:
    parts, at = [], 0
    for first, last in ranges:
        parts.append(escape(text[at:first]))
        parts.append(f"<b>{escape(text[first:last])}</b>")
        at = last
    parts.append(escape(text[at:]))
    return "".join(parts)


class WorthAsking(QFrame):
    """Questions to begin with, as lines of text beside the first page."""

    APART: ClassVar = 7
    asked = Signal(str)
    kind_chosen = Signal(str)

    def __init__(
        self, kind: str, questions: Sequence[str], colours: Colours, parent: QWidget
    ) -> None:
        super().__init__(parent)
        head = QHBoxLayout()
        head.setSpacing(4)
        name = QLabel("Worth asking")
        name.setFont(sans_font(-1))
        name.setProperty("role", "secondary")
        head.addWidget(name)
        self.kind = word_button(f"of {KIND_NAMES[kind]} ▾", "What kind of document this is")
        menu = QMenu(self.kind)
        for other, shown in KIND_NAMES.items():
            menu.addAction(shown[0].upper() + shown[1:], partial(self.kind_chosen.emit, other))
        self.kind.setMenu(menu)
        head.addWidget(self.kind)
        head.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(self.APART)
        column.addLayout(head)
        self.lines: list[QLabel] = []
        for question in questions:
            style = f"color:{colours.ink};text-decoration:none"
            link = f'<a href="ask:" style="{style}">{escape(question)}</a>'
            line = text_label(link, serif_font(0.5))
            line.setToolTip("Ask this")
            line.linkActivated.connect(partial(self._ask, question))
            column.addWidget(line)
            self.lines.append(line)
        if not questions:
            column.addWidget(text_label("Nothing in particular was found.", sans_font(-0.5)))

    def _ask(self, question: str, _: str) -> None:
        self.asked.emit(question)

    def height_at(self, width: int) -> int:
        """Pixels that the lines take at a width."""
        texts = sum(line.heightForWidth(width) + self.APART for line in self.lines)
        return self.kind.sizeHint().height() + texts + 6


KIND_NAMES = {
    "article": "an article", "manual": "a manual", "report": "a report", "statute": "a statute",
    "script": "a script", "other": "a document",
}  # fmt: skip


class HeldAnswer(Card):
    """The answer held at the top of the margin while its places are visited."""

    let_go = Signal()
    next_asked = Signal()
    ask_on = Signal(str)
    again_asked = Signal(str)
    reword_asked = Signal(str)
    compose_asked = Signal(str, bool)  # entry, whether in own words
    quote_asked = Signal(str)
    cancel_asked = Signal(str)
    struck = Signal(str, int)
    copy_asked = Signal(str, str)  # entry, form
    picture_wanted = Signal(int)  # excerpt
    excerpts_opened = Signal()

    def __init__(
        self, entry: Entry, colours: Colours, parent: QWidget | None = None, *, composes: bool
    ) -> None:
        self._composes = composes
        self.pictures: list[PassagePicture] = []
        super().__init__(entry, colours, parent)

    def places(self) -> list[dict[str, Any]]:
        """The quoted places, then the excerpts'."""
        quoted = [place for quote in self.entry.body["quotes"] for place in quote["places"]]
        return quoted + [excerpt["place"] for excerpt in self.entry.body["excerpts"]]

    def fill(self) -> None:
        """Question, statements with their backing, coverage, actions, excerpts."""
        self.setObjectName("held")
        self.edge = self.colours.paper
        self.column.setContentsMargins(14, 8, 14, 8)
        self.column.setSpacing(8)
        body = self.entry.body
        is_composed = body["origin"] == "composed"
        self.head.setText(f"Held question · {body['reach']} · {_origin(body)}")
        if body.get("before"):
            earlier = f"after “{_shortened(body['before']['question'], 70)}”"
            self.column.addWidget(text_label(escape(earlier), sans_font(-1.5), "secondary"))
        self.column.addWidget(text_label(escape(body["question"]), sans_font(0.5, bold=True)))
        index = 0
        for quote in body["quotes"]:
            indexes = list(range(index, index + len(quote["places"])))
            index += len(indexes)
            row = QHBoxLayout()
            row.setSpacing(8)
            row.addWidget(Backing(quote["backing"], self.colours, quote.get("notes", ())))

            def make(q: dict[str, Any] = quote, i: list[int] = indexes) -> str:
                return quote_html(self, q, i, quoted=not is_composed)

            row.addWidget(self.rich(serif_font(0.5), make), 1)
            self.column.addLayout(row)
        is_running = body.get("state") == "running"
        if not body["quotes"]:
            said = "Composing…" if is_running else "The document does not say."
            self.column.addWidget(text_label(said, sans_font(0.5)))
        if body.get("problem"):
            self.column.addWidget(text_label(escape(body["problem"]), sans_font(-0.5)))
        if body["missing"] and body["quotes"]:
            words = ", ".join(f"“{word}”" for word in body["missing"])
            self.column.addWidget(text_label(f"Nothing found on {escape(words)}.", sans_font(-0.5)))
        hair = QFrame()
        hair.setObjectName("hair")
        hair.setFixedHeight(1)
        self.column.addWidget(hair)
        self.column.addWidget(text_label(coverage_text(body), sans_font(-1.5), "secondary"))
        declined = not body["quotes"] and not is_running
        self._add_actions(len(body["excerpts"]), declined=declined)
        self._add_further(body, declined=declined, is_running=is_running)
        self._add_excerpts(body, declined=declined)

    def _add_actions(self, n_excerpts: int, *, declined: bool) -> None:
        row = Flow()
        name = "excerpt" if n_excerpts == 1 else "excerpts"
        self.excerpts_button = word_button(
            f"{n_excerpts} {name}", "Show what the answer was found among"
        )
        self.excerpts_button.setCheckable(True)
        self.excerpts_button.toggled.connect(self._show_excerpts)
        self.excerpts_button.setVisible(not declined and n_excerpts > 0)
        following = word_button("Next place", "Visit the next place of this answer ( ] )")
        following.clicked.connect(self.next_asked)
        letting = word_button("Let go", "Return the answer to its place in the margin")
        letting.clicked.connect(self.let_go)
        reword = word_button("Ask again", "Put the question back into the ask line")
        reword.clicked.connect(lambda: self.reword_asked.emit(self.entry.id))
        for button in (self.excerpts_button, following, reword, letting):
            row.addWidget(button)
        self.column.addLayout(row)

    def _add_further(self, body: dict[str, Any], *, declined: bool, is_running: bool) -> None:
        row = Flow()
        on = word_button("Ask on from here", "The next question may lean on this one")
        on.clicked.connect(lambda: self.ask_on.emit(self.entry.id))
        row.addWidget(on)
        if is_running:
            stop = word_button("Cancel", "Stop composing")
            stop.clicked.connect(lambda: self.cancel_asked.emit(self.entry.id))
            row.addWidget(stop)
        elif body["origin"] == "composed":
            back = word_button("Quote again", "Show the document's own words")
            back.clicked.connect(lambda: self.quote_asked.emit(self.entry.id))
            row.addWidget(back)
            self._offer_composing(row, freely=not body.get("freely"), again=True)
        elif self._composes and not declined:
            self._offer_composing(row, freely=False, again=False)
        if body["quotes"]:
            copy = word_button("Copy ▾", "Put the answer on the clipboard")
            menu = QMenu(copy)
            for form, name in ANSWER_FORMS.items():
                menu.addAction(name, partial(self.copy_asked.emit, self.entry.id, form))
            copy.setMenu(menu)
            row.addWidget(copy)
        self.column.addLayout(row)
        if body.get("struck"):
            again = word_button("Ask again from what is kept", "Leave the struck excerpts out")
            again.clicked.connect(lambda: self.again_asked.emit(self.entry.id))
            self.column.addWidget(again, 0, Qt.AlignmentFlag.AlignLeft)

    def _offer_composing(self, row: Flow, *, freely: bool, again: bool) -> None:
        if not self._composes:
            return
        manner = ("close to their words", "in the model's own words")[freely]
        tip = f"Have the writing model compose an answer from the excerpts that are kept, {manner}"
        name = ("Compose closely", "Compose freely")[freely] if again else "Compose"
        button = word_button(name, tip)
        button.clicked.connect(lambda: self.compose_asked.emit(self.entry.id, freely))
        row.addWidget(button)

    def _add_excerpts(self, body: dict[str, Any], *, declined: bool) -> None:
        self._excerpts = QWidget()
        column = QVBoxLayout(self._excerpts)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        if declined and body["excerpts"]:
            column.addWidget(text_label("The nearest passages:", sans_font(-1), "secondary"))
        shown = body["excerpts"][:3] if declined else body["excerpts"]
        n_quoted = sum(len(quote["places"]) for quote in body["quotes"])
        for k, excerpt in enumerate(shown):
            place = excerpt["place"]
            path = " / ".join(place["path"])
            index = k if declined else n_quoted + k

            def head(at: int = index, said: str = place["shown"], where: str = path) -> str:
                family, size = QFontInfo(sans_font()).family(), sans_font(-1.5).pointSizeF()
                colour = self.colours.secondary
                style = f"font-family:'{family}';font-size:{size}pt;color:{colour}"
                return f'{self.link(at, said)} <span style="{style}">{escape(where)}</span>'

            is_struck = k in body.get("struck", ())
            line = QHBoxLayout()
            line.setSpacing(8)
            line.addWidget(self.rich(serif_font(-0.5), head), 1)
            if not declined:
                toggle = word_button(
                    "Keep" if is_struck else "Strike", "Whether to answer from this excerpt"
                )
                toggle.clicked.connect(partial(self.struck.emit, self.entry.id, k))
                line.addWidget(toggle, 0, Qt.AlignmentFlag.AlignTop)
            picture = PassagePicture(place["shown"])
            picture.clicked.connect(partial(self.place_chosen.emit, self.entry.id, index))
            self.pictures.append(picture)
            said = escape(_shortened(excerpt["text"], 240))
            text = text_label(f"<s>{said}</s>" if is_struck else said, serif_font(-0.5))
            column.addLayout(line)
            column.addWidget(picture)
            column.addWidget(text)
            column.addSpacing(4)
        self._excerpts.setVisible(declined)
        self.column.addWidget(self._excerpts)
        if body.get("struck"):
            self.excerpts_button.setChecked(True)

    @property
    def shows_excerpts(self) -> bool:
        """Whether what the answer was found among is open."""
        return not self._excerpts.isHidden()

    def excerpts_top(self) -> int:
        """Pixels from the top to the first excerpt."""
        return self._excerpts.y()

    def ask_for_pictures(self) -> None:
        """Wish for the pictures of the excerpts that are in view."""
        if self.shows_excerpts:
            for k, picture in enumerate(self.pictures):
                if not picture.is_asked_for:
                    picture.is_asked_for = True
                    self.picture_wanted.emit(k)

    def _show_excerpts(self, shown: bool) -> None:
        self._excerpts.setVisible(shown)
        self.ask_for_pictures()
        self.resized.emit()
        if shown:
            self.excerpts_opened.emit()


def _origin(body: dict[str, Any]) -> str:
    """Whose words an answer is made of."""
    if body["origin"] == "composed":
        model = str(body.get("model", ""))
        return "composed, simulated" if "stand-in" in model else f"composed by {model}".strip()
    return "quoted" if body["quotes"] else "declined"


def _shortened(text: str, limit: int = 320) -> str:
    return text if len(text) <= limit else text[:limit].rsplit(" ", 1)[0] + " …"


class ExplanationCard(Card):
    """What the document says of the selected words."""

    def fill(self) -> None:
        """Terms with their definitions, references with their places."""
        body = self.entry.body
        self.head.setText("Explanation · from this document")
        index = 0
        for meaning in body["meanings"]:
            self.column.addWidget(
                self.rich(serif_font(), lambda m=meaning, i=index: self._meaning(m, i))
            )
            index += 1
        for reference in body["references"]:
            at = index if reference["place"] else -1
            index += at >= 0
            self.column.addWidget(
                self.rich(sans_font(-0.5), lambda r=reference, i=at: self._reference(r, i))
            )
        if not index and not body["references"]:
            self.column.addWidget(
                text_label(
                    "The document does not define these words or refer elsewhere in them.",
                    sans_font(-0.5),
                )
            )

    def _meaning(self, meaning: dict[str, Any], index: int) -> str:
        link = self.link(index, meaning["place"]["shown"])
        term = meaning["long_form"] or meaning["term"]
        if meaning["kind"] == "used":
            return f"used here: “{escape(_shortened(meaning['text']))}” {link}"
        if meaning["long_form"]:
            head = f"<b>{escape(meaning['term'])}</b> — {escape(term)}: "
        else:
            head = f"<b>{escape(term)}</b> — "
        return f"{head}“{escape(_shortened(meaning['text']))}” {link}"

    def _reference(self, reference: dict[str, Any], index: int) -> str:
        if index < 0:
            return f"{escape(reference['text'])}: not found in this document"
        link = self.link(index, reference["place"]["shown"])
        return f"{escape(reference['text'])} → {escape(reference['title'])} {link}"


class TranslationCard(Card):
    """Sentences and their translations, pair by pair."""

    language_chosen = Signal(str, str)
    cancel_asked = Signal(str)
    retry_asked = Signal(str)
    pair_entered = Signal(str, int)

    def fill(self) -> None:
        """The language, then the pairs."""
        self.language = word_button("", "Choose the language to translate to")
        menu = QMenu(self.language)
        for code, name in LANGUAGES.items():
            menu.addAction(name, partial(self._choose, code))
        self.language.setMenu(menu)
        self.action = word_button("Cancel")
        self.action.clicked.connect(self._act)
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.language)
        row.addWidget(self.action)
        row.addStretch(1)
        self.column.addLayout(row)
        self.message = text_label("", sans_font(-0.5))
        self.column.addWidget(self.message)
        self._pairs: list[tuple[QLabel, QLabel]] = []
        self.update_entry(self.entry)

    def update_entry(self, entry: Entry) -> None:
        """Show what has arrived."""
        super().update_entry(entry)
        body = entry.body
        language = language_name(body["language"])
        self.language.setText(f"Into {language} ▾")
        parts = ["Translation", language]
        if "stand-in" in body.get("model", ""):
            parts.append("simulated")
        elif body.get("model"):
            parts.append(f"composed by {body['model']}")
        self.head.setText(" · ".join(parts))
        state = body.get("state", "done")
        self.action.setText({"running": "Cancel", "waiting": "Cancel"}.get(state, "Try again"))
        self.action.setVisible(state != "done")
        problem = body.get("problem", "")
        self.message.setText(escape(problem) if problem else "Translating…")
        self.message.setVisible(bool(problem) or state in ("running", "waiting"))
        while len(self._pairs) < len(body["pairs"]):
            self._add_pair(len(self._pairs))
        for (source, target), (said, translated, *rest) in zip(
            self._pairs, body["pairs"], strict=False
        ):
            source.setText(escape(said))
            doubts = rest[0] if rest else []
            note = f"<br><i>Numbers missing: {escape(', '.join(doubts))}</i>" if doubts else ""
            target.setText(escape(translated) + note)
            target.setVisible(bool(translated))
        self.resized.emit()

    def _choose(self, code: str) -> None:
        self.language_chosen.emit(self.entry.id, code)

    def _add_pair(self, row: int) -> None:
        source, target = text_label("", serif_font(-0.5), "secondary"), text_label("", sans_font())
        box = _PairBox(source, target)
        box.entered.connect(lambda: self.pair_entered.emit(self.entry.id, row))
        box.gone.connect(lambda: self.pair_entered.emit(self.entry.id, -1))
        self.column.addWidget(box)
        self._pairs.append((source, target))

    def _act(self) -> None:
        running = self.entry.body.get("state") in ("running", "waiting")
        (self.cancel_asked if running else self.retry_asked).emit(self.entry.id)


class _PairBox(QFrame):
    """A sentence over its translation; tells when the pointer is on it."""

    entered = Signal()
    gone = Signal()

    def __init__(self, source: QLabel, target: QLabel) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 2, 0, 2)
        column.setSpacing(1)
        column.addWidget(source)
        column.addWidget(target)

    def enterEvent(self, event: QEnterEvent) -> None:
        """The pointer came."""
        self.entered.emit()

    def leaveEvent(self, event: QEvent) -> None:
        """The pointer left."""
        self.gone.emit()


class NoteCard(Card):
    """The reader's own words beside a passage; kept while they are typed."""

    text_changed = Signal(str, str)

    def fill(self) -> None:
        """A field that grows with its text."""
        self.edge = self.colours.ochre
        is_mark = self.entry.kind == "mark"
        self.head.setText("Mark" if is_mark else "Note")
        self.field = QPlainTextEdit(self.entry.body.get("text", ""))
        self.field.setPlaceholderText("Add a comment" if is_mark else "Write a note")
        self.field.setAccessibleName("Comment" if is_mark else "Note")
        self.field.setFont(sans_font())
        self.field.setTabChangesFocus(True)
        self.field.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(250)
        self._timer.timeout.connect(self.save)
        self.field.textChanged.connect(self._typed)
        if is_mark:
            quote = " ".join(self.entry.anchor.quote.split())
            self.column.addWidget(
                text_label(f"“{escape(_shortened(quote, 120))}”", serif_font(-0.5))
            )
        self.column.addWidget(self.field)
        self._fit()

    def save(self) -> None:
        """Keep what is typed."""
        self._timer.stop()
        text = self.field.toPlainText()
        if text != self.entry.body.get("text", ""):
            self.text_changed.emit(self.entry.id, text)

    def _typed(self) -> None:
        self._timer.start()
        self._fit()
        self.resized.emit()

    def _fit(self) -> None:
        lines = max(1, int(self.field.document().size().height()))
        spacing = self.field.fontMetrics().lineSpacing()
        self.field.setFixedHeight(min(lines, 12) * spacing + 14)


class CuttingCard(NoteCard):
    """A region of a page kept as a picture, with room for a comment."""

    def fill(self) -> None:
        """The picture over the field."""
        super().fill()
        self.head.setText("Cutting")
        self.field.setPlaceholderText("Add a comment")
        image = QImage.fromData(base64.b64decode(self.entry.body.get("png", "")))
        self._picture = _Picture(image)
        self._picture.setToolTip(self.entry.anchor.quote[:400])
        self._picture.setAccessibleName(self.entry.anchor.quote[:400] or "Picture")
        self.column.insertWidget(1, self._picture)


class _Picture(QWidget):
    """A picture as wide as there is room, at most twice its points."""

    def __init__(self, image: QImage) -> None:
        super().__init__()
        self._image = image
        policy = QSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)

    def heightForWidth(self, width: int) -> int:
        """Pixels, keeping the picture's shape."""
        if self._image.isNull():
            return 0
        shown = min(width, self._image.width())
        return min(int(shown * self._image.height() / self._image.width()), 260)

    def sizeHint(self) -> QSize:
        """Some width; the height follows."""
        return QSize(200, self.heightForWidth(max(self.width(), 200)))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it."""
        if self._image.isNull():
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        size = self._image.size().scaled(self.size(), Qt.AspectRatioMode.KeepAspectRatio)
        painter.drawImage(QRect(0, 0, size.width(), size.height()), self._image)


def card_for(entry: Entry, colours: Colours, parent: QWidget) -> Card:
    """The card of an entry's kind."""
    kinds = {"question": AnswerCard, "explanation": ExplanationCard,
             "translation": TranslationCard, "cutting": CuttingCard}  # fmt: skip
    return kinds.get(entry.kind, NoteCard)(entry, colours, parent)
