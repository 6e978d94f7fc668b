from types import SimpleNamespace

import numpy as np
import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import answer_quoted, quoted, read_question
from wide_margin.core.answers.candidates import Candidate
from wide_margin.core.answers.evidence import Judged
from wide_margin.core.answers.signs import sign_of
from wide_margin.core.answers.where import OF_TITLE, rank_sections

FILLER = (
    "The harbour is wide and quiet in the evening, and few people cross it after dark. Those who"
    " do so are known to the keeper, who writes their names down and looks out for them until they"
    " have reached the other side. Nobody was lost in the years that anyone remembers."
)
SHORT = ["a lamp", "a line of ten metres", "two oars", "a whistle"]
LONG = [f"{thing}, which is looked after by the {who} and is counted every spring with the others"
        for thing, who in (("a lamp", "keeper"), ("a line", "warden"), ("two oars", "deputy"),
                           ("a whistle", "inspector"), ("a bucket", "clerk"),
                           ("a blanket", "nurse"), ("a chart", "pilot"))]  # fmt: skip


def boat(path, items):
    make_pdf(path, [
        [("text", FILLER), ("text", "Every boat carries the following things:"),
         *(("item", f"• {item}") for item in items), ("text", FILLER)],
    ])  # fmt: skip
    return read_document(path)


def said(answer):
    return [quote.text for quote in answer.quotes]


def test_a_list_is_quoted_with_all_its_items(tmp_path):
    answer = answer_quoted(boat(tmp_path / "a.pdf", SHORT), "Which things does every boat carry?")
    assert said(answer)[0].endswith("following things:")
    assert said(answer)[1:] == [f"• {item}" for item in SHORT]


def test_a_long_list_is_quoted_item_by_item_and_cut(tmp_path):
    answer = answer_quoted(boat(tmp_path / "b.pdf", LONG), "Which things does every boat carry?")
    items = said(answer)[1:]
    assert len(items) == len(LONG)
    assert all(item.endswith("…") for item in items)
    assert all(mine.startswith("• " + own.split(",")[0]) for mine, own in zip(items, LONG))  # noqa: B905
    assert sum(len(text.split()) for text in said(answer)) <= 120


def test_a_list_goes_on_after_what_belongs_to_an_item(tmp_path):
    first, *rest = [("item", f"• {item}") for item in SHORT]
    within = "The keeper fills it with oil each evening and trims what has burned."
    lead = ("text", "Every boat carries the following things:")
    for style, n_items in (("said", len(SHORT)), ("text", 1)):
        path, after = tmp_path / f"{style}.pdf", (style, within)
        make_pdf(path, [[("text", FILLER), lead, first, after, *rest, ("text", FILLER)]])
        answer = answer_quoted(read_document(path), "Which things does every boat carry?")
        assert said(answer)[1:] == [item for _, item in (first, *rest)[:n_items]]


def test_a_list_may_follow_on_what_is_quoted_second(tmp_path):
    path = tmp_path / "second.pdf"
    make_pdf(path, [[
        ("text", FILLER),
        ("text", "The Oarbox has tools for boats of wood."), ("text", FILLER),
        ("text", "This Oarbox is a chest, i.e. tools, each for its own work. Now the chest has the"
                 " following:"),
        *(("item", f"• {item}") for item in SHORT), ("text", FILLER),
    ]])  # fmt: skip
    answer = answer_quoted(read_document(path), "Which tools does the Oarbox have?")
    assert said(answer)[0] == "The Oarbox has tools for boats of wood."
    assert said(answer)[-len(SHORT) :] == [f"• {item}" for item in SHORT]


def test_an_item_brings_the_sentence_that_introduces_it(tmp_path):
    answer = answer_quoted(
        boat(tmp_path / "c.pdf", SHORT), "List the things: lamp, line, oars, whistle."
    )
    assert said(answer)[0].endswith("following things:")


def test_what_a_sentence_runs_into_is_quoted_with_it(tmp_path):
    path = tmp_path / "code.pdf"
    make_pdf(path, [[("text", FILLER), ("text", "A new tank is made with the command"),
                     ("code", "tank --new NAME"), ("text", FILLER)]])  # fmt: skip
    answer = answer_quoted(read_document(path), "How do I make a new tank?")
    assert "tank --new NAME" in said(answer)[0]


def test_the_reason_that_a_sentence_leans_on_is_quoted(tmp_path):
    path = tmp_path / "why.pdf"
    make_pdf(path, [[("text", f"{FILLER} Lead does not float and is cheap. For that reason the"
                              f" counterweight is made of lead. {FILLER}")]])  # fmt: skip
    answer = answer_quoted(read_document(path), "Why is the counterweight made of lead?")
    assert "does not float" in said(answer)[0]


def test_what_something_follows_from_is_quoted_with_it(tmp_path):
    path = tmp_path / "why.pdf"
    reason = ("Whatever floats is moved by each wave and by every ship that goes past at night, and"
              " what is cheap may be lost without anybody being sorry.")  # fmt: skip
    result = (" The counterweight is therefore made of lead, hangs on a chain of iron that is"
              " greased each spring, and is drawn up by two people.")  # fmt: skip
    make_pdf(path, [[("text", f"{FILLER} {reason}{result} {FILLER}")]])
    document = read_document(path)
    assert "floats" in said(answer_quoted(document, "Why is the counterweight made of lead?"))[0]
    assert "floats" not in said(answer_quoted(document, "Is the counterweight made of lead?"))[0]


