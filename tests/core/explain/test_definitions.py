"""The forms of words in which documents define their terms."""

import textwrap

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document
from wide_margin.core.explain import Explainer, define
from wide_margin.core.explain.short_forms import find_short_forms, may_spell_out, symbols_in

OTHER = "Nothing else is said on this page about any of it, and the days went by as before."


def meaning_of(tmp_path, text: str, term: str):
    path = tmp_path / "one.pdf"
    make_pdf(
        path, [[("text", OTHER)], [("text", text)], [("text", OTHER.replace("days", "years"))]]
    )
    meanings = Explainer(read_document(path)).explain(term).meanings
    return meanings[0] if meanings else None


@pytest.mark.parametrize(
    ("term", "text"),
    [
        ("boatswain", "Boatswain is -- like the mate -- an officer of the deck who minds the ropes."),
        ("halyard", "A halyard is, as every sailor knows, a rope that a sail is drawn up with."),
        ("ferrule", "A ferrule is a ring of brass at the end of a staff that keeps it whole."),
        ("slack water", "The time at which the stream neither runs in nor out is often called slack water."),
        ("neap range", "The term for the smallest difference between the two is neap range."),
        ("shore site", "“Public shore station” (or “shore site”) means any hut that people may enter freely."),
        ("lean stay", "A leeward prop (“lean stay”) is a beam that holds a wall up from outside."),
        ("Shift K", "The gap between the two clocks of the tower is called DK (“Shift K”) in what follows."),
        ("closing error", "By closing error we mean the difference between both ends of a line."),
        ("freeboard", "Freeboard denotes the height of the deck above the water at its middle."),
        ("datum", "They lowered the datum, which is the level that heights are counted from, by a foot."),
        ("stilling well", "Every gauge has a float in a tube of iron, called the stilling well."),
        ("sounding", "A sounding, the act of measuring the depth of the water, takes a minute."),
        ("mean range", "It was less than the mean range (twice the amplitude of the largest wave)."),
        ("Ferrules", "A ferrule is a ring of brass at the end of a staff that keeps it whole."),
        ("Well Keepers Act", "The Well Keepers Act (WKA) is a law for the keepers of all wells there."),
        ("Quorble", "The clock is a front to Quorble, a small but old timetable program, and rings."),
        ("Master Hale", "It was built by Master Hale, the engineer of the harbour, in two years."),
        ("rope board", "The rope board http://ropes.example/ is a list of all wells with a drum."),
        ("libwinch", "This guide describes a way to libwinch, a library of calls to wind ropes."),
        ("Wellkeep", "Wellbook Keeper (or just Wellkeep) is a program that lists all wells."),
        ("RopeSet", "The RopeSet class is designed to hold all ropes of a well at once."),
        ("Well House", "If you build a roof over a spring of the island, then it is a Well House."),
        ("Calm mode", "The second book also brought “Calm mode” where the wind disturbs nobody at all."),
        ("Dry state", "There is a “Dry state”, in which no bucket is lowered into the well at all."),
        ("harmonic constant", "The phrase “harmonic constant” means an amplitude or a phase of one wave."),
    ],
)  # fmt: skip
def test_a_definition_is_found_in_many_forms(tmp_path, term, text):
    meaning = meaning_of(tmp_path, text, term)
    assert meaning is not None
    assert meaning.kind == "defined"
    assert meaning.locator.page == 1
    assert meaning.text == text


def test_a_definition_that_points_back_brings_the_sentence_it_points_to(tmp_path):
    before = "Now and then the water stands still for some minutes between two streams."
    meaning = meaning_of(tmp_path, f"{before} This is called slack water.", "slack water")
    assert meaning.text == f"{before} This is called slack water."


def test_what_is_meant_by_a_term_is_what_was_said_before(tmp_path):
    before = "For each rope that goes up the tower another one must come down."
    said = f"{before} This is what is meant by “double-rope” ringing: the ropes hold each other."
    assert meaning_of(tmp_path, said, "double-rope ringing").text == said


def test_what_is_not_one_thing_may_be_called_another(tmp_path):
    said = "A copy that is not “clear” is called “clouded” by the keepers of the books."
    assert meaning_of(tmp_path, said, "clouded").text == said
    make_pdf(tmp_path / "a.pdf", [[("text", OTHER), ("text", said)]])
    document = read_document(tmp_path / "a.pdf")
    assert define(document, "clouded copy") is not None
    assert define(document, "clouded sky") is None
    assert define(document, "clouded keeper") is None


