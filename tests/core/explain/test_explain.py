import json

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.document import Locator
from wide_margin.core.explain import Explainer, explain, find_definitions, find_references
from wide_margin.core.explain.model import Often
from wide_margin.core.explain.short_forms import spelled_out
from wide_margin.core.margin import EntryKind
from wide_margin.core.margin.bodies import ExplanationBody, body_from_json, body_to_json


@pytest.fixture(scope="module")
def definitions(handbook):
    return find_definitions(handbook)


def test_a_glossary_term_is_explained_by_its_entry(handbook, definitions):
    explanation = explain(handbook, definitions, "the zero is held in suspense")
    meaning = next(m for m in explanation.meanings if m.term == "in suspense")
    assert meaning.kind == "glossary"
    assert "not admitted to the permanent record" in meaning.text
    assert meaning.locator.path == ("Glossary",)


def test_a_term_defined_in_running_text_is_found(handbook, definitions):
    explanation = explain(handbook, definitions, "referred to Sound datum")
    assert explanation.meanings
    assert "finally referred" in explanation.meanings[0].text


def test_references_are_resolved_to_places(handbook):
    found = find_references(handbook, "under section 8.4, see Table 1 and page 12, or section 99.9")
    by_text = {r.text: r for r in found}
    assert by_text["section 8.4"].title.startswith("8.4 When a zero")
    assert by_text["Table 1"].title.startswith("Table 1. The forms")
    assert by_text["page 12"].locator.label == "12"
    assert by_text["section 99.9"].locator is None


def test_a_reference_by_letter_finds_the_annex(handbook):
    (reference,) = find_references(handbook, "as listed in Annex A")
    assert reference.title == "Annex A Station gazetteer"


def test_a_word_without_a_definition_shows_how_it_is_used(handbook, definitions):
    explanation = explain(handbook, definitions, "paraffin")
    assert {m.kind for m in explanation.meanings} == {"used"}
    assert all("paraffin" in m.text.lower() for m in explanation.meanings)


def test_a_word_that_the_document_does_not_have_is_not_explained(handbook, definitions):
    assert explain(handbook, definitions, "xylophone").is_empty


def test_the_selection_does_not_define_itself(tmp_path):
    path = tmp_path / "self.pdf"
    sentence = "A ferrule is a ring of brass at the end of a staff."
    make_pdf(path, [[("text", sentence)]])
    document = read_document(path)
    for chosen in (sentence, sentence.rstrip(".")):
        assert explain(document, find_definitions(document), chosen).meanings == ()


def test_abbreviations_are_spelled_out(tmp_path):
    path = tmp_path / "short.pdf"
    make_pdf(path, [
        [("text", "Records follow the Skerrow Tide Standard (STS) since 1931. It is old.")],
        [("text", "Every sheet is marked STS in red.")],
    ])  # fmt: skip
    document = read_document(path)
    explanation = explain(document, find_definitions(document), "marked STS")
    assert explanation.meanings[0].long_form == "Skerrow Tide Standard"
    assert explanation.meanings[0].locator.page == 0


@pytest.mark.parametrize(
    ("long", "short", "expected"),
    [
        ("the mean sea level ", "MSL", "mean sea level"),
        ("a Portable Document Format ", "PDF", "Portable Document Format"),
        ("heights are read daily ", "XYZ", ""),
        ("of the office ", "OFFICE", ""),
    ],
)
def test_initials_must_spell_the_abbreviation(long, short, expected):
    assert spelled_out(long, short) == expected


@pytest.mark.parametrize(
    "sentence",
    [
        "This code has both small and large letters.",
        "Three people worked there through the whole winter.",
    ],
)
def test_a_sentence_that_rests_on_the_one_before_shows_it(tmp_path, sentence):
    before = "The signs on the drum are those of the harbour telegraph."
    make_pdf(tmp_path / "said.pdf", [[("text", f"Nothing else was known. {before} {sentence}")]])
    document = read_document(tmp_path / "said.pdf")
    found = explain(document, find_definitions(document), sentence, 0)
    assert [each.text for each in found.leans_on][:1] == [before]


@pytest.fixture
def ropes(tmp_path):
    path = tmp_path / "ropes.pdf"
    make_pdf(path, [
        [("h1", "1 Wells"), ("text", "A rope hangs in the well. Wells are old.")],
        [("h1", "2 Ropes"), ("text", "A rope is made of hemp. The rope is tarred. Ropes break. "
                             "The well rope is the longest of all.")],
    ])  # fmt: skip
    return Explainer(read_document(path))


def test_where_a_word_stands_most_is_told(ropes):
    often = ropes.explain("rope", 0).often
    assert (often.n_sections, often.section, often.locator.page) == (2, "2 Ropes", 1)
    assert (often.n_times, often.n_there) == (6, 5)  # its heading too


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("rope", "Stands 6 times in 2 sections; most often in “2 Ropes” (5)"),
        ("well rope", "Stands once in the document, in “2 Ropes”"),  # where both stand together
        ("hemp", "Stands once in the document, in “2 Ropes”"),
        ("wells", "Stands 4 times in 2 sections; most often in “1 Wells” (3)"),
    ],
)
def test_how_often_a_term_stands_is_said(ropes, text, said):
    assert ropes.explain(text, 1).often.said == said


@pytest.mark.parametrize("text", ["anchor", "the", "", "A rope is made of hemp"])
def test_what_is_not_there_is_not_counted(ropes, text):
    assert ropes.explain(text, 1).often is None


def test_of_a_sentence_of_which_little_is_told_a_word_is_counted(ropes):
    told = ropes.explain("Ropes break often enough, they say, in the cold of winter.")
    assert (told.often.about, told.often.n_times) == ("ropes", 6)
    assert told.often.said.startswith("“ropes” stands 6 times")


def test_an_explanation_kept_before_words_were_named_is_read():
    at = Locator(0, None, (), (), "", y=0.0)
    body = ExplanationBody("rope", often=Often(6, 2, "2 Ropes", 5, at))
    kept = json.loads(body_to_json(body))
    del kept["often"][-1]
    assert body_from_json(EntryKind.EXPLANATION, json.dumps(kept)) == body


def test_a_number_is_no_term_that_has_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[
        ("text", "Level 7 is a height at which the sluice at the lower gate is shut by two men."),
        ("text", "The sluice was open for most of the year and leaked less than 7% in the spring."),
    ]])  # fmt: skip
    explanation = Explainer(read_document(tmp_path / "a.pdf")).explain("7%", 0)
    assert all(meaning.kind == "used" for meaning in explanation.meanings)


def test_a_use_elsewhere_goes_before_the_sentence_under_the_eye(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("text", "The paraffin was carried up the stairs in cans by the youngest of them.")],
        [("text", "Paraffin burns with a clear flame and is kept in the cellar of the tower.")],
    ])  # fmt: skip
    (meaning,) = Explainer(read_document(tmp_path / "a.pdf")).explain("paraffin", 0).meanings
    assert meaning.locator.page == 1