@pytest.fixture(scope="module")
def chapters(tmp_path_factory):
    path = tmp_path_factory.mktemp("chapters") / "book.pdf"
    make_pdf(path, [
        [("h1", "1 Boats"), ("text", FILLER)],
        [("h1", "2 Lightning"), ("text", FILLER), ("h2", "2.1 Masts and lightning"),
         ("text", f"Lightning strikes the mast. A mast leads lightning to the water. {FILLER}"),
         ("h2", "2.2 Wires and lightning"),
         ("text", f"Lightning melts thin wires. A thick wire leads lightning away. {FILLER}")],
        [("h1", "3 Nets"), ("text", FILLER)],
    ])  # fmt: skip
    return read_document(path)


def test_a_chapter_is_a_whole_chapter(chapters):
    answer = answer_quoted(chapters, "Which chapter deals with lightning?")
    assert said(answer)[0] == "2 Lightning"


def test_a_section_is_the_section_itself(chapters):
    answer = answer_quoted(chapters, "Which section deals with lightning and masts?")
    assert said(answer)[0] == "2.1 Masts and lightning"


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("Does it say how much a boat costs?", "yes or no"),
        ("Can I see when the ferry leaves?", "yes or no"),
        ("When I sell my boat, which form do I fill in?", "general"),
        ("When does the ferry leave?", "when"),
        ("What is the yearly fee of a berth?", "how many"),
        ("What is the largest size kept by default?", "how many"),
        ("What is a berth?", "what is"),
        ("What is the helper of a keeper called?", "general"),
        ("Which two kinds of boats are there?", "list"),
        ("What is not allowed on deck?", "list"),
        ("Where can I read about nets?", "where"),
        ("Where does it tell me how to mend a net?", "where"),
        ("Where are nets dried?", "general"),
    ],
)
def test_the_beginning_of_a_question_tells_its_kind(question, kind):
    assert read_question(question).kind == kind


def test_the_reason_that_is_given_afterwards_is_quoted_with_it(tmp_path):
    path = tmp_path / "why.pdf"
    said_after = (
        "The tall gauge showed the worst readings of all six in the winter of the great frost."
        " The reason is twofold. First, ice closes its pipe before any other one is closed."
    )
    make_pdf(path, [[("text", f"{FILLER} {said_after} {FILLER}")]])
    document = read_document(path)
    question = "Why did the tall gauge show the worst readings?"
    assert "ice closes its pipe" in said(answer_quoted(document, question))[0]
    question = "Which gauge showed the worst readings?"
    assert "ice closes its pipe" not in said(answer_quoted(document, question))[0]


@pytest.mark.parametrize(
    ("sentence", "sign"),
    [
        ("It keeps five queues: (1) interrupts, (2) forgets, and (3) the rest.", 1.0),
        ("The queues are these: rope, lid and bucket.", 0.3),
        ("The queues are long.", 0.0),
    ],
)
def test_what_counts_things_up_is_told(sentence, sign):
    assert sign_of("list", sentence, ("queues",)) == sign


def test_terms_described_one_after_the_other_are_a_list(tmp_path):
    path = tmp_path / "made.pdf"
    told = (
        "If this is set before the tower is opened, then it is read from the file that lies beside "
        "the list of the keeper, and not from here."
    )
    names = ["ROPE_LENGTH", "DRUM_TURNS", "WHEEL_OIL"]
    described = [block for name in names for block in (("text", name), ("said", told))]
    first = ("text", "There are several variables which change what is done:")
    make_pdf(path, [[("h1", "1 Settings"), first, *described]])
    answer = answer_quoted(read_document(path), "Which variables change what is done?")
    assert said(answer)[1:4] == names


@pytest.mark.parametrize(
    ("question", "sure"),
    [("Where can I read about nets?", OF_TITLE), ("Where can I read about wet masts?", 0.3)],
)
def test_a_title_that_says_all_that_is_asked_for_makes_the_place_surer(
    chapters, monkeypatch, question, sure
):
    monkeypatch.setattr(quoted, "judge", lambda *_: Judged(2.0, 0.3))
    assert answer_quoted(chapters, question).sure == sure


def test_a_section_of_which_nothing_may_be_quoted_is_none_to_look_at(tmp_path):
    said = ("text", "The rope of the well is wound by the keeper, who lives in the tower.")
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Wells"), ("h2", "1.1 Ropes"), said], [("h2", "1.2 Lids"), said],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    sentences = document.text.sentences
    ropes, lids = (
        next(k for k, s in enumerate(sentences) if s.section == section and s.kind == "body")
        for section in (1, 2)
    )
    weighed = SimpleNamespace(sentences=np.array([ropes, lids]), scores=np.array([1.0, 2.0]))
    candidate = Candidate(ropes, 0, 1.0, 1.0, (1.0,), (1.0,))
    found = rank_sections(
        document, read_question("Where are the ropes?"), np.zeros(4), weighed, [candidate]
    )
    assert {section for section, *_ in found} <= {0, 1}