def test_an_option_is_not_explained_for_a_word_like_its_name(tmp_path):
    lead = ("text", "The tower takes some options, and each of them is described in what follows.")
    last = ("text", "Some lists are persistent, and a persistent list is read again in the spring.")
    make_pdf(tmp_path / "a.pdf", [[
        lead, ("code", "--persist"), ("said", "Keeps the lists of the tower open over night."),
        ("code", "--loud"), ("said", "Rings the bell of the tower when it is wound."), lead, last,
    ]])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    found = define(document, "persistent")
    assert found is None or found.term != "--persist"
    assert define(document, "--persist").term == "--persist"


@pytest.mark.parametrize(
    "text",
    [
        "The reason is the state of the road, which nobody had mended for years.",
        "It is the best of all the gauges that were ever put up along the coast.",
        "Others are used for the older stations, and nobody minds them any more.",
        "What floats on the water of the tube is not what we call a gauge in these books.",
        "Gauges are always in the way of boats that come in from the sea by night.",
        "Gauges are oiled twice for the winter, and again in the spring by the keeper.",
        "If the gauges of the harbour are of oak and brass, they are often painted.",
        "Karl sang “the gauge” which a boy had sung to him before in the harbour.",
        "If gauges are boards of oak, they are painted by the keeper in the spring.",
        "A file called diary lay on the desk in the room above the harbour office.",
    ],
)
def test_what_only_looks_like_a_definition_is_no_sure_one(tmp_path, text):
    path = tmp_path / "one.pdf"
    make_pdf(path, [[("text", OTHER), ("text", text)]])
    definitions = Explainer(read_document(path)).definitions
    assert all(d.weight < 0.6 for found in definitions.values() for d in found)


SPANISH = (
    "El guarda de la isla anota cada noche la altura del agua en su libro y cierra la puerta. Nadie"
    " puede entrar en la casa sin permiso, y los libros se guardan durante muchos años en el puerto."
)


@pytest.mark.parametrize(
    ("rest", "is_definition"),
    [
        (" es altamente configurable y se adapta a todas las casas de la isla.", False),
        (". Aparato que mide la altura del agua durante todo el año en el puerto.", True),
    ],
)
def test_a_name_set_apart_within_a_sentence_is_no_term_in_other_languages(
    tmp_path, rest, is_definition
):
    canvas = Canvas(str(tmp_path / "es.pdf"), pagesize=A4, invariant=1)
    lines = textwrap.wrap(SPANISH, 70)
    for k, line in enumerate(lines):
        canvas.setFont("Helvetica", 11)
        canvas.drawString(72, 700 - 14 * k, line)
    text = canvas.beginText(72, 700 - 14 * len(lines) - 20)
    text.setFont("Helvetica-Bold", 11)
    text.textOut("Marelia")
    text.setFont("Helvetica", 11)
    text.textOut(rest)
    canvas.drawText(text)
    canvas.save()
    document = read_document(tmp_path / "es.pdf")
    assert document.index.language == "es"
    definition = define(document, "Marelia")
    assert (definition is not None and definition.kind == "glossary") is is_definition


def test_a_list_of_terms_outside_of_a_glossary_defines_them(tmp_path):
    path = tmp_path / "list.pdf"
    make_pdf(path, [[
        ("text", "The parts of a gauge have these names, and no others are used in the books:"),
        ("item", "• Float: a hollow ball of copper that rides on the water inside of the tube."),
        ("item", "• Drum: the roller that the paper lies on while the clock turns it around."),
    ]])  # fmt: skip
    meanings = Explainer(read_document(path)).explain("drum").meanings
    assert meanings[0].kind == "entry"
    assert meanings[0].text.startswith("• Drum: the roller") or "the roller" in meanings[0].text


@pytest.mark.parametrize(
    ("described", "is_definition"),
    [
        (" ".join(f"- F_{k}a: {k} (F_{k}a)" for k in range(9)), False),
        (
            "Whatever stands in it is greased before it is hung up. What is not is left on the floor of "
            "the shed until the steward has looked at it.",
            True,
        ),
    ],
)
def test_names_and_numbers_beside_a_term_do_not_define_it(tmp_path, described, is_definition):
    path = tmp_path / "data.pdf"
    entries = [("entry", f"{name}|{described}") for name in ("float", "drum", "clock")]
    make_pdf(path, [[("h1", "2 Names"), ("text", OTHER), *entries]])
    assert (define(read_document(path), "drum") is not None) == is_definition


def test_a_section_of_a_terms_name_stands_in_where_nothing_is_defined(tmp_path):
    path = tmp_path / "sections.pdf"
    make_pdf(path, [
        [("h1", "1 Floats"), ("text", OTHER)],
        [("h1", "2 Stilling wells"), ("text", "Put up with care, they last for thirty years.")],
        [("h1", "3 Clocks"), ("text", OTHER)],
    ], bookmarks=[("1 Floats", 0, 0), ("2 Stilling wells", 0, 1), ("3 Clocks", 0, 2)])  # fmt: skip
    meaning = Explainer(read_document(path)).explain("stilling well").meanings[0]
    assert (meaning.kind, meaning.locator.page) == ("section", 1)


