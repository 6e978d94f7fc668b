"""Finding with a model's help: what it writes reorders excerpts, and never more than that."""

import json

import pytest

from wide_margin.core.answers import (
    Excerpt,
    Parts,
    answer_quoted,
    find_helped,
    vocabulary_of,
)
from wide_margin.core.answers.helped import Vocabulary, fused
from wide_margin.core.document import Locator
from wide_margin.core.errors import ServiceError
from wide_margin.core.jobs import Cancelled, CancelToken
from wide_margin.core.services import WritingModel
from wide_margin.core.services.stand_in import StandIn

QUESTION = "Who pays when a bucket is lost?"


def excerpt(text, page=0):
    return Excerpt(text, Locator(page, "", None, (), (), text), 1.0)


LOST = excerpt("The keeper pays for a lost bucket.", 4)
FOUND = [
    excerpt("Buckets are soaked for two days.", 1),
    excerpt("Iron buckets rust.", 2),
    excerpt("A fee is due in October.", 3),
]


class Writes:
    """A model that writes what it is told to, and remembers what it was asked."""

    def __init__(self, monkeypatch, *replies, vectors=None):
        self.asked, self.embedded, self._replies = [], [], list(replies)
        self._vectors = vectors

        def stream(_, messages, token):
            token.check()
            self.asked.append(json.loads(messages[-1]["content"]))
            reply = self._replies.pop(0)
            if isinstance(reply, Exception):
                raise reply
            yield from reply

        def embed(_, texts, token):
            self.embedded.append(texts)
            return self._vectors

        monkeypatch.setattr(WritingModel, "stream", stream)
        monkeypatch.setattr(WritingModel, "embed", embed)


ALL, NO_WORDS = Parts(), Vocabulary()


def helped(find=lambda wording: [], parts=ALL, vocabulary=NO_WORDS, excerpts=FOUND):
    return find_helped(
        QUESTION, excerpts, find, vocabulary, WritingModel("http://127.0.0.1:1/v1"), CancelToken(),
        parts,
    )  # fmt: skip


def test_what_the_other_wordings_find_joins_and_the_judged_come_first(monkeypatch):
    writes = Writes(monkeypatch, '["Replacing a lost bucket", "The cost of a bucket"]', "[4]")
    found = {"Replacing a lost bucket": [LOST], "The cost of a bucket": [FOUND[2], LOST]}
    result = helped(found.__getitem__, vocabulary=Vocabulary(("2 Buckets",), ("keeper",)))
    assert result.excerpts[0] == LOST or LOST in result.excerpts
    assert len(result.excerpts) == 4
    assert result.restated == tuple(found)
    assert result.n_judged == 1
    assert result.excerpts[0] == (fused([FOUND, *found.values()]))[3]
    assert writes.asked[0] == {"restate": QUESTION, "sections": ["2 Buckets"], "terms": ["keeper"]}
    assert [e["number"] for e in writes.asked[1]["excerpts"]] == [1, 2, 3, 4]


def test_reciprocal_ranks_favour_what_several_rankings_have():
    assert fused([[FOUND[0], LOST], [FOUND[1], LOST]])[0] == LOST
    assert fused([FOUND]) == FOUND
    assert fused([]) == []


def test_a_passage_stands_once_whichever_of_its_sentences_was_found():
    text = "A line is closed. The error is small. It is told."
    one, other = (
        Excerpt(text, Locator(4, "", (), (), quote), 1.0)
        for quote in ("A line is closed.", "The error is small.")
    )
    elsewhere = Excerpt(text, Locator(5, "", (), (), "A line is closed."), 1.0)
    assert fused([[FOUND[0], one], [other, elsewhere]]) == [one, FOUND[0], elsewhere]


def test_words_and_requests_are_counted(monkeypatch):
    Writes(monkeypatch, "[]", "[]")
    assert helped(parts=Parts(judges=False, embeds=False)).n_requests == 1
    result = helped(parts=Parts(restates=False, embeds=False))
    assert result.n_requests == 1
    assert result.n_words > sum(len(e.text.split()) for e in FOUND)


def test_nothing_is_sent_where_every_part_is_switched_off(monkeypatch):
    writes = Writes(monkeypatch)
    result = helped(parts=Parts(restates=False, embeds=False, judges=False))
    assert result.excerpts == tuple(FOUND)
    assert (result.n_requests, result.n_words) == (0, 0)
    assert not writes.asked
    assert not writes.embedded


