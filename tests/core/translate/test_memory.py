"""The memory of pairs and terms, glosses, and files of translations."""

import json
from xml.etree import ElementTree

import pytest

from wide_margin.core.errors import EntryStoreError, WideMarginError
from wide_margin.core.export.translations import (
    TranslationFormat,
    export_memory,
    export_pairs,
    read_memory,
)
from wide_margin.core.jobs import CancelToken
from wide_margin.core.services.dictionary import Dictionary
from wide_margin.core.services.stand_in_dictionary import DictionaryStandIn
from wide_margin.core.translate import Kept, Memory, Pair, TermRule, from_memory
from wide_margin.core.translate.glosses import database_for, gloss_words, rendering_of

HOUSE = Kept("The house is old.", "Das Haus ist alt.", "en", "de")


def test_a_kept_pair_is_used_again(tmp_path):
    memory = Memory(tmp_path / "m.sqlite")
    memory.keep([HOUSE])
    memory.close()
    again = Memory(tmp_path / "m.sqlite")
    (pair,) = from_memory([Pair("The  house is old.", "")], "de", again)
    assert (pair.target, pair.origin) == ("Das Haus ist alt.", "memory")
    assert from_memory([Pair("The house is old.", "")], "fr", again)[0].target == ""
    again.close()


def test_of_one_sentence_the_last_correction_counts():
    memory = Memory(None)
    memory.keep([HOUSE, HOUSE._replace(target="Das Gebäude ist alt.")])
    assert memory.exact(HOUSE.source, "de").target == "Das Gebäude ist alt."
    memory.forget(HOUSE.source, "de")
    assert memory.exact(HOUSE.source, "de") is None


def test_a_sentence_like_a_kept_one_is_told_with_the_difference():
    memory = Memory(None)
    memory.keep([HOUSE])
    near = memory.near("The house is new.", "de")
    assert near.likeness > 75
    assert near.difference == (("old.", "new."),)
    (pair,) = from_memory([Pair("The house is new.", "")], "de", memory)
    assert pair.target == ""
    assert "Das Haus ist alt." in pair.near
    assert memory.near("Nothing of the sort was ever said before.", "de") is None


def test_terms_belong_to_a_document_and_a_language():
    memory = Memory(None)
    memory.set_term("aa", "de", TermRule("gauge", "Pegel"))
    memory.set_term("aa", "de", TermRule("datum", ""))
    assert memory.terms("aa", "de") == (TermRule("datum", ""), TermRule("gauge", "Pegel"))
    assert memory.terms("bb", "de") == memory.terms("aa", "fr") == ()
    memory.drop_term("aa", "de", "gauge")
    assert memory.terms("aa", "de") == (TermRule("datum", ""),)


def test_a_file_that_is_no_memory_is_a_sentence(tmp_path):
    path = tmp_path / "m.sqlite"
    path.write_bytes(b"not a database at all, but long enough to be taken for one" * 40)
    with pytest.raises(EntryStoreError, match="memory"):
        Memory(path)
    assert path.read_bytes().startswith(b"not a database")


HOSTILE = [
    HOUSE, Kept("a < b & \"c\"", "<b>x</b> ]]> &amp;", "en", "de"),
    Kept("bell\x07 \u202eturned", "Glocke", "en", "de"), Kept("שלום", "hello", "he", "en"),
]  # fmt: skip


def test_a_memory_goes_out_and_in_as_tmx():
    text = export_memory(HOSTILE)
    root = ElementTree.fromstring(text.encode())
    assert root.tag == "tmx"
    assert root.get("version") == "1.4"
    assert len(root.findall("./body/tu")) == 4
    back = list(read_memory(text.encode()))
    assert back[0][:4] == HOUSE[:4]
    assert back[1].target == HOSTILE[1].target
    assert "\x07" not in back[2].source
    assert back[3][:4] == HOSTILE[3][:4]


