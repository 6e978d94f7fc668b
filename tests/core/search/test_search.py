from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wide_margin.core.layout import fold, tidy
from wide_margin.core.pages import OWN_LIGATURES
from wide_margin.core.search import (
    Analyser,
    find_all,
    guess_language,
    is_common,
    make_findable,
    rank,
    read_terms,
)
from wide_margin.core.search.analysis import find_words, language_asked, language_of, words
from wide_margin.core.search.find import folded_with_places
from wide_margin.core.search.ranking import sentence_scores


def best_text(document, question):
    ranked = rank(document.index, document.text, read_terms(question, document.index))
    return document.text.words_of(document.text.passages[ranked.passages[0]])


def test_tokens_keep_the_order_of_the_words(small):
    index = small.index
    row = next(k for k, s in enumerate(small.text.sentences) if s.text.startswith("The rope"))
    tokens = index.tokens[index.token_starts[row] : index.token_starts[row + 1]]
    written = [index.forms[t] for t in tokens]
    assert written[:6] == ["the", "rope", "is", "changed", "every", "eighteen"]


def test_counts_are_those_of_the_words(small):
    rope = small.index.term_ids[small.index.analyser.terms_of("ropes")[0]]
    rows, counts = small.index.by_sentence.of(rope)
    holding = [k for k, s in enumerate(small.text.sentences) if "rope" in s.text.lower()]
    assert rows.tolist() == holding
    assert small.index.by_passage.of(rope)[1].sum() == counts.sum()


@pytest.mark.parametrize(
    ("question", "words"),
    [
        ("When is the rope changed?", "eighteen months"),
        ("How many litres does a bucket hold?", "12 litres"),
        ("What colour is paint?", "painted red"),
    ],
)
def test_the_passage_with_the_words_comes_first(small, question, words):
    assert words in best_text(small, question)


def test_a_passage_with_the_rare_word_ranks_above_one_without(handbook):
    text = best_text(handbook, "paraffin in the well of a station")
    assert "paraffin" in text.lower()


def test_a_near_word_stands_for_the_one_asked(small):
    query = read_terms("cord", small.index)
    near = {small.index.forms[term] for term, _ in query.terms[0].variants}
    assert "rope" in near
    assert not query.terms[0].is_exact


def test_scope_never_leaks(handbook):
    allowed = np.array([p.page < 20 for p in handbook.text.passages])
    query = read_terms("glossary entry for the closing error", handbook.index)
    ranked = rank(handbook.index, handbook.text, query, allowed=allowed)
    assert len(ranked.passages)
    assert all(handbook.text.passages[row].page < 20 for row in ranked.passages)


def test_scores_fall_and_coverage_is_a_share(handbook):
    query = read_terms("how the zero is held in suspense", handbook.index)
    ranked = rank(handbook.index, handbook.text, query)
    assert (np.diff(ranked.scores) <= 0).all()
    assert (ranked.coverage >= 0).all()
    assert (ranked.coverage <= 1.001).all()


def test_sentence_scores_tell_which_words_are_held(small):
    query = read_terms("iron buckets", small.index)
    row = next(k for k, s in enumerate(small.text.sentences) if s.text == "Iron buckets rust.")
    scores, held = sentence_scores(small.index, query, np.array([row]))
    assert held[0].tolist() == [1.0, 1.0]
    assert scores[0] == pytest.approx(sum(term.weight for term in query.terms))


def test_a_question_of_small_words_alone_is_still_a_question(small):
    assert read_terms("what is it", small.index).terms


@pytest.mark.parametrize(
    ("a", "b"),
    [("wells", "well"), ("changed", "changing"), ("colour", "color"), ("organise", "organized"),
     ("initialiser", "initialisation"),
     ("unwind_protect", "unwind protect"), ("hand-made", "hand made")],
)  # fmt: skip
def test_forms_of_a_word_share_a_term(a, b):
    analyser = Analyser("en")
    assert set(analyser.terms(a)) & set(analyser.terms(b))


