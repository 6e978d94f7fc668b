"""Ligatures and accents that old fonts leave as codes and as signs of their own."""

import numpy as np
import pikepdf
import pytest
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.layout import lines_of
from wide_margin.core.layout.text import fold, folded_with_places, tidy
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.repair import (
    with_accents,
    with_cork_signs,
    with_greek_letters,
    with_hyphens,
    with_ligatures,
    with_meant_ligatures,
    with_one_alphabet,
    with_own_signs,
    with_signs,
    with_turned_letters,
)
from wide_margin.core.pages.text import read_text


@pytest.mark.parametrize(
    ("extracted", "read"),
    [
        ("the \x1crst set of con\x1cgurable \x1celds", "the first set of configurable fields"),
        ("a \x0crst set", "a first set"),
        ("an e\x1bect of an o\x1ber", "an effect of an offer"),
        ("the \x1deet and the \x1door", "the fleet and the floor"),
        ("e\x0ecient and su\x0ecient", "efficient and sufficient"),
        ("a \rag\r\nof re\rected light", "a flag\r\nof reflected light"),
        # A font that numbers its ligatures in another way tells by its words.
        ("I \x1bnally have a \x1ble of \x1bngerings", "I finally have a file of fingerings"),
        ("the se\x1dings of le\x1ders", "the settings of letters"),
        # One short name that is a word by chance ("atty") tells nothing.
        ("Notes on a\x0by, and A\x0byBatch", "Notes on affy, and AffyBatch"),
        ("Referen\re Manual, Tue O\rt 17", "Reference Manual, Tue Oct 17"),
        ("Copyright \rc 2010 the keepers", "Copyright ©  2010 the keepers"),
    ],
)
def test_codes_within_words_are_read_as_ligatures(extracted, read):
    assert tidy(with_ligatures(extracted)) == tidy(read)


def test_what_is_no_ligature_stays():
    for text in ("plain text", "two\r\nlines\r\nof it", "a\tb", "naïve café"):
        assert with_ligatures(text) == text


def test_a_code_apart_from_words_means_nothing():
    assert with_ligatures("\x1c 12 \x1e") == "\ufffd 12 \ufffd"
    assert len(with_ligatures("o\x1cce \x1c")) == len("o\x1cce \x1c")


@pytest.mark.parametrize(
    ("extracted", "read"),
    [
        ("the wriƟng of soŌware in seƫngs", "the writing of software in settings"),
        ("AŌer that, aƩend to the plaƞorm", "After that, attend to the platform"),
        ("die FunkƟon der MiƩe", "die Funktion der Mitte"),
        ("Ɵme and Ɵde", "time and tide"),
    ],
)
def test_rare_letters_that_stand_for_ligatures_are_read_as_these(extracted, read):
    assert tidy(with_meant_ligatures(extracted)) == read
    assert len(with_meant_ligatures(extracted)) == len(extracted)


@pytest.mark.parametrize(
    ("extracted", "read"),
    [
        ("the \ue005\ue006rst modi\ue005\ue006cation", "the first modification"),
        ("a \uf0delter with a \uf0dfag", "a filter with a flag"),
        ("on the lef\ue000, af\ue000er that", "on the left, after that"),
    ],
)  # fmt: skip
def test_signs_of_a_font_s_own_are_read_as_what_makes_words(extracted, read):
    assert tidy(with_own_signs(extracted)) == read
    assert len(with_own_signs(extracted)) == len(extracted)


@pytest.mark.parametrize(
    "text", ["\uf0b7 first", "xq\uf0b7zk", "lef\ue000", "\uf8edt = 3", "a\uf06dm b\uf06d c\uf06de"]
)
def test_other_signs_of_a_font_s_own_are_left(text):
    assert with_own_signs(text) == text


@pytest.mark.parametrize(
    "text", ["Azərbaycan dili, Əliyev", "Ƙano da ƙasa, ɓera", "Ōsaka, Kyōto and KYŌTO", "Ɵ is 4"]
)
def test_rare_letters_of_a_language_are_left(text):
    assert with_meant_ligatures(text) == text


@pytest.mark.parametrize(
    ("extracted", "read"),
    [("\x88 first\r\n\x88 second", "• first\r\n• second"), ("Villemot\x84 and", "Villemot† and"),
     ("a\x88b \x84 c", "a\x88b \x84 c")],
)  # fmt: skip
def test_bullets_and_marks_of_companion_fonts(extracted, read):
    assert with_signs(extracted) == read


