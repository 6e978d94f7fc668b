"""Take the README's pictures from the demo handbook: python demo/pictures.py FOLDER."""

from __future__ import annotations

import os
import sys
import tempfile
from importlib import resources
from pathlib import Path
from typing import TYPE_CHECKING

from wide_margin.core.margin import Origin, State
from wide_margin.core.services.stand_in import StandIn

if TYPE_CHECKING:
    from tour import Tour


SENTENCE = (
    "If three successive lines fail, the primary mark is presumed to have moved and the zero of"
    " the gauge is held in suspense under section 8.4 until a transfer from a neighbouring"
    " station has been made."
)
MARKED = {
    "Failed lines are entered in red on Form 6 and are never erased.": "1",
    "A mark is lost when it cannot be found": "2",
    "is held in suspense under section 8.4": "3",
    "That permission is withdrawn": "4",
    "two that agree are worth more than one that is small": "5",
}
"""What is marked, and the key of its ink."""


def keep_more(tour: Tour) -> None:
    """Passages marked in five inks, some of them with tags."""
    window = tour._window
    window.show_view("Read")
    for words, key in MARKED.items():
        tour.select_words(words)
        window.read_view.commands.act(key)
        tour.settle(0.25)
    entries = list(window.reader.entries.values())
    tagged = [e.with_tags(["for the inspection"]) for e in entries[:3]]
    window.reader.keeper.change_all(tagged, "Tag")


def show_map(tour: Tour, target: Path) -> None:
    """The Map with its terms, a section pointed at."""
    window = tour._window
    window.show_view("Map")
    view = window.map_view
    tour.wait("terms", lambda: view.model.terms and all(t.places for t in view.model.terms))
    titles = [section.title for section in view.model.outline.sections]
    view.canvas.point_at(titles.index("9.3 Closing error"))
    tour.wait("what belongs with it", lambda: view.side._rows)
    tour.settle(1.0)
    tour.save(target / "map.png")


def save_quietly(tour: Tour, path: Path) -> None:
    """Save the Read view without what it says in passing: its time and the stand-in's port vary."""
    tour._window.read_view.show_status("")
    tour.settle(0.3)
    tour.save(path)


def cut_a_table(tour: Tour, target: Path) -> None:
    """A table cut out, its rows kept, and explained."""
    window = tour._window
    window.show_view("Read")
    view = window.read_view
    view.held.let_go()
    table = next(f for f in window.reader.summary.figures if "Table 2" in f.caption)
    view.go_to_figure(table)
    tour.settle(1.0)
    view.commands.cut(table.page, table.box)
    tour.settle(2.0)
    cut = next(e for e in window.reader.entries.values() if e.kind == "cutting")
    view.commands.explain_cutting(cut.id)
    tour.settle(1.5)
    save_quietly(tour, target / "read-table.png")


def face_a_translation(tour: Tour, target: Path) -> None:
    """A page translated facing it, a pair with a doubt chosen."""
    window = tour._window
    view = window.read_view
    tour.select_words("If three successive lines fail")
    view.pages.clear_selection()
    view.commands.facing.translate_page()
    tour.wait("a translation", lambda: view.facing.isVisible())
    tour.settle(3.0)
    view.facing.next_doubt()
    tour.settle(0.6)
    save_quietly(tour, target / "read-facing.png")
    view.facing.close_it()


def edit_a_talk(tour: Tour, target: Path) -> None:
    """A talk of the handbook, its first sheet pointed at."""
    window = tour._window
    window.make_talk()
    talk = window.talk_window
    tour.wait("a talk", lambda: talk.talk is not None)
    tour.settle(0.5)
    talk.grab().save(str(target / "talk.png"))
    talk.close()


def main() -> None:
    """Every view, by day and one by night, and the start page."""
    target = Path(sys.argv[1])
    target.mkdir(parents=True, exist_ok=True)
    with (
        resources.as_file(resources.files("wide_margin.data") / "handbook.pdf") as handbook,
        tempfile.TemporaryDirectory() as home,
        StandIn() as model,
    ):
        for name in ("XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME", "XDG_STATE_HOME"):
            os.environ[name] = str(Path(home) / name)
        from tour import Tour

        tour = Tour(handbook, model.address, target)
        tour.open()
        tour.wait("questions worth asking", lambda: tour._window.read_view.margin.worth.lines)
        tour.settle(0.5)
        save_quietly(tour, target / "read-first.png")
        tour.translate()
        tour.explain()
        tour.keep()
        tour.ask()
        tour.settle(1.0)
        save_quietly(tour, target / "read-answer.png")
        window = tour._window
        view = window.read_view
        view.margin.held.excerpts_button.click()
        tour.settle(2.0)
        save_quietly(tour, target / "read-excerpts.png")
        asked = view.margin.held.entry.id
        view.commands.compose(asked)

        def is_composed() -> bool:
            body = window.reader.entries[asked].body
            return (body.origin, body.state) == (Origin.COMPOSED, State.DONE)

        tour.wait("the composed answer", is_composed)
        tour.settle(1.0)
        save_quietly(tour, target / "read-composed.png")
        tour.select_words(SENTENCE)
        view.commands.act("E")
        tour.settle(2.0)
        save_quietly(tour, target / "read-explained.png")
        view.held.let_go()
        tour.select_words("an error of the instrument falls out")
        tour.select_words("is held in suspense under section 8.4")
        tour.settle(0.6)
        save_quietly(tour, target / "read-entries.png")
        window.read_view.pages.clear_selection()
        tour.decline()
        window.menus.night.trigger()
        tour.settle(1.5)
        save_quietly(tour, target / "read-night.png")
        window.menus.night.trigger()
        window.show_view("Digest")
        tour.wait("the digest", lambda: window.digest_view.digest is not None)
        digest = window.digest_view
        digest.go_to_part("Gist")
        tour.settle(1.0)
        tour.save(target / "digest.png")
        digest.go_to_part("By kind")
        tour.settle(0.6)
        tour.save(target / "digest-by-kind.png")
        digest.toggle_section(2)
        digest.toggle_section(3)
        digest.go_to_part("Sections")
        tour.settle(0.6)
        tour.save(target / "digest-sections.png")
        digest.go_to_part("Terms")
        tour.settle(0.6)
        tour.save(target / "digest-terms.png")
        digest.go_to_part("Test yourself")
        digest.testing.show_answer()
        tour.settle(0.6)
        tour.save(target / "digest-test.png")
        keep_more(tour)
        window.show_view("Commonplace")
        listed = window.commonplace_view.list
        listed.setCurrentIndex(listed.rows.index(4))
        tour.settle(1.5)
        tour.save(target / "commonplace.png")
        show_map(tour, target)
        cut_a_table(tour, target)
        face_a_translation(tour, target)
        edit_a_talk(tour, target)
        window.show_view("Outline")
        tour.settle(0.5)
        window.outline_view.next_disagreement()
        tour.settle(1.0)
        tour.save(target / "outline.png")
        window.show_view("Read")
        window.read_view.pages.go_to(0)
        tour.settle(1.0)
        window.back_to_start()
        tour.settle(0.5)
        tour.save(target / "start.png")
        window.close()


if __name__ == "__main__":
    main()
