import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import Reach, answer_quoted, read_question, section_reach
from wide_margin.core.answers.model import PERHAPS
from wide_margin.core.answers.signs import emphasis_for, sign_of
from wide_margin.core.layout import tidy


def words_at(document, locator):
    """The very characters a locator leads to, from the paragraphs they lie in."""
    spans = set()
    for span in locator.spans:
        spans.update((span.page, k) for k in range(span.start, span.end))
    found = []
    for paragraph in document.paragraphs:
        for _, line, length in paragraph.pieces:
            offset = 0
            for first, last in line.spans:
                for k in range(first, last):
                    inside = offset + k - first < length
                    if (line.page, k) in spans and inside:
                        found.append(line.text[offset + k - first])
                offset += last - first + 1
            found.append(" ")
    return "".join("".join(found).split())


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("Who signs a failed line?", "who"),
        ("Whose mark is the best?", "who"),
        ("When is the wire changed?", "when"),
        ("In what year was the datum defined?", "when"),
        ("How many stations are there?", "how many"),
        ("What tolerance has the closing error?", "how many"),
        ("What is a transfer?", "what is"),
        ("What does “in suspense” mean?", "what is"),
        ("How do I clean the well?", "how to"),
        ("Which section tells how to clean the well?", "where"),
        ("Where in the handbook are the forms described?", "where"),
        ("Why is oil poured into the well?", "why"),
        ("What are the duties of the keeper?", "list"),
        ("Which spares must a station keep?", "list"),
        ("Welche Kontoarten gibt es?", "list"),
        ("Quelles architectures sont prises en charge ?", "list"),
        ("Quali pacchetti sono necessari?", "list"),
        ("Wie lege ich ein neues Konto an?", "how to"),
        ("Come installo il programma?", "how to"),
        ("How often is the wire changed?", "how often"),
        ("Is salt allowed in a well?", "yes or no"),
        ("Was the well dry?", "yes or no"),
        ("Was content lost?", "yes or no"),
        ("Was gehört in den Brunnen?", "general"),
        ("Was macht die Winde?", "general"),
        ("Was ist ein Brunnen?", "what is"),
        ("What is the difference between springs and neaps?", "compare"),
        ("Wann wird der Draht gewechselt?", "when"),
        ("Combien de stations y a-t-il ?", "how many"),
        ("¿Cuándo se cambia el alambre?", "when"),
        ("Quando viene cambiato il filo?", "when"),
        ("Kiedy zmienia się drut?", "when"),
        ("Когда меняют проволоку?", "when"),
        ("Mikor cserélik a drótot?", "when"),
        ("¿Quién firma?", "who"),
        ("Chi firma?", "who"),
        ("Kdo podepisuje?", "who"),
        ("¿Cuántas estaciones hay?", "how many"),
        ("Hoeveel stations zijn er?", "how many"),
        ("Hur många stationer finns det?", "how many"),
        ("Сколько станций?", "how many"),
        ("¿Cómo se limpia el pozo?", "how to"),
        ("Jak wyczyścić studnię?", "how to"),
        ("如何清洗？", "how to"),
        ("Perché si versa olio?", "why"),
        ("Hvorfor hældes olie i brønden?", "why"),
        ("Co to jest stacja?", "what is"),
        ("Что такое станция?", "what is"),
        ("Quants pous hi ha?", "how many"),
        ("Πόσα πηγάδια υπάρχουν;", "how many"),
        ("Ποιος υπογράφει;", "who"),
        ("Qui ha signat?", "who"),
        ("Γιατί χύνεται λάδι;", "why"),
        ("Per què s'hi posa oli?", "why"),
        ("Τι είναι σταθμός;", "what is"),
        ("Què és una estació?", "what is"),
        ("Com puc netejar el pou?", "how to"),
        ("Πώς καθαρίζεται το πηγάδι;", "how to"),
        ("Come here", "general"),
        ("Tell me about the network", "general"),
    ],
)
def test_the_kind_of_answer_wanted_is_read_from_the_words(question, kind):
    assert read_question(question).kind == kind