@pytest.mark.parametrize(
    ("extracted", "read"),
    [("Sept. \uf734, \uf732\uf730\uf730\uf738", "Sept. 4, 2008"),
     ("Copyright \uf8e9 2005, Rope\uf8ea and Lid\uf8e8", "Copyright © 2005, Rope™ and Lid®"),
     ("W\uf765\uf76c\uf76c\uf773", "Wells"),
     ("caf\uf7e9 \uf0b7", "café \uf0b7")],
)  # fmt: skip
def test_figures_and_capitals_of_other_shapes_are_plain_ones(extracted, read):
    assert with_signs(extracted) == read


def read(chars, drawn, width=6.0):
    """The text with accents joined; ``drawn`` are x positions where they differ from the order."""
    boxes = np.zeros((len(chars), 4), np.float32)
    for k, _ in enumerate(chars):
        x = drawn.get(k, k * width)
        boxes[k] = (x, 10, x + width, 20)
    inked = np.array([not c.isspace() for c in chars])
    boxes[~inked] = np.nan
    first, last = inked.copy(), inked.copy()
    first[1:] &= ~inked[:-1]
    last[:-1] &= ~inked[1:]
    every = boxes.copy()
    return with_accents(chars, boxes, first, last, lambda wanted: every[wanted]), boxes


def test_an_accent_after_the_line_belongs_to_the_letter_under_it():
    chars, boxes = read("Verfugung, um z.B. ¨", {19: 4 * 6.0})
    assert chars == "Verfügung, um z.B.  "
    assert np.isnan(boxes[19]).all()


def test_an_accent_before_its_letter_is_joined_and_nothing_comes_between():
    chars, _ = read("Th´eorie", {3: 2 * 6.0, 2: 2 * 6.0})
    assert tidy(chars) == "Théorie"


def test_a_word_that_begins_with_an_accented_letter_keeps_the_box_of_its_beginning():
    chars, boxes = read("x ´ete", {2: 18.0})
    assert tidy(chars) == "x éte"
    assert boxes[2].tolist() == [18, 10, 24, 20]


def test_a_word_that_an_accent_has_parted_is_whole_again():
    chars, _ = read("f ¨ ur alle", {2: 6.0, 4: 6.0, 5: 12.0})
    assert tidy(chars) == "für alle"


def test_two_words_stay_two():
    chars, _ = read("je ¨ ur", {3: 30.0, 5: 30.0, 6: 36.0})
    assert tidy(chars) == "je ür"


def test_a_sign_that_lies_over_no_letter_is_that_sign():
    for text in ("5 ´ 7", "a ˜ b", "`quoted' text", "x ¨ y"):
        chars, boxes = read(text, {})
        assert chars == text
        assert np.isfinite(boxes).any()


def test_an_accent_that_a_letter_cannot_have_stays():
    chars, _ = read("q¨", {1: 0.0})
    assert chars == "q¨"


def test_capitals_have_theirs_too():
    chars, _ = read("EXPERIENCES ´", {12: 3 * 6.0})
    assert tidy(chars) == "EXPÉRIENCES"


@pytest.fixture
def accented_pdf(tmp_path):
    """Accents drawn over their letters once the line is there."""
    path = tmp_path / "accents.pdf"
    canvas = Canvas(str(path))
    canvas.setFont("Helvetica", 12)
    line = "Les theories de la journee"
    canvas.drawString(72, 700, line)
    for k in (6, 24):
        x = 72 + canvas.stringWidth(line[:k], "Helvetica", 12)
        e, accent = (canvas.stringWidth(c, "Helvetica", 12) for c in ("e", "´"))
        canvas.drawString(x + (e - accent) / 2, 700, "´")
    canvas.drawString(72, 660, "The keeper signs.")
    canvas.save()
    return path


@pytest.mark.parametrize("only_edges", [True, False])
def test_a_page_with_loose_accents_reads_as_it_looks(accented_pdf, only_edges):
    pdf = PdfFile(accented_pdf)
    try:
        text = read_text(pdf, 0, only_edges=only_edges)
    finally:
        pdf.close()
    lines = [tidy(line.text) for line in lines_of(text)]
    assert lines == ["Les théories de la journée", "The keeper signs."]
    folded, _ = folded_with_places(text.chars)
    assert fold("théories") in folded


def test_a_letter_at_the_code_of_a_ligature_is_that_letter():
    page = "A spe\rial mat\rh of the ta\rti\rs is \rheap and mu\rh lou\rder\r\nin atomi\r order"
    read = with_ligatures(page)
    assert "special match of the tactics is cheap and much" in read
    assert read.endswith("\r\nin atomic order")


