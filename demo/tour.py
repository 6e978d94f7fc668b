"""A tour of the window on the demo handbook: each step does something and looks at the result."""

import time
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QEventLoop, Qt
from PySide6.QtTest import QTest

from wide_margin.core.margin import Entry, Store, default_store_path
from wide_margin.core.services import SettingsKeeper
from wide_margin.desktop.app import make_application
from wide_margin.desktop.main_window import MainWindow


class StepFailed(Exception):
    """A step did not show what it should."""


class Tour:
    """Drives a real main window; every step prints what it found."""

    def __init__(self, handbook: Path, model_address: str, pictures: Path) -> None:
        self._handbook, self._address, self._pictures = handbook, model_address, pictures
        self._application = make_application()
        self._window = self._open_window()
        self._n_pictures = 0

    def _open_window(self) -> MainWindow:
        settings = SettingsKeeper()
        settings.hold_for_now(model_address=self._address, language="de")
        window = MainWindow(Store(default_store_path()), settings)
        window.show()
        return window

    # --- running

    def go(self) -> int:
        """Every step in order; 1 when one of them failed."""
        self._pictures.mkdir(exist_ok=True)
        for old in self._pictures.glob("*.png"):
            old.unlink()
        steps = [self.open, self.find_the_way, self.check_outline, self.find_words, self.ask,
                 self.visit_places, self.decline, self.explain, self.translate, self.keep,
                 self.open_again]  # fmt: skip
        failed = 0
        for step in steps:
            name = step.__name__.replace("_", " ")
            try:
                print(f"{name}: {step()}")
            except StepFailed as error:
                print(f"{name}: FAILED, {error}")
                failed += 1
            self.picture(step.__name__)
        self._window.close()
        print(f"Pictures are in {self._pictures}")
        return 1 if failed else 0

    def picture(self, name: str) -> Path:
        """Take a picture of the window."""
        self.settle(0.4)
        self._n_pictures += 1
        path = self._pictures / f"{self._n_pictures:02}-{name.replace('_', '-')}.png"
        self.save(path)
        return path

    def save(self, path: Path) -> None:
        """Save what the window shows."""
        self._window.grab().save(str(path))

    def settle(self, seconds: float) -> None:
        """Let the window work for a while."""
        until = time.monotonic() + seconds
        while time.monotonic() < until:
            self._application.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 20)

    def wait(self, what: str, holds: Callable[[], object], seconds: float = 30.0) -> None:
        """Let the window work until something holds."""
        until = time.monotonic() + seconds
        while not holds():
            if time.monotonic() > until:
                raise StepFailed(f"waited in vain for {what}")
            self._application.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 20)

    def check(self, holds: object, otherwise: str) -> None:
        """Fail the step where something does not hold."""
        if not holds:
            raise StepFailed(otherwise)

    # --- helpers

    def select_words(self, wanted: str) -> None:
        """Find words and select them on their page, as the hand would."""
        view = self._window.read_view
        session = self._window.reader.session
        assert session is not None
        hits = session.find(wanted).result()
        self.check(hits, f"“{wanted}” is not in the handbook")
        view.pages.reveal(hits[0].spans)
        self.wait("the page", lambda: view.pages.images.layer(hits[0].page))
        view.pages.reveal(hits[0].spans)
        view.pages.select_spans(hits[0].spans)
        self.settle(0.2)

    def type_question(self, question: str) -> Entry:
        """Type into the ask line and press Return; the entry that came."""
        view, reader = self._window.read_view, self._window.reader
        before = set(reader.entries)
        view.ask_line.field.clear()
        QTest.keyClicks(view.ask_line.field, question)
        QTest.keyClick(view.ask_line.field, Qt.Key.Key_Return)
        self.wait("an answer", lambda: set(reader.entries) - before)
        return reader.entries[(set(reader.entries) - before).pop()]

    # --- steps

    def open(self) -> str:
        """Open and read the handbook."""
        window = self._window
        window.open(self._handbook)
        self.wait("the first page", lambda: window.read_view.pages.images.image(0))
        self.wait("the document to be read", lambda: window.reader.is_ready)
        summary = window.reader.summary
        assert summary is not None
        n = len(summary.outline.sections)
        self.check(n > 10, "no sections were found")
        return f"{summary.n_pages} pages read, {n} sections"

    def find_the_way(self) -> str:
        """Go to a printed page, then to a section by its number."""
        view = self._window.read_view
        view.place_line.page.setText("9")
        QTest.keyClick(view.place_line.page, Qt.Key.Key_Return)
        self.settle(0.3)
        summary = self._window.reader.summary
        assert summary is not None
        label = summary.labels.of(view.here()[0])
        self.check(label == "9", f"page field led to page {label}")
        view.ask_line.field.setText("Closing error")
        said = view.ask_line.verdict.text()
        view.ask_line.field.setText("8")
        number = view.ask_line.verdict.text()
        view.ask_line.field.clear()
        view.go_back()
        self.settle(0.2)
        return f"page field led to p. 9; the ask line says “{said}” and “{number}”; back again"

    def check_outline(self) -> str:
        """Go to the one disagreement between the witnesses of the outline, and back."""
        window = self._window
        window.show_view("Outline")
        self.settle(0.3)
        window.outline_view.next_disagreement()
        self.settle(0.6)
        section = window.outline_view.outline.sections[window.outline_view.tree.current()]
        self.check("Closing error" in section.title, f"it leads to {section.title}")
        said = section.disagreements[0].reason
        self.picture("outline")
        window.show_view("Read")
        return f"{section.title}: {said}"

    def find_words(self) -> str:
        """Find a word and step through its places."""
        view = self._window.read_view
        view.place_line.find_field.setText("suspense")
        self.wait("hits", lambda: "of" in view.place_line.count.text())
        first = view.place_line.count.text()
        QTest.keyClick(view.place_line.find_field, Qt.Key.Key_Return)
        self.settle(0.3)
        found = view.place_line.count.text()
        number, total = int(first.split(" of ")[0]), int(first.split(" of ")[1])
        self.check(found == f"{number % total + 1} of {total}", f"{first}, then {found}")
        self.picture("found")
        QTest.keyClick(view.place_line.find_field, Qt.Key.Key_Escape)
        return f"“suspense”: {found}"

    def ask(self) -> str:
        """Ask a question that the handbook answers."""
        entry = self.type_question("How large may the closing error of a line of levels be?")
        quotes = entry.body.quotes
        self.check(quotes, "it was declined")
        text = " ".join(quote.text for quote in quotes)
        self.check("4 mm" in text, f"the answer is “{text}”")
        self.wait("the held answer", lambda: self._window.read_view.margin.held)
        places = ", ".join(place.shown for quote in quotes for place in quote.locators)
        return f"answered with “4 mm” from {places}"

    def visit_places(self) -> str:
        """Step through the places of the held answer."""
        view = self._window.read_view
        view.pages.setFocus()
        page = view.held.places[0].page
        view.held.follow(view.margin.held.entry.id, 0)
        self.wait("the words to be marked", lambda: view.pages.boxes_in_view(
            view.pages.laid("evidence")[0].spans))  # fmt: skip
        self.check(page in view.pages.visible_pages(), "the place is not in view")
        self.settle(0.2)
        self.check(view.leaders.shown, "no leader is drawn")
        return f"file page {page + 1} shows the marked words, joined by a leader"

    def decline(self) -> str:
        """Ask something that the handbook does not say."""
        entry = self.type_question("What salary does the mayor of Copenhagen receive?")
        self.check(not entry.body.quotes, "it was answered")
        return "“The document does not say”, with the nearest passages"

    def explain(self) -> str:
        """Explain a term by the handbook's own words."""
        reader, view = self._window.reader, self._window.read_view
        view.held.let_go()
        self.select_words("held in suspense under section 8.4")
        QTest.keyClick(view.pages, Qt.Key.Key_E)
        self.wait(
            "an explanation",
            lambda: [e for e in reader.entries.values() if e.kind == "explanation"],
        )
        entry = next(e for e in reader.entries.values() if e.kind == "explanation")
        terms = [meaning.term for meaning in entry.body.meanings]
        places = [r.title for r in entry.body.references if r.locator]
        self.check(terms and places, f"terms {terms}, places {places}")
        return f"terms {terms}, references to {places}"

    def translate(self) -> str:
        """Translate a sentence through the stand-in."""
        reader, view = self._window.reader, self._window.read_view
        self.select_words("Failed lines are entered in red on Form 6 and are never erased.")
        QTest.keyClick(view.pages, Qt.Key.Key_T)

        def finished() -> list[Entry]:
            return [e for e in reader.entries.values()
                    if e.kind == "translation" and not e.body.state.is_under_way]  # fmt: skip

        self.wait("a translation", finished)
        body = finished()[0].body
        self.check(body.state == "done", body.problem)
        self.check("stand-in" in body.model, "the entry does not say that it is simulated")
        return f"“{body.pairs[0].target}” (simulated)"

    def keep(self) -> str:
        """Write a note beside a passage."""
        reader, view = self._window.reader, self._window.read_view
        self.select_words("countersigns the second run within fourteen days")
        QTest.keyClick(view.pages, Qt.Key.Key_N)
        self.wait("a note", lambda: [e for e in reader.entries.values() if e.kind == "note"])
        self.settle(0.2)
        note = next(e for e in reader.entries.values() if e.kind == "note")
        card = view.margin.card(note.id)
        self.check(card is not None, "the note is not in the margin")
        QTest.keyClicks(card.field, "check against the list of forms")
        self.wait("the note to be saved", lambda: reader.entries[note.id].body.text)
        return "a note stands beside its passage"

    def open_again(self) -> str:
        """Close the window and open the document again: the entries are there."""
        before = set(self._window.reader.entries)
        self._window.close()
        self._window = self._open_window()
        self._window.open(self._handbook)
        self.wait("the document", lambda: self._window.reader.is_ready)
        after = set(self._window.reader.entries)
        self.check(before and before == after, f"{len(before)} entries before, {len(after)} after")
        self.settle(0.5)
        return f"{len(after)} entries are back"