@pytest.mark.parametrize(
    ("question", "words"),
    [
        ("How large may the closing error be?", "4 mm for each kilometre"),
        ("How thick is the layer of paraffin oil?", "two centimetres"),
        ("On which days are sheets changed?", "noon on Mondays"),
        ("Who appoints keepers?", "superintendent"),
        ("How much is the fee of a primary station?", "240 crowns"),
        ("What must never be put into a well?", "Salt must never"),
    ],
)
def test_the_handbook_answers(handbook, question, words):
    answer = answer_quoted(handbook, question)
    text = " ".join(quote.text for quote in answer.quotes)
    assert words in text


@pytest.mark.parametrize(
    "question",
    [
        "What is the population of Brazil?",
        "Which football club won the cup in 1974?",
        "How do I install the printer driver on my laptop?",
        "Who composed the opera about the barber?",
    ],
)
def test_what_the_document_does_not_say_is_declined_with_what_is_nearest(handbook, question):
    answer = answer_quoted(handbook, question)
    assert answer.declined
    assert answer.quotes == ()
    assert answer.sure < PERHAPS
    assert answer.n_searched == handbook.n_searched


def test_every_locator_leads_to_the_quoted_words(handbook):
    for question in ("How large may the closing error be?", "When is the wire changed?"):
        for quote in answer_quoted(handbook, question).quotes:
            assert quote.backing == "backed"
            quoted = "".join(quote.text.split())
            assert words_at(handbook, quote.locators[0]) == quoted


def test_an_answer_is_the_same_every_time(handbook):
    question = "Who may put a gauge out of use?"
    assert answer_quoted(handbook, question) == answer_quoted(handbook, question)


def test_an_answer_knows_its_pages_and_section(handbook):
    answer = answer_quoted(handbook, "How large may the closing error be?")
    locator = answer.quotes[0].locators[0]
    assert locator.shown == f"p. {locator.label}"
    assert locator.path[0] == "Part III Levelling"


def test_a_reach_of_pages_keeps_to_them(handbook):
    reach = Reach("pages", first_page=10, last_page=14, name="pages 4–8")
    answer = answer_quoted(handbook, "How often is the wire changed?", reach)
    pages = {e.locator.page for e in answer.excerpts}
    assert pages <= set(range(10, 16))
    assert answer.n_pages == 5


def test_a_reach_of_a_section_keeps_to_it(handbook):
    sections = handbook.outline.sections
    at = next(k for k, s in enumerate(sections) if s.title.startswith("Part VI"))
    reach = section_reach(sections[at])
    answer = answer_quoted(handbook, "How often is the wire changed?", reach)
    first, last = sections[at].page, sections[at].end_page
    assert all(first <= e.locator.page <= last for e in answer.excerpts)


def test_pages_without_text_are_told(tmp_path):
    from tests.making import make_pdf, read_document

    path = tmp_path / "holes.pdf"
    make_pdf(path, [[("text", "The rope is changed in April. It is new then.")], [], []])
    answer = answer_quoted(read_document(path), "When is the rope changed?")
    assert answer.without_text == (1, 2)
    assert (answer.n_searched, answer.n_pages) == (1, 3)


def test_contents_and_index_pages_are_no_evidence(handbook):
    answer = answer_quoted(handbook, "closing error")
    assert all(e.locator.page > 3 for e in answer.excerpts)


def test_a_where_question_is_answered_with_a_section(handbook):
    answer = answer_quoted(handbook, "Which section describes the corrections for air and density?")
    assert answer.quotes
    assert "Pressure gauges" in answer.quotes[0].text or "air and density" in answer.quotes[0].text


def test_a_document_without_text_declines(blank_pdf):
    from tests.making import read_document

    answer = answer_quoted(read_document(blank_pdf), "What is this?")
    assert answer.declined
    assert answer.n_searched == 0


@pytest.mark.parametrize(
    ("kind", "sentence", "stands_out"),
    [
        ("how many", "It shall not exceed 4 mm for each of the two runs.", ["4 mm"]),
        ("when", "It was defined on 14 January 1897 by the Office.", ["14 January 1897"]),
        ("who", "It was cut by Anders Holm himself.", ["Anders Holm"]),
        ("why", "It is shaded because it is hot.", []),
    ],
)
def test_what_answers_most_directly_is_emphasised(kind, sentence, stands_out):
    assert [sentence[a:b] for a, b in emphasis_for(kind, sentence)] == stands_out


