"""Views are made when they are first turned to, and take up what there is by then."""

import pytest

from wide_margin.core.errors import WideMarginError
from wide_margin.core.margin import Ink
from wide_margin.desktop.look import NIGHT
from wide_margin.desktop.views import VIEWS

OTHERS = [kind.name for kind in VIEWS if kind.name != "Read"]


def test_a_view_is_made_once_and_no_sooner_than_it_is_turned_to(hand):
    assert list(hand.window.views) == ["Read"]
    hand.window.show_view("Map")
    made = hand.window.map_view
    assert list(hand.window.views) == ["Read", "Map"]
    hand.window.show_view("Read")
    hand.window.show_view("Map")
    assert hand.window.map_view is made
    assert made.isVisible()


@pytest.mark.parametrize("name", OTHERS)
def test_a_view_made_at_night_wears_its_colours(hand, name):
    hand.reader.change_settings(night=True)
    hand.window.show_view(name)
    assert hand.window.views[name].colours is NIGHT


def test_views_made_after_a_document_was_read_show_it(hand):
    n = len(hand.reader.summary.outline.sections)
    hand.window.show_view("Outline")
    assert len(hand.window.outline_view.tree.outline.sections) == n
    hand.window.show_view("Map")
    assert "page" in hand.window.map_view.told.text()
    hand.window.show_view("Digest")
    hand.wait(lambda: hand.window.digest_view.digest)


def test_views_made_after_a_document_could_not_be_read_say_why(hand):
    hand.reader.summary = None
    hand.reader._not_read(WideMarginError("The pages are damaged."))
    for name in ("Digest", "Outline", "Map"):
        hand.window.show_view(name)
    assert hand.window.digest_view.empty.text() == "The pages are damaged."
    assert hand.window.outline_view.empty.text() == "The pages are damaged."
    assert not hand.window.outline_view.save_button.isEnabled()
    assert hand.window.map_view.told.text() == "The pages are damaged."


def test_a_map_that_is_shown_tells_that_the_document_could_not_be_read(hand):
    hand.reader.summary = None
    hand.window.show_view("Map")
    hand.window.map_view.show_document()
    assert hand.window.map_view.told.text() == "The document is being read."
    hand.reader._not_read(WideMarginError("The pages are damaged."))
    assert hand.window.map_view.told.text() == "The pages are damaged."


def test_inks_called_otherwise_before_the_entries_are_looked_at(hand):
    hand.reader.change_settings(ink_names=("Agreed", *list(Ink)[1:]))
    hand.window.show_view("Commonplace")
    menu = hand.window.commonplace_view.ink_button.menu()
    assert "Agreed" in [action.text() for action in menu.actions()]
