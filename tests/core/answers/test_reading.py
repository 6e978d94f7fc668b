import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, Reach, answer_quoted, named_reach, read_asked
from wide_margin.core.answers.form import ANY_FORM, take_form
from wide_margin.core.answers.question import read_question, topic_of
from wide_margin.core.answers.reading import leans, paragraphs_within, section_reach
from wide_margin.core.answers.signs import defined_term
from wide_margin.core.document import with_outline
from wide_margin.core.outline.editing import OutlineEditor


@pytest.mark.parametrize(
    ("typed", "left", "shown"),
    [
        ("What is a surge, under 50 words?", "What is a surge?", "under 50 words"),
        ("In three sentences, what is a surge?", "What is a surge?", "in 3 sentences"),
        ("What is a surge, in one sentence?", "What is a surge?", "in 1 sentence"),
        ("What are the spares as a list?", "What are the spares?", "as a list"),
        ("What is a surge in no more than twenty words", "What is a surge", "under 20 words"),
        ("Briefly, what is a surge?", "What is a surge?", "under 25 words"),
        ("How many words has the longest entry?", "How many words has the longest entry?", ""),
        ("What is on the list of forms?", "What is on the list of forms?", ""),
        (
            "Who may visit a person with a sentence of ten years?",
            "Who may visit a person with a sentence of ten years?",
            "",
        ),
    ],
)
def test_the_form_asked_for_is_taken_from_the_question(typed, left, shown):
    text, form = take_form(typed)
    assert (text, form.shown) == (left, shown)


@pytest.mark.parametrize(
    ("typed", "left", "reach"),
    [
        ("What is said on page 12?", "What is said?", "page 12"),
        ("Which rules are on pages 20 to 24?", "Which rules are?", "pages 20–24"),
        ("What is a float in section 4.2?", "What is a float?", "4.2 Float and wire"),
        ("In chapter 9, who signs?", "Who signs?", "9 Bench marks"),
        ("Which short form is in annex E?", "Which short form is?", "Annex E Abbreviations"),
        ("What is said of gales in the preface?", "What is said of gales?", "Preface"),
        ("Who signs in the chapter on bench marks?", "Who signs?", "9 Bench marks"),
        ("Is it in part a duty of the keeper?", None, "whole document"),
        ("How long are the tables of the visit?", None, "whole document"),
        ("What is the error in the tables?", None, "whole document"),
        ("What is meant by a reach in the Sound?", None, "whole document"),
        ("Who signs on page 999?", None, "whole document"),
        ("Which section tells about page 12?", None, "whole document"),
    ],
)  # fmt: skip
def test_a_place_in_the_question_narrows_it(handbook, typed, left, reach):
    asked = read_asked(handbook, typed)
    assert asked.reach.name == reach
    assert asked.question.text == (left or typed)


@pytest.mark.parametrize(
    ("text", "kind", "name"),
    [
        ("pages 40-60", "pages", "pages 40–60"),
        ("xv", None, ""),
        ("section 9.3", "section", "9.3 Closing error"),
        ("9.3", "section", "9.3 Closing error"),
        ("annex F", "section", "Annex F Tolerances in one place"),
        ("Glossary", "section", "Glossary"),
        ("chapter 999", None, ""),
    ],
)
def test_a_reach_is_read_from_its_name(handbook, text, kind, name):
    reach = named_reach(handbook, text)
    assert (reach.kind, reach.name) == (kind, name) if reach else kind is None


@pytest.mark.parametrize(
    ("question", "expected"),
    [
        ("And on Sundays?", True),
        ("Why?", True),
        ("What about secondary stations?", True),
        ("How long did it last?", True),
        ("Who was its first superintendent?", True),
        ("How often is the wire changed?", False),
        ("Why is lead used for the counterweight?", False),
        ("What must a keeper do when the sea draws back from its lowest mark?", False),
    ],
)
def test_a_question_that_leans_on_the_one_before_is_known(handbook, question, expected):
    assert leans(read_question(question), handbook) is expected


def test_a_follow_up_is_answered_with_what_it_leans_on(handbook):
    before = "How high is the crown of the dyke at Low Fenny?"
    alone = answer_quoted(handbook, "And at Innerby?")
    after = answer_quoted(handbook, "And at Innerby?", WHOLE, before)
    assert "4.5 metres" in " ".join(q.text for q in after.quotes)
    assert "4.5 metres" not in " ".join(q.text for q in alone.quotes)
    assert after.kind == "how many"


def test_a_question_that_stands_alone_ignores_the_one_before(handbook):
    question = "How often is the wire of the float changed?"
    assert answer_quoted(handbook, question, WHOLE, "Who signs a failed line?") == answer_quoted(
        handbook, question
    )