@pytest.mark.parametrize(
    ("asked", "number"),
    [("How many boards can be stacked?", ["eight"]), ("How many switches has it?", ["two"]),
     ("How many are there?", ["two", "eight"])],
)  # fmt: skip
def test_the_number_of_what_is_asked_for_is_emphasised(asked, number):
    said = "With two 1x4 switches, boards can be read. Up to eight boards may be stacked."
    assert [said[a:b] for a, b in emphasis_for("how many", said, asked)] == number


@pytest.mark.parametrize(
    ("sentence", "defines"),
    [
        ("El pozo es altamente configurable.", False), ("El pozo es cerrado por el guarda.", False),
        ("El pozo es una obra de piedra.", True), ("El pozo es conocido como fuente.", True),
        ("Le puits est alimenté par la pluie.", False), ("Le puits est un ouvrage.", True),
        ("Il pozzo è facilmente chiudibile.", False), ("Il pozzo è la fonte.", True),
        ("O poço é usado por todos.", False), ("O poço é uma obra.", True),
    ],
)  # fmt: skip
def test_what_is_done_with_a_thing_or_how_it_is_hardly_defines_it(sentence, defines):
    topic = (sentence.split()[1].lower(),)
    assert (sign_of("what is", sentence, topic) > 0.5) is defines


@pytest.mark.parametrize(
    ("kind", "sentence", "topic"),
    [
        ("how many", "It holds 12 litres.", ("hold",)),
        ("when", "The wire is changed every first Monday.", ("wire",)),
        ("who", "The keeper signs it.", ("signs",)),
        ("why", "This is done because ink runs.", ("ink",)),
        ("what is", "A transfer carries a height; a transfer is a line over water.", ("transfer",)),
        ("what is", "Such tides are called springs.", ("springs",)),
    ],
)
def test_a_sentence_of_the_wanted_form_shows_it(kind, sentence, topic):
    assert sign_of(kind, sentence, topic) > 0
    assert sign_of(kind, "Nothing of the kind stands here", topic) == 0


def test_quotes_are_the_documents_own_sentences(handbook):
    whole = " ".join(s.text for s in handbook.text.sentences)
    for question in ("What must a keeper do before leaving?", "How is ice in the well treated?"):
        for quote in answer_quoted(handbook, question).quotes:
            assert tidy(quote.text) in whole


@pytest.mark.parametrize("style", ["code", "text"])
def test_the_rest_of_a_sentence_is_quoted_with_the_code_that_stands_in_it(tmp_path, style):
    path = tmp_path / "code.pdf"
    make_pdf(path, [[
        ("h1", "1 Ropes"), ("text", "A rope is let out by hand or from the desk of the keeper."),
        (style, "letout rope 40"), ("text", "sets the length of the rope to 40 fathoms at once."),
        ("text", "Nothing else is said of the drum, and nobody has ever asked for more than that."),
    ]])  # fmt: skip
    answer = answer_quoted(read_document(path), "How do I set the length of the rope?")
    with_code = "letout rope 40\nsets the length of the rope" in answer.quotes[0].text
    assert with_code == (style == "code")


def test_where_the_best_sentence_is_but_perhaps_the_answer_more_of_its_page_is_shown(handbook):
    questions = (
        "Do the children of a keeper get anything?", "What is done with broken glass?",
        "How deep is the well?",
    )  # fmt: skip
    answers = [answer_quoted(handbook, question) for question in questions]
    assert all(answer.is_perhaps for answer in answers)
    lengths = []
    for answer in answers:
        first = answer.quotes[0].locators[0]
        assert {at.page for quote in answer.quotes for at in quote.locators} == {first.page}
        lengths.append(sum(len(quote.text.split()) for quote in answer.quotes))
    assert max(lengths) <= 110
    assert sum(lengths) >= 55 * len(lengths)


def test_a_number_is_quoted_with_no_more_than_its_sentence(handbook):
    answer = answer_quoted(handbook, "When is the wire changed?")
    assert answer.quotes
    assert len(" ".join(quote.text for quote in answer.quotes).split()) <= 35
