"""Questions worth asking: sensible, of several shapes, each answered beforehand."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester, DocumentKind, worth_asking
from wide_margin.core.digest.worth import _Candidate, _next
from wide_margin.core.explain import find_definitions

RARE = [
    "basalt",
    "conglomerate",
    "feldspar",
    "gneiss",
    "limestone",
    "mica",
    "obsidian",
    "pumice",
    "quartz",
    "slate",
]


def offered_of(document, kind=None):
    digester = Digester(document)
    return digester, worth_asking(document, digester, find_definitions(document), kind)


@pytest.fixture(scope="module")
def of_handbook(handbook):
    return offered_of(handbook)


def test_six_questions_of_several_shapes_are_offered(of_handbook):
    _, offered = of_handbook
    assert len(offered) == 6
    assert len({worth.shape for worth in offered}) >= 4
    assert len({worth.question for worth in offered}) == 6


def test_each_was_answered_beforehand_and_surely(of_handbook):
    digester, offered = of_handbook
    for worth in offered:
        assert worth.answer.quotes
        assert not worth.answer.is_perhaps
        assert digester.answer(worth.question, WHOLE, None) == worth.answer


def test_no_two_have_the_same_answer(of_handbook):
    _, offered = of_handbook
    assert len({worth.answer.quotes[0].text for worth in offered}) == 6


def test_a_term_is_asked_for_where_the_document_defines_it(handbook, of_handbook):
    _, offered = of_handbook
    asked = [worth for worth in offered if worth.shape == "term"]
    assert asked
    for worth in asked:
        term = worth.question.removesuffix("?").split()[-1]
        assert term.casefold() in worth.answer.quotes[0].text.casefold()


@pytest.fixture(scope="module")
def definitions(handbook):
    return find_definitions(handbook)


@pytest.mark.parametrize("kind", DocumentKind)
def test_any_kind_can_be_chosen(handbook, of_handbook, definitions, kind):
    digester, _ = of_handbook
    assert len(worth_asking(handbook, digester, definitions, kind)) == 6


def test_a_document_without_sentences_offers_nothing(tmp_path):
    path = tmp_path / "empty.pdf"
    make_pdf(path, [[("text", "Blue.")], []])
    assert offered_of(read_document(path))[1] == []


def test_ten_pages_without_anything_to_hold_on_to_give_six_all_the_same(tmp_path):
    path = tmp_path / "stones.pdf"
    make_pdf(path, [
        [("h1", f"{k} Finding {stone}"),
         ("text", f"Somebody found {stone} near the old harbour and took it home. "
                  f"In the museum {stone} lies in the third room beside a label. "
                  f"Nobody has ever asked for {stone} since the museum was opened.")]
        for k, stone in enumerate(RARE, 1)
    ])  # fmt: skip
    _, offered = offered_of(read_document(path))
    assert len(offered) == 6
    assert all(any(stone in worth.question for stone in RARE) for worth in offered)
    assert all(worth.answer.quotes for worth in offered)


def test_what_it_tries_can_be_stopped(handbook):
    class Stop(Exception):
        pass

    def stop():
        raise Stop

    with pytest.raises(Stop):
        worth_asking(handbook, Digester(handbook), find_definitions(handbook), check=stop)


def test_titles_that_ask_are_offered_as_they_are(tmp_path):
    path = tmp_path / "asked.pdf"
    asked = {
        "Why does the rope wear out?": "The rope wears out since salt water eats hemp.",
        "How do I oil the lock?": "To oil the lock, take the lid off and use seal oil.",
        "Who keeps the key of the yard?": "The warden keeps the key of the yard in his house.",
    }
    things = ("way", "oil", "guard", "lid", "nail", "hook")
    alone = {
        "What went wrong?": "What went wrong in the spring was the lid of the well in the yard.",
        "What else is in the shed?": "What else is in the shed is a hook of brass from Hale.",
        "How are they kept in the shed?": "The ropes are kept in the shed on nails of brass.",
    }
    make_pdf(path, [
        [("h1", title), ("text", f"{text} Nobody has ever thought of a better {thing}. "
                                 f"What was tried before as a {thing} did not last for a winter.")]
        for thing, (title, text) in zip(things, (asked | alone).items(), strict=True)
    ])  # fmt: skip
    _, offered = offered_of(read_document(path))
    found = {worth.question for worth in offered if worth.shape == "asked"}
    assert len(found) >= 2
    assert found <= set(asked)


@pytest.mark.parametrize(("ending", "is_offered"), [(".", True), ("?", False)])
def test_what_a_question_would_answer_is_not_offered(of_handbook, ending, is_offered):
    worth = of_handbook[1][0]
    quote = replace(worth.answer.quotes[0], text=f"Who would know that{ending}")

    class Asked:
        def answer(self, *_):
            return replace(worth.answer, quotes=(quote,))

    candidates = iter([_Candidate(worth.question, frozenset([quote.locators[0].page]))])
    found = _next(Asked(), "part", candidates, {"part": 1}, [], lambda: None)
    assert (found is not None) == is_offered


def test_long_titles_that_ask_are_offered_though_a_sentence_answers(tmp_path):
    title = "How is a new rope of hemp kept dry in the winter when the shed has no roof?"
    make_pdf(tmp_path / "asked.pdf", [
        [("title", "Ropes"), ("text", "Ropes of hemp are wound by hand on drums of oak.")],
        [("h1", title), ("text", "A new rope of hemp is kept dry under a lid of zinc in winter.")],
        *([("h1", word), ("text", f"{word} comes in May. Nobody minds it. It is soft and stays.")]
          for word in ("Rain", "Hail", "Snow")),
    ])  # fmt: skip
    _, offered = offered_of(read_document(tmp_path / "asked.pdf"))
    assert title in {worth.question for worth in offered}


def test_a_title_that_asks_how_to_is_put_as_a_reader_would(tmp_path):
    path = tmp_path / "asked.pdf"
    asked = {
        "Why does the rope wear out?": "The rope wears out since salt water eats hemp.",
        "How to tar the rope?": "To tar the rope, hang it over the fire and use a brush.",
        "Who keeps the key of the yard?": "The warden keeps the key of the yard in his house.",
    }
    make_pdf(path, [
        [("h1", title), ("text", f"{text} Nobody has ever thought of a better {thing}. "
                                 f"What was tried before as a {thing} did not last for a winter.")]
        for thing, (title, text) in zip(("way", "oil", "guard"), asked.items(), strict=True)
    ])  # fmt: skip
    _, offered = offered_of(read_document(path))
    questions = {worth.question for worth in offered}
    assert "How do I tar the rope?" in questions
    assert "How to tar the rope?" not in questions


def test_sections_that_any_manual_has_are_not_asked_for(tmp_path):
    titles = ("Function Documentation", "GNU General Public License", "src/wells.h", "Lids of oak",
              "Well Struct Reference", "Other Options")  # fmt: skip
    said = (
        "The keeper of the yard counts each {} in May and writes it into the book of the mill.",
        "A {} that is older than nine years is carried to the smith of the next village.",
        "No {} is lent to a farm while the water of the river stands above the second mark.",
        "Where a {} is broken the steward sends for two others and pays for one of them.",
    )
    things = ("rope", "hook", "wheel", "lid", "chain", "bucket")
    pages = [
        [
            ("h1", title),
            *(("text", text.format(f"{thing} of the {title.lower()}")) for text in said),
        ]
        for title, thing in zip(titles, things, strict=True)
    ]
    make_pdf(tmp_path / "any.pdf", pages)
    document = read_document(tmp_path / "any.pdf")
    offered = worth_asking(document, Digester(document), find_definitions(document))
    parts = [worth.question for worth in offered if worth.shape == "part"]
    assert parts == ["What does the section on lids of oak say?"]


def test_a_title_that_is_no_noun_is_asked_for_as_it_is_printed(tmp_path):
    titles = ("Lids of oak", "Look at the rope", "Given wheels", "A drum of hemp", "GATES")
    pages = [
        [("h1", title), *(("text", f"The keeper of the {thing} counts {n} of them in {month} and "
                                   f"writes it into the book of the {thing}.")
                          for n, month in ((3, "May"), (5, "June"), (7, "July"), (9, "August")))]
        for title, thing in zip(titles, ("lid", "rope", "wheel", "drum", "gate"), strict=True)
    ]  # fmt: skip
    make_pdf(tmp_path / "any.pdf", pages)
    document = read_document(tmp_path / "any.pdf")
    offered = worth_asking(document, Digester(document), find_definitions(document))
    asked = {worth.question for worth in offered}
    assert "What does the section “Look at the rope” say?" in asked
    assert "What does the section “Given wheels” say?" in asked
    assert "What does the section “A drum of hemp” say?" in asked
    assert not any("section on look" in question for question in asked)
    assert not any("section on GATES" in question for question in asked)


def test_chapters_of_a_tale_are_asked_for_by_their_printed_titles(tmp_path):
    path = tmp_path / "tale.pdf"
    places = ["harbour", "tower", "mill", "market", "forest", "quarry", "island", "bridge"]
    pages = [
        [("h1", f"Chapter {n}. A Mad Supper at the {place.capitalize()}"), *(
            ("text", f"The keeper went to the {place} on the {day} day, and he told the widow that "
                     f"nobody had seen the boat of the miller near the {place} since the storm.")
            for day in ("first", "second", "third", "fourth", "fifth")
        )] for n, place in enumerate(places, 1)
    ]  # fmt: skip
    make_pdf(path, [[("title", "The Keeper: a Novel")], *pages])
    document = read_document(path)
    found = worth_asking(
        document, Digester(document), find_definitions(document), DocumentKind.NARRATIVE
    )
    assert found
    assert all("chapter “A Mad Supper at the" in worth.question for worth in found)
    assert all(worth.answer.quotes for worth in found)


def test_things_with_code_of_their_own_are_asked_an_example_of(tmp_path):
    said = (
        "The keeper of the yard counts each of the {} in May and writes them into the book.",
        "None of the {} is lent to a farm while the water stands above the second mark.",
        "Where one of the {} is broken the steward sends for two others and pays for one.",
        "The {} that are older than nine years are carried to the smith of the village.",
    )
    titles = {
        "Rope hooks": True,
        "Iron rings": False,
        "The wheel": True,
        "Lid care": True,
        "Rope instructions": True,
    }
    pages = [[("title", "The Mill Manual")]]
    for k, (title, has_code) in enumerate(titles.items(), 1):
        page = [("h1", f"{k} {title}"), *(("text", text.format(title.lower())) for text in said)]
        lead = ("text", f"For example, this is read for {title.lower()}:")
        pages.append([*page, lead, ("code", f"read {k}")] if has_code else page)
    make_pdf(tmp_path / "hooks.pdf", pages)
    _, offered = offered_of(read_document(tmp_path / "hooks.pdf"))
    examples = [worth.question for worth in offered if worth.shape == "example"]
    assert examples == ["Can you show me an example of rope hooks?"]


@pytest.mark.parametrize(
    "title",
    ["Table of Contents", "Inhaltsverzeichnis", "Contents", "References", "Important changes"],
)
def test_a_section_that_lists_the_others_is_not_asked_for(tmp_path, title):
    said = (
        "The keeper of the yard counts each of the {} in May and writes them into the book.",
        "None of the {} is lent to a farm while the water stands above the second mark.",
        "Where one of the {} is broken the steward sends for two others and pays for one.",
        "The {} that are older than nine years are carried to the smith of the village.",
    )
    pages, names = [[("title", "The Mill Manual")]], (title, "Rope hooks", "Iron rings")
    for name in names:
        things = name.lower() if name != title else "wheels"
        pages.append([("h1", name), *(("text", text.format(things)) for text in said)])
    bookmarks = [(name, 0, k) for k, name in enumerate(names, 1)]
    make_pdf(tmp_path / "hooks.pdf", pages, bookmarks=bookmarks)
    _, offered = offered_of(read_document(tmp_path / "hooks.pdf"))
    assert offered
    assert not [worth.question for worth in offered if title.lower() in worth.question.lower()]