@pytest.mark.parametrize(
    "data", [b"", b"<tmx", b"<html/>", b"\x00\x01", b"<?xml version='1.0'?><a/>"]
)
def test_what_is_no_tmx_is_a_sentence(data):
    with pytest.raises(WideMarginError, match="TMX"):
        list(read_memory(data))


def test_entities_of_a_file_are_not_followed(tmp_path):
    secret = tmp_path / "secret"
    secret.write_text("do not read me")
    data = (
        f'<!DOCTYPE tmx [<!ENTITY x SYSTEM "file://{secret}">]><tmx version="1.4"><body><tu>'
        '<tuv xml:lang="en"><seg>&x;a</seg></tuv><tuv xml:lang="de"><seg>b</seg></tuv></tu></body></tmx>'
    )
    assert all("read me" not in kept.source for kept in read_memory(data.encode()))


PAIRS = [
    Pair("One < two.", "Eins < zwei.", ("a number & more",)),
    Pair("Not yet.", ""), Pair("Three.", "Drei.", (), "corrected"),
]  # fmt: skip


def test_xliff_holds_every_pair_with_its_state():
    text = export_pairs(PAIRS, "en", "de", TranslationFormat.XLIFF, title="A & B")
    space = "{urn:oasis:names:tc:xliff:document:2.0}"
    root = ElementTree.fromstring(text.encode())
    assert (root.get("version"), root.get("srcLang"), root.get("trgLang")) == ("2.0", "en", "de")
    states = [s.get("state") for s in root.iter(f"{space}segment")]
    assert states == ["translated", "initial", "reviewed"]
    assert [s.text for s in root.iter(f"{space}source")] == [p.source for p in PAIRS]
    assert [n.text for n in root.iter(f"{space}note")] == ["a number & more"]


def test_html_is_escaped_and_says_its_direction():
    text = export_pairs(PAIRS, "en", "ar", TranslationFormat.HTML, title="<script>")
    assert "<script>" not in text
    assert "One &lt; two." in text
    assert 'lang="ar" dir="rtl"' in text


def test_plain_text_and_json_hold_the_pairs():
    assert "Three.\nDrei." in export_pairs(PAIRS, "en", "de", TranslationFormat.TEXT)
    values = json.loads(export_pairs(PAIRS, "en", "de", TranslationFormat.JSON))
    assert [p["origin"] for p in values["pairs"]] == ["model", "model", "corrected"]


def test_glosses_come_word_by_word_from_the_fitting_dictionary():
    with DictionaryStandIn() as server, Dictionary(server.address) as dictionary:
        name = database_for(dictionary, "en", "de")
        assert name == "stand-in-eng-deu"
        assert database_for(dictionary, "en", "ja") is None
        found = gloss_words(
            "The house and the xylophone", "en", name, dictionary, CancelToken(), {}
        )
        assert [(g.word, g.gloss) for g in found] == [("house", "Haus"), ("xylophone", "")]


@pytest.mark.parametrize(
    ("text", "rendering"),
    [("house /haʊs/\nHaus <neut>\n   \"build a house\" - bauen", "Haus"),
     ("gauge\n [Br.] Gradmesser <masc>, Zeichen <neut>", "Gradmesser"),
     ("word", "word"), ("x\n see: {y}", "")],
)  # fmt: skip
def test_a_rendering_is_taken_without_its_grammar(text, rendering):
    assert rendering_of(text) == rendering


def test_the_terms_of_a_document_are_replaced_as_a_whole():
    memory = Memory(None)
    memory.set_term("a", "de", TermRule("gauge", "Pegel"))
    memory.set_term("b", "de", TermRule("gauge", "Messer"))
    memory.set_terms("a", "de", [TermRule(" bench  mark ", "Festpunkt"), TermRule("datum", "")])
    assert memory.terms("a", "de") == (
        TermRule("bench mark", "Festpunkt"), TermRule("datum", ""),
    )  # fmt: skip
    assert memory.terms("b", "de") == (TermRule("gauge", "Messer"),)
    assert memory.terms("a", "fr") == ()