@pytest.mark.parametrize(
    ("text", "short", "long"),
    [
        ("the Skerrow Tide Standard (STS) of 1931", "STS", "Skerrow Tide Standard"),
        ("Every STS (Skerrow Tide Standard) is old", "STS", "Skerrow Tide Standard"),
        ("MSL stands for mean sea level, as before", "MSL", "mean sea level"),
        ("the mean sea level, or MSL, is given", "MSL", "mean sea level"),
        ("an ordinary least-squares (OLS) fit", "OLS", "ordinary least-squares"),
        ("the Tide Office (T.O.) at Hallan", "T.O.", "Tide Office"),
        ("a series of Tide Count Code (.TCC) files", "TCC", "Tide Count Code"),
        ("It rests on MSL, which stands for mean sea level.", "MSL", "mean sea level"),
        ("MSL is the acronym of mean sea level.", "MSL", "mean sea level"),
    ],
)
def test_abbreviations_are_spelled_out_in_many_forms(text, short, long):
    assert (short, long) in [(s, found) for s, found, _ in find_short_forms(text)]


@pytest.mark.parametrize(
    "text", ["The file (SEE) is gone.", "Note: All values (NaN) are ignored.", "a pager must use the EDITOR or PAGER",
     "It is loaded on behalf of WK.keep or WK.lift at once.",
     "Many functions are defined, using multiple precision (MPFR) numbers.",
     "Parts of LIDS (LIDSView) are under a licence."]
)  # fmt: skip
def test_what_the_initials_do_not_bear_out_is_no_long_form(text):
    assert list(find_short_forms(text)) == []


@pytest.mark.parametrize(
    ("text", "symbol", "meaning"),
    [
        ("Here h is the height above the datum, and so on.", "h", "the height above the datum"),
        ("The mean range is denoted by R in what follows.", "R", "The mean range"),
        ("We write n for the number of stations.", "n", "the number of stations"),
        ("The sign ‡ marks a height that is not settled.", "‡", ""),
    ],
)
def test_symbols_are_explained(text, symbol, meaning):
    found = {s: m for s, m, _ in symbols_in(text)}
    if meaning:
        assert found.get(symbol, "").lower() == meaning.lower()


def test_a_word_that_is_only_used_is_told_to_be_so(tmp_path):
    text = "The paraffin was carried up the stairs in cans by the youngest of the keepers."
    meaning = meaning_of(tmp_path, text, "paraffin")
    assert (meaning.kind, meaning.text) == ("used", text)


@pytest.mark.parametrize(
    ("text", "term"),
    [
        (
            "Backports are packages that were built again for the release before this one.",
            "backport",
        ),
        ("Two lids lay there. Brands are collections of files for the look of a page.", "brand"),
    ],
)
def test_what_several_things_are_defines_each(tmp_path, text, term):
    assert meaning_of(tmp_path, text, term).text in text


@pytest.mark.parametrize(
    ("text", "short", "expected"),
    [("The Bell Ringing Society keeps it.", "BRS", True), ("GNU's not Unix.", "GNU", True),
     ("A system of near-rings and their applications.", "SONATA", True),
        ("It scans incoming mail received from a POP server.", "IMAP", False),
        ("Uncheck it in the IMAP mailbox' contextual menu or the account preferences.", "IMAP", False),
        ("This is the Internet Message Access Protocol.", "IMAP", True),
     ("XOTcl is a replacement for OTcl and more.", "XOTcl", False), ("A list of ropes.", "QBX", False)],
)  # fmt: skip
def test_words_that_may_be_what_a_short_form_stands_for(text, short, expected):
    assert may_spell_out(text, short) is expected


def test_a_work_may_be_cited_between_a_short_form_and_what_it_stands_for():
    said = "It writes the corresponding WKR [2] (Well Keeping Rules) of the valley."
    assert ("WKR", "Well Keeping Rules") in [found[:2] for found in find_short_forms(said)]


def test_a_short_form_does_not_stand_for_itself():
    said = "It is almost the same as the code that showed the use of SAX (Using SAX)."
    assert list(find_short_forms(said)) == []


def test_a_work_may_be_cited_between_a_term_and_what_it_is(tmp_path):
    text = "Quorble [3] is a machine of oak that draws the rope of a well from its drum."
    make_pdf(tmp_path / "a.pdf", [[("text", OTHER)], [("text", text)]])
    found = define(read_document(tmp_path / "a.pdf"), "quorble")
    assert found is not None
    assert found.kind == "defined"