@pytest.mark.parametrize(
    ("question", "term"),
    [
        ("What is a seiche?", "seiche"),
        ("What does the term false continuity mean?", "false continuity"),
        ("What is meant by duration in this book?", "duration"),
        ("What does CE stand for?", "CE"),
        ("What does it mean for a zero to be in suspense?", "in suspense"),
    ],
)
def test_the_term_to_be_defined_is_found(question, term):
    assert defined_term(question) == term


def test_words_that_only_tell_the_kind_are_no_topic():
    assert "often" not in topic_of(read_question("How often is the wire changed?"))


def test_an_answer_keeps_to_the_words_and_sentences_asked_for(handbook):
    short = answer_quoted(handbook, "How does the seven-reading rule work, under 20 words?")
    assert sum(len(q.text.split()) for q in short.quotes) <= 20
    assert short.quotes[-1].text.endswith("…")
    one = answer_quoted(handbook, "How is a closed line of levels run, in one sentence?")
    assert len(one.quotes) == 1
    assert one.quotes[0].text.count(". ") == 0


def test_a_correction_is_quoted_before_what_it_corrects(handbook):
    answer = answer_quoted(handbook, "How wide is the copper float?")
    assert "25 centimetres across, not 20" in answer.quotes[0].text
    assert answer.quotes[0].locators[0].path[0] == "Annex D Corrections to this printing"
    assert any("20 centimetres across" in quote.text for quote in answer.quotes[1:])


def test_a_cell_is_told_with_its_row_its_column_and_its_table(handbook):
    answer = answer_quoted(handbook, "Which wind blew in the surge of 19 October 1967?")
    row = next(q for q in answer.quotes if "19 October 1967" in q.text)
    assert row.text.startswith("19 October 1967 — Wind: SW, force 10 (Table 2. Surges")
    [place] = row.locators
    assert "SW, force 10" in place.quote


def test_a_narrow_reach_leaks_nothing(tmp_path):
    path = tmp_path / "two.pdf"
    make_pdf(path, [
        [("h1", "1 Ropes"), ("text", "The rope of the bell is changed every April.")],
        [("h1", "2 Chains"), ("text", "The chain of the bell is oiled every May.")],
    ])  # fmt: skip
    document = read_document(path)
    reach = Reach("pages", first_page=1, last_page=1, name="page 2")
    answer = answer_quoted(document, "When is the rope of the bell changed?", reach)
    assert {excerpt.locator.page for excerpt in answer.excerpts} == {1}


def test_a_narrow_reach_asks_less_of_the_evidence_but_still_declines(handbook):
    reach = named_reach(handbook, "section 60.3")
    typed = "How often are the hinges of a sluice greased?"
    assert answer_quoted(handbook, typed).declined
    found = answer_quoted(handbook, typed, reach)
    assert "oils them monthly" in " ".join(quote.text for quote in found.quotes)
    assert answer_quoted(handbook, "What is the population of Brazil?", reach).declined


@pytest.mark.parametrize(
    "typed", ["Must the abstract be at most 150 words?", "How long is a title of up to 12 words?"]
)
def test_a_form_is_not_taken_where_the_question_would_lose_its_end(handbook, typed):
    asked = read_asked(handbook, typed)
    assert asked.form == ANY_FORM
    assert asked.question.text == typed


def test_an_outline_edit_keeps_every_reach(handbook):
    at = next(k for k, s in enumerate(handbook.outline.sections) if s.title == "9.3 Closing error")
    reach = section_reach(handbook.outline.sections[at])
    heights = handbook.facts.heights
    before = paragraphs_within(handbook, reach)
    changed = handbook.outline
    editor = OutlineEditor(heights)
    for edit in (
        lambda o: editor.delete(o, 0), lambda o: editor.add(o, 2, 10.0, "My own"),
        lambda o: editor.rename(o, 5, "Another name"), lambda o: editor.raise_(o, at),
    ):  # fmt: skip
        changed = edit(changed).outline
        after = paragraphs_within(with_outline(handbook, changed), reach)
        assert after == before
    assert reach.name == "9.3 Closing error"


@pytest.mark.parametrize(
    "typed",
    [
        "What does a keeper answer for? under 30 words",
        "What does a keeper answer for under 30 words?",
        "What does a keeper answer for, in at most 30 words",
    ],
)
def test_a_question_may_end_in_a_preposition_before_its_form(handbook, typed):
    asked = read_asked(handbook, typed)
    assert asked.form.max_words == 30
    assert "30" not in asked.question.text
