import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import answer_quoted
from wide_margin.core.passages import names_in

LEAD = (
    "text",
    "The pump takes several options, and each of them is described in what follows. "
    "They may be given in any order, and one that is given twice counts once.",
)


def described(document):
    """What each sentence of a document describes, from the inside out."""
    terms = document.text.terms
    found = {}
    for sentence in document.text.sentences:
        chain, at = [], sentence.term
        while at >= 0:
            chain.append(terms[at].text)
            at = terms[at].parent
        found[sentence.text] = chain
    return found


def test_what_stands_further_in_describes_the_line_above(tmp_path):
    path = tmp_path / "options.pdf"
    make_pdf(path, [[
        LEAD, ("code", "--valve NAME"), ("said", "Opens the valve of that name."),
        ("code", "--dry"), ("said", "Runs without water. The seal must be oiled before."), LEAD,
    ]])  # fmt: skip
    said = described(read_document(path))
    assert said["Opens the valve of that name."] == ["--valve NAME"]
    assert said["The seal must be oiled before."] == ["--dry"]
    assert said["They may be given in any order, and one that is given twice counts once."] == []


def test_a_hanging_description_is_one_paragraph_with_its_term(tmp_path):
    path = tmp_path / "glossary.pdf"
    long = (
        "A wall of stone or wood that is built out from the shore to keep the sand in its place,"
        " and is also used for landing."
    )
    make_pdf(path, [[LEAD, ("entry", f"Groyne|{long}"), ("entry", "Neap|A tide of small range."),
                     ("entry", f"Weir|{long.replace('shore', 'bank')}"), LEAD]])  # fmt: skip
    document = read_document(path)
    entries = [p for p in document.paragraphs if p.kind == "entry"]
    assert [p.text.split("\t")[0] for p in entries] == ["Groyne", "Neap", "Weir"]
    assert long in entries[0].text
    assert described(document)["Neap A tide of small range."] == ["Neap"]


def test_a_table_is_no_list_of_terms(tmp_path):
    path = tmp_path / "table.pdf"
    make_pdf(path, [[LEAD, ("entry", "Station|Height"), ("entry", "Norrey|4.2"),
                     ("entry", "Innerby|3.9"), LEAD]])  # fmt: skip
    assert {p.kind for p in read_document(path).paragraphs} == {"body", "row"}


def test_forms_one_above_the_other_are_one_term(tmp_path):
    path = tmp_path / "forms.pdf"
    make_pdf(path, [[LEAD, ("code", "fill (tank)"), ("code", "fill (tank, rate)"),
                     ("said", "Fills a tank, at the rate that is given."), LEAD]])  # fmt: skip
    said = described(read_document(path))
    assert said["Fills a tank, at the rate that is given."] == ["fill (tank) fill (tank, rate)"]


@pytest.mark.parametrize(
    ("term", "names"),
    [("fill (tank, rate)", "fill"), ("S = profile (name)", "S = profile"), ("--dry", "--dry")],
)
def test_arguments_are_no_part_of_a_name(term, names):
    assert names_in(term).strip() == names


def test_a_description_is_quoted_with_its_term(tmp_path):
    path = tmp_path / "ask.pdf"
    make_pdf(path, [[
        LEAD, ("code", "--valve NAME"), ("said", "Opens the valve of that name before starting."),
        ("code", "--dry"), ("said", "Runs without water, for as long as the seal allows."), LEAD,
    ]])  # fmt: skip
    answer = answer_quoted(read_document(path), "Which option lets it run without any water?")
    assert answer.quotes[0].text.startswith("--dry Runs without water")
    assert len(answer.quotes[0].locators) == 1


def test_the_term_lends_its_words_to_its_description(tmp_path):
    path = tmp_path / "lend.pdf"
    filler = ("text", "The default of most of them is left as it is by those who know the pump.")
    make_pdf(path, [
        [LEAD, filler, ("text", "The rate of the drain is not asked for, whatever the default.")],
        [LEAD, ("code", "drain (tank)"), ("said", "Empties it. The default rate is 12."), filler],
        [LEAD, ("code", "soak (tank)"), ("said", "Wets it. The default rate is 40."), filler],
    ])  # fmt: skip
    answer = answer_quoted(read_document(path), "What is the default rate of soak?")
    assert "40" in answer.quotes[0].text
    assert answer.quotes[0].locators[0].page == 2


def test_the_place_of_a_description_goes_before_that_of_its_term(tmp_path):
    path = tmp_path / "order.pdf"
    many = [
        ("said", f"Runs without water {k} times before the seal must be oiled.") for k in (1, 2)
    ]
    make_pdf(path, [
        [LEAD, ("code", "--dry"), *many],
        [("said", "A whistle tells that the oil is used up."), LEAD],
    ])  # fmt: skip
    answer = answer_quoted(read_document(path), "What tells that the oil is used up?")
    assert answer.quotes[0].text == "--dry … A whistle tells that the oil is used up."
    assert [at.page for at in answer.quotes[0].locators] == [1, 0]


def test_a_term_far_away_is_not_quoted(tmp_path):
    path = tmp_path / "far.pdf"
    page = [("said", f"It may be used in the dark, and by hand, on day {k}.") for k in range(24)]
    make_pdf(path, [
        [LEAD, ("code", "--dry"), *page], page,
        [*page, ("said", "A whistle tells that the oil is used up.")],
    ])  # fmt: skip
    answer = answer_quoted(read_document(path), "What tells that the oil is used up?")
    assert "A whistle tells" in answer.quotes[0].text
    assert "--dry" not in answer.quotes[0].text
    assert {at.page for at in answer.quotes[0].locators} == {2}


def test_options_told_in_their_own_lines_are_one_term_each(tmp_path):
    path = tmp_path / "lines.pdf"
    make_pdf(path, [[
        LEAD, ("code", "--dry Run the pump without water"), ("code", "--wet Run it with water"),
        ("code", "--deep NAME"), ("code", "--shallow NAME"), LEAD,
    ]])  # fmt: skip
    terms = [term.text for term in read_document(path).text.terms]
    assert "--wet Run it with water" in terms
    assert "--deep NAME --shallow NAME" in terms


def test_the_word_over_an_abstract_is_no_term(tmp_path):
    path = tmp_path / "paper.pdf"
    make_pdf(path, [[("text", "Abstract"), ("said", "The rope is oiled in May, and it is long."),
                     LEAD]])  # fmt: skip
    said = described(read_document(path))
    assert said["The rope is oiled in May, and it is long."] == []