def test_a_name_set_in_its_own_letters_everywhere_is_not_defined_each_time(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"))
    for k, said in enumerate((
        "provides a rope of hemp for the keeper of the well and his friends.",
        "works with every drum of the valley and with the drums of the moor.",
        "is a machine of oak that draws the rope of a well from a drum.",
    )):  # fmt: skip
        canvas.setFont("Times-Bold", 11)
        canvas.drawString(72, 700 - 40 * k, "Quorble")
        canvas.setFont("Times-Roman", 11)
        canvas.drawString(72 + 43, 700 - 40 * k, said)
    canvas.save()
    document = read_document(tmp_path / "a.pdf")
    found = define(document, "Quorble")
    assert document.text.sentences[found.sentence].text.startswith("Quorble is a machine")


@pytest.mark.parametrize(
    ("said", "term", "is_told"),
    [
        ("It also tests for rope wear (RW), the loss of hemp that comes from wet drums.",
         "rope wear", True),
        ("It also tests for rope wear (RW), the drum, and the lid of each of the wells.",
         "rope wear", False),
        ("The guild defines Wooden Drums, which are a set of parts that turn a rope.",
         "Wooden Drums", True),
        ("If not, a “soft lid” consisting of straw and clay is put over the well.",
         "soft lid", True),
    ],
)  # fmt: skip
def test_what_stands_behind_a_short_form_or_is_consisted_of(tmp_path, said, term, is_told):
    meaning = meaning_of(tmp_path, said, term)
    assert (meaning is not None and meaning.kind == "defined") is is_told


def test_what_follows_from_a_condition_defines_nothing(tmp_path):
    said = "If the winch stops for any options or wet ropes, that is a fault of the drum."
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Faults"), ("text", said)]])
    assert define(read_document(tmp_path / "a.pdf"), "wet ropes") is None


def test_terms_before_dashes_in_a_list_are_surer_than_one_alone(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Signs"), ("text", "The board shows these."),
         ("text", "Brig Space -- The space that is left in the brig for those who steal ropes."),
         ("text", "Rope Power -- The number of feet that are needed to reach the water of a well."),
         ("h1", "2 More"), ("text", "The board is old."),
         ("text", "Lid Time -- The time that is left until the lids of all wells are closed.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert define(document, "brig space").kind == "entry"
    assert define(document, "rope power") is not None
    assert define(document, "lid time") is None


def test_a_short_form_may_stand_within_a_name_and_a_clause_in_brackets_tells_nothing(tmp_path):
    said = "A WKR (= Well Keeping Record) file is a list of ropes that share a well."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), ("text", f"Ropes are long. {said} It is plain text."),
         ("text", "The Explorer looks at ropes with QUORBLE (the rest of this book deals with it).")],
        [("h1", "2 Lids"), ("text", "QUORBLE opens a WKR file by night.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    found = define(document, "WKR file")
    assert document.text.sentences[found.sentence].text == said
    assert define(document, "QUORBLE") is None


@pytest.mark.parametrize(
    ("said", "is_told"),
    [("is defined, at many points, to give back a rope that is dry.", False),
     ("is not wound on the drum by hand, whatever the keeper says.", False),
     ("is turned on the drum of a well by night, and the keeper counts it.", False),
     ("is used to wind a rope on the drum of a well, or to dry it.", True),
     ("is a machine that winds a rope on the drum of a well by hand.", True)],
)  # fmt: skip
def test_what_is_done_to_a_name_in_letters_of_its_own_does_not_define_it(tmp_path, said, is_told):
    canvas = Canvas(str(tmp_path / "a.pdf"))
    for k, (name, text) in enumerate((("Quorble", said), ("", "Ropes are long, and drums too."))):
        canvas.setFont("Times-Bold", 11)
        canvas.drawString(72, 700 - 40 * k, name)
        canvas.setFont("Times-Roman", 11)
        canvas.drawString(72 + 43 * bool(name), 700 - 40 * k, text)
    canvas.save()
    assert (define(read_document(tmp_path / "a.pdf"), "Quorble") is not None) is is_told


@pytest.mark.parametrize(
    ("title", "is_told"), [("2 Release Notes", False), ("2 Parts of the Board", True)]
)
def test_what_changed_defines_nothing(tmp_path, title, is_told):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Wells"), ("text", "Wells are deep, and their ropes long.")],
        [("h1", title), ("item", "• Rope Board: Shows a rope even where there is no drum."),
         ("item", "• Lid Board: The lids of the wells are shown by night.")],
    ])  # fmt: skip
    assert (define(read_document(tmp_path / "a.pdf"), "Rope Board") is not None) is is_told


def test_a_word_before_also_is_not_defined_by_it(tmp_path):
    said = "Think of it as the length first seen for the winch, which is also the final length."
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Winches"), ("text", said)]])
    assert define(read_document(tmp_path / "a.pdf"), "winch") is None