@pytest.mark.parametrize(
    "reply",
    [
        "", "I cannot do that.", "[41]", "[0]", "[-1]", '["1"]', "[true]", "[1.5]",
        "{}", "[" * 3000, "null", ServiceError("It broke off."),
    ],
)  # fmt: skip
def test_a_judgement_that_makes_no_sense_changes_nothing(monkeypatch, reply):
    Writes(monkeypatch, reply)
    result = helped(parts=Parts(restates=False, embeds=False))
    assert result.excerpts == tuple(FOUND)
    assert result.n_judged == 0


@pytest.mark.parametrize(
    ("reply", "restated"),
    [
        (f'Here they are: ["A", "A", {json.dumps(QUESTION)}, "B\\nC"]', ("A", "B C")),
        ('["1", "2", "3", "4", "5"]', ("1", "2", "3")),
        ("[1, 2, null, {}]", ()),
        ("nothing of the kind", ()),
        (ServiceError("It is busy."), ()),
    ],
)
def test_wordings_are_few_short_and_differ(monkeypatch, reply, restated):
    Writes(monkeypatch, reply)
    assert helped(parts=Parts(judges=False, embeds=False)).restated == restated


def test_embeddings_join_the_ranking(monkeypatch):
    import numpy as np

    vectors = np.array([[1.0, 0.0], [0.0, 1.0], [0.1, 1.0], [1.0, 0.1]])
    writes = Writes(monkeypatch, vectors=vectors)
    result = helped(parts=Parts(restates=False, judges=False))
    assert result.excerpts[0] == FOUND[0]
    assert result.excerpts.index(FOUND[2]) < result.excerpts.index(FOUND[1])
    assert writes.embedded == [[QUESTION, *(e.text for e in FOUND)]]


@pytest.mark.parametrize("value", [0.0, float("nan"), float("inf")])
def test_embeddings_without_a_direction_are_left_out(monkeypatch, value):
    import numpy as np

    Writes(monkeypatch, vectors=np.full((4, 2), value))
    assert helped(parts=Parts(restates=False, judges=False)).excerpts == tuple(FOUND)


def test_cancelling_ends_it(monkeypatch):
    Writes(monkeypatch, "[]")
    token = CancelToken()
    token.cancel()
    with pytest.raises(Cancelled):
        find_helped(
            QUESTION,
            FOUND,
            lambda w: [],
            NO_WORDS,
            WritingModel("http://127.0.0.1:1/v1"),
            token,
        )


@pytest.mark.parametrize("misbehave", ["", "invents", "miscounts", "breaks", "busy", "refuses"])
def test_whatever_the_stand_in_does_only_excerpts_of_the_document_come_back(handbook, misbehave):
    question = "What does a keeper do when the line fails?"
    answer = answer_quoted(handbook, question)
    asked = []

    def find(wording):
        asked.append(wording)
        return answer_quoted(handbook, wording).excerpts

    with StandIn(misbehave=misbehave) as server:
        result = find_helped(
            question, answer.excerpts, find,
            vocabulary_of(handbook.outline, ("keeper", "staff"), answer.excerpts),
            WritingModel(server.address), CancelToken(),
        )  # fmt: skip
    known = [answer.excerpts, *(answer_quoted(handbook, wording).excerpts for wording in asked)]
    assert set(result.excerpts) <= {e for found in known for e in found}
    assert set(answer.excerpts) <= set(result.excerpts)
    assert answer_quoted(handbook, question) == answer  # what is quoted stays as it is
    if not misbehave:
        assert result.restated
        assert result.n_judged
        assert result.n_requests == 3


def test_titles_around_what_was_found_are_given_first(handbook):
    answer = answer_quoted(handbook, "How deep is the well of a gauge?")
    vocabulary = vocabulary_of(handbook.outline, ("gauge",) * 100, answer.excerpts)
    assert vocabulary.titles[0] == answer.excerpts[0].locator.path[0]
    assert len(vocabulary.titles) <= 60
    assert len(vocabulary.terms) == 40


def test_embeddings_of_the_stand_in_are_read():
    with StandIn() as server:
        vectors = WritingModel(server.address).embed(
            ["a well", "a bucket", "a well"], CancelToken()
        )
        assert vectors.shape == (3, 64)
        assert (vectors[0] == vectors[2]).all()
    with StandIn(misbehave="refuses") as server:
        assert WritingModel(server.address).embed(["a well"], CancelToken()) is None
    for misbehave in ("invents", "miscounts"):
        with StandIn(misbehave=misbehave) as server, pytest.raises(ServiceError):
            WritingModel(server.address).embed(["a well", "a bucket"], CancelToken())
