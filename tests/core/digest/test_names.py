"""What a document says of the thing it is about: its names, and sentences that say what it is."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.by_kind import LONG
from wide_margin.core.digest.gist import score
from wide_margin.core.digest.sentences import (
    hangs,
    is_in_script,
    is_of_licence,
    says_something,
    stands_alone,
)
from wide_margin.core.digest.telling import naming, says_what_it_is, tells
from wide_margin.core.layout import word_count
from wide_margin.core.passages import Sentence

PLAIN = "Every reading is written down with its hour and the state of the tide on that day. "


def sentence(text, kind="body"):
    return Sentence(text=text, page=0, start=0, end=len(text), paragraph=0, section=-1, kind=kind)


def book(tmp_path, title, *sentences):
    """A book of forty pages of running text; the sentences stand in its introduction."""
    path = tmp_path / "book.pdf"
    first = [("title", title), ("h1", "1 Introduction")]
    first += [("text", one) for one in sentences] + [("text", PLAIN)]
    rest = [[("h1", f"{n} Readings"), ("text", PLAIN * 6)] for n in range(2, 8)]
    make_pdf(path, [first, *rest])
    return read_document(path)


def first_of(document):
    return Digester(document).answer("What is this about?", WHOLE, None).quotes[0].text


@pytest.mark.parametrize(
    ("title", "said"),
    [
        ("Quorble User Guide", "Quorble is a set of programs that read gauges along a coast."),
        ("Tidal Record Keeping System", "TRKS (the tidal system) is a set of programs for ports."),
        ("quorble guide", "quorble is a set of programs that read gauges along a coast."),
        ("Tide-Mk", "Tide-Mk is a tool that keeps the books of small and large harbours."),
        ("Tide 48 Reference Manual", "Tide 48 is a set of programs that read gauges at sea."),
        ("The Ship Clock Guide", "The Ship Clock is a set of programs for the clerks of a port."),
        ("QUORBLE-07P : READING GAUGES", "QUORBLE is a set of programs for reading gauges."),
        ("A guide for ports", "The Quorble package is a set of programs for reading gauges."),
    ],
)
def test_what_a_thing_is_comes_first(tmp_path, title, said):
    name = said.split(" is ")[0].split(" (")[0].removeprefix("The ").removesuffix(" package")
    used = [f"With {name} the keeper of a port writes down what he has read himself."] * 1
    used += [
        f"The clerk has {name} make the list of a {when}." for when in ("day", "month", "year")
    ]
    document = book(tmp_path, title, said, *used)
    assert name.lower() in score(document).names
    assert first_of(document) == said


def test_words_of_a_title_that_are_common_and_numbers_are_no_names(tmp_path):
    document = book(tmp_path, "We Read the Gauges of 1871", "In 1871 we read them.", "We did.")
    assert score(document).names == ()


IS_A = naming(("quorble",))


@pytest.mark.parametrize(
    "text",
    [
        "quorble is a library for reading gauges.",
        "the quorble library is one of the oldest.",
        "gnu quorble (version 2) is an editor of tables.",
        "quorble stands for nothing at all.",
        "quorble is the usual tool for reading gauges.",
        "this is a guide to the software package quorble for gauges.",
        "quorble-package is a library for reading gauges.",
        "to read them at sea, we developed the quorble (quick orb) package which reads gauges.",
        "in this work, we present quorble, a new package for gauges.",
        "quorble ist ein programm für pegel.",
        "quorble est une bibliothèque de fonctions.",
        "quorble es un programa para leer.",
        "quorble è una raccolta di programmi.",
        "quorble is een verzameling programma's.",
        "quorbleは、潮位を読むためのプログラムです。",
    ],
)
def test_what_it_is_is_told_in_many_languages(text):
    assert says_what_it_is(IS_A, text)


@pytest.mark.parametrize(
    "text",
    [
        "if quorble is a library, it can be linked.",
        "unlike quorble is a different matter.",
        "this quorble is an older one.",
        "quorble is an attempt to satisfy that request.",
        "quorble is read by the keeper.",
        "quorble is the first of three.",
        "the purpose of the lid of quorble is to keep gauges dry.",
        "this is a description of the lid of quorble for keepers.",
        "to read them at sea, we read quorble.",
        "a reading is a number that quorble prints.",
    ],
)
def test_what_only_looks_like_it_does_not(text):
    assert not says_what_it_is(IS_A, text)


@pytest.mark.parametrize(
    "text",
    [
        "questo documento cerca di descrivere la costruzione di un pacchetto.",
        "dit document geeft antwoorden op veel gestelde vragen.",
        "den här boken beskriver hur man läser en mätare.",
        "niniejszy podręcznik opisuje odczyty.",
        "этот документ описывает установку программы.",
        "この文書は潮位の読み方を説明します。",
        "本手册介绍如何读取潮位。",
        "이 문서는 조위를 읽는 방법을 설명한다.",
    ],
)
def test_a_purpose_is_told_in_many_languages(text):
    assert tells("purpose", text, is_front=True)


@pytest.mark.parametrize(
    "text",
    [
        "niniejszy dokument jest rozpowszechniany w nadziei, że będzie użyteczny.",
        "この文書は使用許諾書の条件の下で使用できます。",
        "이 문서는 유용하게 쓰이기를 바라는 마음으로 배포합니다.",
        "questo documento è distribuito sotto licenza libera.",
        "this document is licensed under the terms of its first page.",
    ],
)
def test_on_which_terms_it_is_given_is_no_purpose(text):
    assert not tells("purpose", text, is_front=True)


@pytest.mark.parametrize(
    "text",
    [
        "このマニュアルは潮位計の読み方を説明するためのものです。",
        "Łódź leży nad rzeką i ma od dawna swój wodowskaz.",
        "Η στάθμη γράφεται κάθε ώρα στο βιβλίο του λιμανιού.",
        "Questo manuale descrive la lettura dei livelli della marea.",
        "이 안내서는 조위를 읽는 방법을 처음부터 차례로 설명한다.",
    ],
)
def test_sentences_of_many_scripts_stand_alone(text):
    assert stands_alone(sentence(text))


@pytest.mark.parametrize(
    "text",
    [
        "さらに、この文書は公式なポリシーを明らかにするものではありません。",
        "そのため、毎時の値を書き留めておく必要があります。",
        "但是水位每小时都要记录在港口的册子里。",
        "这样做可以避免许多错误和重复的工作。",
    ],
)
def test_sentences_without_blanks_hang_too(text):
    assert hangs(text)


@pytest.mark.parametrize(
    "text",
    [
        "This book is for informational purposes only.",
        "The prices are subject to change without notice.",
        "Il est permis de copier et distribuer ce livre.",
        "Il est permis de produire et distribuer des copies de ce livre.",
        "Ohne jede Gewährleistung wird das Buch verteilt.",
        "Todos los derechos reservados.",
        "È permesso copiare questo libro.",
        "著作権表示とこの許可文がある限り，複製を作り，配布することを許可する．",
        "本手册不提供任何形式的担保。",
    ],
)
def test_the_wording_of_licences_is_known_in_other_languages(text):
    assert is_of_licence(text)


@pytest.mark.parametrize(
    "text",
    [
        "Il est permis de puiser à midi.",
        "The well is for drinking only.",
        "Ohne Seil geht nichts.",
        "井戸の使用は朝だけ許可される．",
        "水井的盖子每天都要检查。",
    ],
)
def test_what_else_is_allowed_is_no_licence(text):
    assert not is_of_licence(text)


@pytest.mark.parametrize(
    "text",
    ["He went home by boat.", "Read the gauge from above.", "The well isn’t deep.",
     "To oil the lock, take the lid off.",
     "The network began with one post.", "Wells dry up."],
)  # fmt: skip
def test_what_has_a_verb_says_something(text):
    assert says_something(text)


@pytest.mark.parametrize(
    "text",
    [
        "The Tide Office, Hallan, in March of the year of printing.",
        "A unit of height by name.",
    ],
)
def test_a_signature_says_nothing(text):
    assert not says_something(text)


def test_words_are_counted_where_no_blanks_stand_between_them():
    assert word_count("Every reading is written down.") == 5
    assert word_count("このマニュアルは潮位計の読み方を説明します。") == 1 + 20 // 2


def test_a_name_in_small_letters_may_begin_a_sentence():
    text = "quorble (say it as you like) is a set of programs for ports."
    assert not stands_alone(sentence(text))
    assert stands_alone(sentence(text), ("quorble",))


def test_another_script_is_told_by_its_letters():
    assert is_in_script("潮位は debian-edu-install で読みます。", "ja")
    assert not is_in_script("See man debian-edu-ltsp-install for the types.", "ja")
    assert is_in_script("Every reading is written down.", "en")


def test_the_gist_of_a_long_book_has_what_is_said_before_its_first_section(tmp_path):
    said = "Quorble is a set of programs that read gauges along a coast."
    path = tmp_path / "long.pdf"
    front = [("title", "Quorble Guide"), ("text", said)]
    chapters = [
        [("h1", f"{n} Gauges"), ("text", f"Gauge {n} is read by Quorble. " + PLAIN * 18)]
        for n in range(1, 130)
    ]
    make_pdf(path, [front, *chapters])
    document = read_document(path)
    assert len(document.text.sentences) > LONG
    assert said in [line.text for line in Digester(document).gist(n_words=60)]


def test_who_wrote_a_document_is_no_part_of_its_title(tmp_path):
    document = book(tmp_path, "Manual for version 1.9 Written by Ann Bale",
                    *[f"Quorble is shown the gauge of {n}." for n in range(6)])  # fmt: skip
    assert score(document).names == ("quorble",)


def test_what_a_thing_is_leads_the_gist_where_nothing_else_tells_of_it(tmp_path):
    said = "To spare them this, we developed the Quorble (quick orb) package which reads gauges."
    document = book(tmp_path, "Quorble User Guide", "Gauges were always read by hand at sea.",
                    f"Hands are cold at sea and slow. {said} Quorble is shown the gauge.",
                    *[f"The clerk shows gauge {n} to Quorble." for n in range(6)])  # fmt: skip
    assert Digester(document).gist()[0].text == said