@pytest.mark.parametrize(
    ("text", "language"),
    [
        ("The keeper of the station is in the hut and reads it.", "en"),
        ("Der Wärter der Station ist in der Hütte und liest sie ab.", "de"),
        ("Le gardien de la station est dans la cabane et la relève.", "fr"),
        ("El guarda de la estación está en la caseta y la lee.", "es"),
        ("Stationens väktare är i stugan och läser av den när det inte är storm.", "sv"),
        ("Stationens vogter er i hytten og læser den af, når det ikke er storm.", "da"),
        ("Stasjonens vokter er i hytta og leser den av når det ikke er storm, slik han må.", "no"),
        ("Aseman vartija on mökissä ja lukee sen, kun se ei ole jäässä, mutta vain silloin.", "fi"),
        ("Az állomás őre a kunyhóban van, és leolvassa, ha nem fagyott be, vagy ha kell.", "hu"),
        ("Paznicul stației este în cabană și o citește când nu este furtună.", "ro"),
        ("İstasyonun bekçisi kulübede ve onu her gün okur, çünkü bu çok önemli.", "tr"),
        ("Strażnik stacji jest w chacie i odczytuje ją, gdy nie ma burzy, oraz co dzień.", "pl"),
        ("Strážce stanice je v chatě a odečítá ji, když není bouře, nebo také každý den.", "cs"),
        ("Хранитель станции находится в хижине и снимает показания, если нет бури.", "ru"),
        ("Хранитель станції є у хатині та знімає покази, якщо немає бурі.", "uk"),
        ("El guarda de l'estació és a la cabana i la llegeix quan no hi ha tempesta.", "ca"),
        ("Ο φύλακας του σταθμού είναι στην καλύβα και τη διαβάζει.", "el"),
        ("12 34 56", "en"),
        ("Let a, c, d, l, n, s, t be the ends; the length l = s + t, and n c = d.", "en"),
        ("\\usepackage{numbers} 数字的中文输出格式 \\begin{document}\\setcounter", "zh"),
    ],
)
def test_the_language_is_told_by_small_words(text, language):
    assert guess_language(text) == language


@pytest.mark.parametrize(
    ("question", "language"),
    [
        ("Qual é a versão estável?", "pt"),
        ("Wie viele Seile sind auf der Trommel?", "de"),
        ("How many ropes are on the drum?", "en"),
        ("What was the price in Rome?", "en"),
        ("Ropes?", "en"),
        ("Kolik lan potřebuji?", "cs"),
        ("Com ropes?", "en"),  # too short to tell
        ("Fan speed limits?", "en"),  # "fan" asks in Catalan
        ("Die size limits?", "en"),
        ("Quants cables hi ha?", "ca"),
    ],
)
def test_a_question_has_a_language_of_its_own(small, question, language):
    assert language_asked(question, "en") == language
    terms = {term.word for term in read_terms(question, small.index).terms}
    assert not {word for word in words(question) if is_common(word, language)} & terms


@pytest.mark.parametrize(
    ("word", "language"),
    [("kolik", "cs"), ("está", "es"), ("están", "es"), ("πόση", "el"), ("скільки", "uk"),
     ("montako", "fi"), ("hány", "hu"), ("câte", "ro"), ("kaç", "tr"), ("quantes", "ca"),
     ("depuis", "fr"), ("desde", "pt")],
)  # fmt: skip
def test_words_that_one_asks_with_are_no_topic(word, language):
    assert is_common(word, language)


def test_small_words_are_known_in_their_language():
    assert is_common("the")
    assert is_common("der", "de")
    assert not is_common("well")


@pytest.mark.parametrize(
    ("question", "language", "terms"),
    [("什么是水井", "zh", {"水井"}), ("水井とは何ですか", "ja", {"水井"})],
)
def test_what_asks_in_a_script_without_blanks_is_no_topic(question, language, terms):
    kept = {word for word in words(question) if not is_common(word, language)}
    assert terms <= kept
    assert not kept & {"什么", "么是", "とは", "は何", "です"}
    assert is_common("the", language)


def found(document, wanted):
    hits = find_all(make_findable(document.paragraphs), document.paragraphs, wanted)
    return [document.paragraphs[h.paragraph].text[h.start : h.end] for h in hits]


def test_find_ignores_case_and_tells_the_very_words(small):
    assert found(small, "BUCKET") == ["Bucket", "bucket", "bucket", "bucket", "bucket"]


def test_find_goes_across_line_ends(handbook):
    hits = found(handbook, "shall not exceed 4 mm for each kilometre")
    assert len(hits) == 1


