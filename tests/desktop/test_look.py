import numpy as np
import pytest
from PySide6.QtGui import QColor, QImage
from PySide6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QCheckBox,
    QComboBox,
    QDialog,
    QLineEdit,
    QPlainTextEdit,
    QPushButton,
    QTreeWidget,
)

from wide_margin.core.pages import Picture
from wide_margin.desktop.ink_names import InkNames
from wide_margin.desktop.look import DAY, NIGHT, TEXT_PAIRS, contrast, style_sheet
from wide_margin.desktop.model_dialog import ModelDialog
from wide_margin.desktop.read_view.page_images import image_from


@pytest.mark.parametrize("colours", [DAY, NIGHT], ids=["day", "night"])
@pytest.mark.parametrize("pair", TEXT_PAIRS, ids="-on-".join)
def test_text_has_enough_contrast(colours, pair):
    text, ground = (getattr(colours, name) for name in pair)
    assert contrast(text, ground) >= 4.5


def test_contrast_of_black_on_white_is_21():
    assert contrast("#000000", "#FFFFFF") == pytest.approx(21)
    assert contrast("#FFFFFF", "#000000") == pytest.approx(21)


@pytest.mark.parametrize("colours", [DAY, NIGHT], ids=["day", "night"])
def test_the_style_sheet_names_no_colour_that_is_not_ours(colours):
    assert "@" not in style_sheet(colours)


LINES = 3.0
"""Contrast from which a line that tells a control from its ground is seen."""


@pytest.mark.parametrize("colours", [DAY, NIGHT], ids=["day", "night"])
@pytest.mark.parametrize("kind", [QCheckBox, QComboBox, QPushButton])
def test_controls_of_a_dialog_are_seen_by_day_and_night(qtbot, colours, kind):
    dialog = QDialog()
    qtbot.addWidget(dialog)
    dialog.setStyleSheet(f"QDialog {{ background: {colours.panel}; }} {style_sheet(colours)}")
    control = kind(dialog)
    control.resize(90, 30)
    dialog.resize(100, 40)
    image = dialog.grab().toImage()
    seen = {image.pixelColor(x, y).name() for x in range(90) for y in range(30)}
    assert max(contrast(colour, colours.panel) for colour in seen) >= LINES


def test_night_turns_lightness_and_keeps_hue():
    # White, black, pure red, in BGRX.
    pixels = bytes([255, 255, 255, 255, 0, 0, 0, 255, 0, 0, 255, 255])
    image = image_from(Picture(3, 1, 12, pixels), night=True)
    white, black, red = (image.pixelColor(k, 0) for k in range(3))
    assert white.lightness() < 30
    assert black.lightness() > 220
    assert red.hue() == 0
    assert red.saturation() > 100


@pytest.mark.parametrize("ink", ["#0000ff", "#000080", "#800000", "#006400", "#5a005a", "#b00000"])
def test_what_is_printed_in_colour_can_be_read_at_night(ink):
    colour = QColor(ink)
    pixels = bytes([255] * 4 + [colour.blue(), colour.green(), colour.red(), 255])
    image = image_from(Picture(2, 1, 8, pixels), night=True)
    paper, printed = (image.pixelColor(k, 0) for k in range(2))
    assert contrast(printed.name(), paper.name()) >= 4.5
    assert abs(printed.hue() - colour.hue()) < 5


def test_what_is_marked_in_a_light_colour_does_not_blind_at_night():
    image = image_from(Picture(1, 1, 4, bytes([0, 255, 255, 255])), night=True)
    assert image.pixelColor(0, 0).value() < 110


def test_day_shows_a_picture_as_it_is():
    image = image_from(Picture(2, 1, 8, bytes([1, 2, 3, 255, 9, 8, 7, 255])))
    assert [image.pixelColor(k, 0).getRgb()[:3] for k in range(2)] == [(3, 2, 1), (7, 8, 9)]


def pixels_of(window):
    image = window.grab().toImage().convertToFormat(QImage.Format.Format_RGB32)
    data = np.frombuffer(image.constBits(), np.uint8)
    return data.reshape(image.height(), image.bytesPerLine() // 4, 4)[:, : image.width(), :3]


def test_night_colours_reach_pages_and_panels(hand):
    day = pixels_of(hand.window).mean()
    hand.window.menus.night.trigger()
    hand.wait(lambda: hand.view.pages.images.image(0) and hand.view.pages.images.image(0).is_night)
    assert pixels_of(hand.window).mean() < 70 < 180 < day
    hand.window.menus.night.trigger()


def test_every_control_has_a_name(hand):
    kinds = (QAbstractButton, QLineEdit, QComboBox, QTreeWidget, QPlainTextEdit)
    for kind in kinds:
        for widget in hand.window.findChildren(kind):
            if widget.objectName().startswith("qt_"):
                continue
            text = widget.text() if isinstance(widget, QAbstractButton) else ""
            assert widget.accessibleName() or text or not widget.isVisible(), widget


def test_no_shortcut_means_two_things(hand):
    from PySide6.QtGui import QAction

    seen = {}
    for action in hand.window.findChildren(QAction):
        for key in action.shortcuts():
            assert key.toString() not in seen, f"{key.toString()}: {action.text()}"
            seen[key.toString()] = action.text()
    assert len(seen) > 15


def test_windows_of_a_window_turn_to_night_with_it(empty_hand):
    window = empty_hand.window
    tags = window.view("Commonplace").tag_field.completer().popup()
    dialog = QDialog(window)
    button = QPushButton("Keep", dialog)
    assert QApplication.instance().styleSheet() == ""  # each layout would look through it all
    for colours, night in ((DAY, False), (NIGHT, True)):
        window.menus.night.setChecked(night)
        window.toggle_night()
        assert window.styleSheet() == tags.styleSheet() == style_sheet(colours)
        dialog.ensurePolished()
        image = button.grab().toImage()
        seen = {image.pixelColor(x, y).name() for x in range(4, 30) for y in range(4, 12)}
        assert colours.panel.lower() in seen


def test_buttons_of_a_dialog_have_no_pictures(empty_hand):
    window = empty_hand.window
    dialogs = (
        InkNames(DAY, window),
        ModelDialog(window.reader.settings, window.reader.background, window),
    )
    for dialog in dialogs:
        assert all(b.icon().isNull() for b in dialog.findChildren(QPushButton))
