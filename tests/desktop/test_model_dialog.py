"""The settings of the writing model, and agreeing to send something off this machine."""

import keyring
import pytest
import shiboken6
from keyring.backends.fail import Keyring as NoKeyring

from wide_margin.core.services import load_settings
from wide_margin.core.services.settings import settings_path
from wide_margin.core.services.stand_in import StandIn
from wide_margin.desktop.model_dialog import ModelDialog
from wide_margin.desktop.read_view import commands


@pytest.fixture
def dialog(empty_hand):
    empty_hand.window.show_model_settings()
    (found,) = empty_hand.window.findChildren(ModelDialog)
    empty_hand.dialog = found
    yield found
    if shiboken6.isValid(found):
        found.close()


def test_a_model_that_answers_is_said_to_work(dialog, empty_hand, stand_in):
    dialog.address.setText(stand_in.address)
    dialog.try_button.click()
    empty_hand.wait(lambda: "It works" in dialog.verdict.text())
    assert "simulated" in dialog.verdict.text()
    assert dialog.name.count() == 1


@pytest.mark.parametrize(
    ("address", "told"),
    [("", "Give an address first"), ("http://127.0.0.1:9/v1", "There is no writing model at")],
)
def test_an_address_without_a_model_is_told(dialog, empty_hand, address, told):
    dialog.address.setText(address)
    dialog.try_button.click()
    empty_hand.wait(lambda: told in dialog.verdict.text())
    assert dialog.try_button.isEnabled()


def test_a_refusal_is_told(dialog, empty_hand):
    with StandIn(misbehave="refuses") as server:
        dialog.address.setText(server.address)
        dialog.try_button.click()
        empty_hand.wait(lambda: "asked too often" in dialog.verdict.text())


def test_the_settings_are_kept_without_the_key(dialog, empty_hand, stand_in, monkeypatch):
    kept = []
    monkeypatch.setattr(
        "wide_margin.desktop.model_dialog.keep_model_key", lambda *pair: kept.append(pair)
    )
    dialog.address.setText(stand_in.address)
    dialog.key.setText("secret")
    dialog.save()
    empty_hand.wait(lambda: empty_hand.reader.composer.has_model)
    assert kept == [(stand_in.address, "secret")]
    assert load_settings().model_address == stand_in.address
    assert "secret" not in settings_path().read_text(encoding="utf-8")


def test_without_a_secret_store_the_variable_is_named(dialog, empty_hand):
    before = keyring.get_keyring()
    keyring.set_keyring(NoKeyring())
    try:
        dialog.address.setText("http://127.0.0.1:9/v1")
        dialog.key.setText("secret")
        dialog.save()
        empty_hand.wait(lambda: "WIDE_MARGIN_MODEL_KEY" in dialog.verdict.text())
        assert dialog.isVisible()
    finally:
        keyring.set_keyring(before)


@pytest.mark.parametrize("agrees", [True, False])
def test_sending_off_this_machine_is_asked_about_once(hand, monkeypatch, agrees):
    asked, composed = [], []
    monkeypatch.setattr(
        commands, "agrees", lambda parent, title, text: asked.append(text) or agrees
    )
    monkeypatch.setattr(hand.reader.composer, "compose", lambda entry, **_: composed.append(entry))
    address = "https://model.example/v1"
    hand.reader.settings_keeper.hold_for_now(model_address=address)
    entry = hand.ask("How often is the wire of the float changed?")
    hand.view.commands.compose(entry.id)
    hand.view.commands.compose(entry.id)
    assert len(asked) == (1 if agrees else 2)
    assert "excerpts, about" in asked[0]
    assert address in asked[0]
    assert composed == ([entry.id, entry.id] if agrees else [])