def test_of_too_many_places_those_from_a_page_on_are_told_in_order(handbook):
    findable, paragraphs = make_findable(handbook.paragraphs), handbook.paragraphs
    every = find_all(findable, paragraphs, "the")
    assert len(every) > 500
    later = [hit for hit in every if paragraphs[hit.paragraph].page >= 100]
    assert len(later) > 40
    assert find_all(findable, paragraphs, "the", most=40, near=100) == later[:40]
    assert find_all(findable, paragraphs, "the", most=40) == every[:40]
    n = len(later) + 5  # what is left is taken from the beginning
    assert find_all(findable, paragraphs, "the", most=n, near=100) == [*every[:5], *later]
    assert find_all(findable, paragraphs, "the", most=len(every), near=100) == every


def test_find_of_nothing_finds_nothing(small):
    assert found(small, "   ") == []
    assert found(small, "xylophone") == []


@settings(max_examples=100)
@given(st.text(max_size=60))
def test_folding_remembers_where_each_character_came_from(text):
    folded, places = folded_with_places(text)
    assert len(folded) == len(places)
    assert all(a <= b for a, b in pairwise(places))
    assert all(0 <= place < len(text) for place in places)


def test_accents_and_ligatures_are_looked_through():
    assert folded_with_places("Caf\u00e9 of\ufb01ce")[0] == "cafe office"


@pytest.mark.parametrize(
    ("language", "one", "other"),
    [("ru", "станции", "станция"), ("sv", "stationerna", "stationen"), ("pl", "stacje", "stacja"),
     ("hu", "házak", "házat"), ("pt", "drivers", "driver"), ("it", "plugins", "plugin"),
     ("fr", "serveurs", "serveur"), ("fr", "servers", "server"), ("fr", "existe-t-il", "existe"),
     ("fr", "Peut-on", "peut"), ("ru", "routers", "router")],
)  # fmt: skip
def test_forms_of_a_word_share_a_term_in_other_languages(language, one, other):
    analyser = Analyser(language)
    assert analyser.language == language
    assert analyser.terms(one) == analyser.terms(other)


def test_a_language_without_a_stemmer_keeps_its_name():
    analyser = Analyser("ja")
    assert analyser.language == "ja"
    assert analyser.terms("wells") == Analyser("en").terms("wells")
    assert is_common("what", "ja")


@pytest.mark.parametrize(
    ("written", "asked"),
    [("Gosa² is a tool", "gosa"), ("H₂O is water", "h2o"), ("lids¹⁷ and wells", "lids"),
     ("R² is a share", "r²")],
)  # fmt: skip
def test_raised_marks_are_no_part_of_a_word_but_a_power_of_a_letter_is(written, asked):
    assert asked in list(words(written))
    assert asked in find_words(written.lower())


def test_the_language_is_that_of_most_pages():
    spanish = "El pozo está en el patio de la casa, y el agua que se saca de él es para todos."
    english = "You may copy the work under the terms of this licence, and of it only. " * 30
    table = "42 17 Haspel 9 en 13 Rolle 5 Kurbel 8 16 Seil 77 Eimer 3 Griff 4"
    assert language_of([spanish] * 4 + [english] * 3) == "es"
    assert language_of([table] * 20 + [english] * 3) == "en"
    assert language_of([spanish, table]) == "es"  # too few to be told page by page


@pytest.mark.parametrize(
    ("typed", "turns_on"),
    [("Which ropes are available?", ["ropes"]), ("What lids are supported?", ["lids"]),
     ("What is supported?", ["supported"]), ("Which keeper offered the ropes?",
      ["keeper", "offered", "ropes"])],
)  # fmt: skip
def test_which_things_there_are_turns_on_the_things(handbook, typed, turns_on):
    terms = read_terms(typed, handbook.index).terms
    assert [term.word for term in terms if not term.is_aside] == turns_on


@pytest.mark.parametrize("sign", sorted(OWN_LIGATURES))
def test_what_ligatures_without_a_sign_stand_for_is_found(sign):
    letters = OWN_LIGATURES[sign]
    text = f"a wri{sign}ng of so{sign}er"
    folded, places = folded_with_places(text)
    at = folded.index(f"wri{letters.lower()}ng")
    assert folded == fold(tidy(text))
    assert places[at] == 2
    assert places[at + len(f"wri{letters}ng") - 1] == text.index("g")