@pytest.mark.parametrize(
    ("extracted", "read"),
    [
        ("Змiст i статтi", "Зміст і статті"),
        ("Роздiл 1 про pbuilder", "Розділ 1 про pbuilder"),
        ("Файл libfoo-файл", "Файл libfoo-файл"),
        ("mixed i words", "mixed i words"),
        ("версiя XML i т. д.", "версія XML i т. д."),
    ],
)
def test_cyrillic_words_have_letters_of_one_alphabet(extracted, read):
    assert with_one_alphabet(extracted) == read
    assert len(read) == len(extracted)


@pytest.mark.parametrize(
    ("extracted", "read"),
    [
        ("εντο\uf166ές του πη\uf17dαδιού", "εντολές του πηγαδιού"),
        ("τ\uf169ν σ\uf14aοινιών, \uf17dια \uf147\uf166έπ\uf169", "των σχοινιών, για βλέπω"),
        ("an icon \uf147 of another font", "an icon \uf147 of another font"),
        ("plain", "plain"),
    ],
)
def test_greek_words_have_no_letters_for_private_use(extracted, read):
    assert with_greek_letters(extracted) == read


@pytest.mark.parametrize(
    ("extracted", "width", "read"),
    [
        ("option \u00adf a of best\u00adscoring trees", 3.0, "option -f a of best-scoring trees"),
        ("best\u00adscoring", 0.0, "best\u00adscoring"),  # takes no room: where it may be parted
        (
            "scor\u00ad\r\ning of trees\u00ad",
            3.0,
            "scor\u00ad\r\ning of trees\u00ad",
        ),  # at a line's end
    ],
)
def test_soft_hyphens_that_are_printed_within_a_line_are_hyphens(extracted, width, read):
    def boxes_of(wanted):
        return np.tile(np.array([10.0, 0.0, 10.0 + width, 8.0]), (len(wanted), 1))

    assert with_hyphens(extracted, boxes_of) == read


@pytest.mark.parametrize(
    ("extracted", "read"),
    [
        ("The \x10blob\x11, or \x10rope\x11.", "The “blob”, or “rope”."),
        ("(\x10\x1drst\x11) and \x10/\x11 with \x10_ptr\x11", "(“\x1drst”) and “/” with “_ptr”"),
        ("das \x12Seil\x10, und", "das „Seil“, und"),
        ("the \x10well\x15rope\x11 \x16 a pair", "the “well–rope” — a pair"),
        ("the \x1crst well\x15rope pair \x16 here", "the \x1crst well–rope pair — here"),
        ("\x1cn d\x13un \x13puits\x14 ici", "\x1cn d\x13un «puits» ici"),
        ("typed \x11so\x11 for \x10well\x11", "typed ”so” for “well”"),
        ("1 <\x17< 3", "1 <\u200b< 3"),
    ],
)
def test_codes_of_quotation_marks_and_dashes(extracted, read):
    assert with_cork_signs(extracted) == read


def test_brackets_of_formulas_are_no_quotation_marks():
    for text in ("exp \x10\r\n2π(x − c)\r\n\x11 = 1", "(T0)\r\n\x12\r\nT1\r\n\x13(1.1)",
                 "B\x15arsan", "spectra \x16(E) of it", "plain “text” – so"):  # fmt: skip
        assert with_cork_signs(text) == text


def test_brackets_are_told_by_their_font(tmp_path):
    path = tmp_path / "brackets.pdf"
    canvas = Canvas(str(path))
    canvas.setFont("Helvetica", 12)
    canvas.drawString(72, 700, "a<b>c")
    canvas.save()
    with pikepdf.open(path, allow_overwriting_input=True) as file:
        page = file.pages[0]
        drawn = page.Contents.read_bytes().replace(b"<b>", b"\\022b\\023")
        page.Contents = file.make_stream(drawn)
        font = next(iter(page.Resources.Font.values()))
        for name in ("/ABCDEF+CMEX10", "/ABCDEF+Cmexico"):
            font.BaseFont = pikepdf.Name(name)
            file.save(tmp_path / f"{name[8:]}.pdf")
    read = {}
    for made in ("CMEX10", "Cmexico"):
        pdf = PdfFile(tmp_path / f"{made}.pdf")
        read[made] = read_text(pdf, 0, only_edges=True).chars
        pdf.close()
    assert read == {"CMEX10": "a(b)c", "Cmexico": "a\x12b\x13c"}


@pytest.mark.parametrize(
    ("extracted", "read"),
    [
        ("\u6600\u6900nd the ma\u7400\u7400er a\u6600\u7400er all", "find the matter after all"),
        ("a rope of 五\u6600 and 昀椀", "a rope of 五\u6600 and 昀椀"),
        ("wind\u6600", "wind\u6600"),
        ("plain", "plain"),
    ],
)
def test_ligatures_with_their_bytes_turned_round_are_letters(extracted, read):
    assert with_turned_letters(extracted) == read
