import http.server
import json
import threading

import httpx
import pytest

from wide_margin.core.errors import ServiceError
from wide_margin.core.jobs import Cancelled, CancelToken
from wide_margin.core.services import WritingModel
from wide_margin.core.services.stand_in import StandIn, reply_to, translate_words
from wide_margin.core.services.writing_model import first_model
from wide_margin.core.translate import translate

ASKED = [{"role": "system", "content": "Translate into German."},
         {"role": "user", "content": "1. The water is high."}]  # fmt: skip


@pytest.fixture
def stand_in():
    with StandIn() as server:
        yield server


class Misbehaving(http.server.BaseHTTPRequestHandler):
    """Answers as its class says: a status, and a body."""

    status, body = 200, b""

    def do_POST(self):
        self.rfile.read(int(self.headers["Content-Length"]))
        self.send_response(self.status)
        self.end_headers()
        self.wfile.write(self.body)

    def log_message(self, *_):
        pass


@pytest.fixture
def server_that():
    """Start a server with a status and a body; gives its address."""
    servers = []

    def start(status=200, body=b""):
        handler = type("Handler", (Misbehaving,), {"status": status, "body": body})
        server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), handler)
        threading.Thread(target=server.serve_forever, kwargs={"poll_interval": 0.02}).start()
        servers.append(server)
        return f"http://127.0.0.1:{server.server_address[1]}/v1"

    yield start
    for server in servers:
        server.shutdown()
        server.server_close()


def answer_of(address):
    return "".join(WritingModel(address, "m", patience=5.0).stream(ASKED, CancelToken()))


def test_the_stand_in_says_that_it_is_one(stand_in):
    model = first_model(stand_in.address)
    assert "stand-in" in model.name
    assert model.is_stand_in


def test_the_stand_in_listens_on_this_machine_only(stand_in):
    assert stand_in.address.startswith("http://127.0.0.1:")


def test_an_answer_arrives_in_pieces(stand_in):
    pieces = list(WritingModel(stand_in.address, "any").stream(ASKED, CancelToken()))
    assert len(pieces) > 3
    assert "".join(pieces) == "1. Die Wasser ist hoch."


def test_the_stand_in_answers_unstreamed_requests_too(stand_in):
    response = httpx.post(stand_in.address + "/chat/completions", json={"messages": ASKED})
    assert response.json()["choices"][0]["message"]["content"] == "1. Die Wasser ist hoch."


def test_the_stand_in_refuses_what_is_no_request(stand_in):
    assert httpx.post(stand_in.address + "/chat/completions", content=b"{").status_code == 400
    assert httpx.get(stand_in.address + "/nothing").status_code == 404


def test_a_cancelled_answer_stops(stand_in):
    token = CancelToken()
    pieces = WritingModel(stand_in.address, "any").stream(ASKED, token)
    next(pieces)
    token.cancel()
    with pytest.raises(Cancelled):
        list(pieces)


@pytest.mark.parametrize(
    ("status", "said"),
    [(401, "does not accept the key"), (404, "no such model"), (429, "too often"), (500, "500")],
)
def test_a_refusal_is_told_in_words(server_that, status, said):
    with pytest.raises(ServiceError, match=said):
        answer_of(server_that(status))


def test_a_stream_that_breaks_off_is_an_error_and_no_answer(server_that):
    event = {"choices": [{"delta": {"content": "Half an"}, "finish_reason": None}]}
    address = server_that(body=b"data: " + json.dumps(event).encode() + b"\n\n")
    with pytest.raises(ServiceError, match="broke off"):
        answer_of(address)


def test_a_stream_of_something_else_is_told(server_that):
    with pytest.raises(ServiceError, match="not an answer"):
        answer_of(server_that(body=b"data: hello\n\n"))


def test_nobody_listening_is_told():
    with pytest.raises(ServiceError, match="cannot be reached"):
        answer_of("http://127.0.0.1:9/v1")
    with pytest.raises(ServiceError, match="no writing model"):
        first_model("http://127.0.0.1:9/v1")


@pytest.mark.parametrize(
    ("text", "target", "expected"),
    [
        ("The water is high.", "de", "Die Wasser ist hoch."),
        ("Not before 7 in the morning", "fr", "Pas avant 7 dans le matin"),
        ("The FORM at Hallan", "es", "El FORM en Hallan"),
    ],
)
def test_the_lexicon_translates_word_for_word(text, target, expected):
    assert translate_words(text, target) == expected


def test_the_stand_in_writes_the_same_every_time():
    messages = [(m["role"], m["content"]) for m in ASKED]
    assert reply_to(messages) == reply_to(messages)
    assert "stand-in" in reply_to([("user", "Tell me a story")])


# --- translation


def test_sentences_and_translations_are_paired(stand_in):
    told = []
    sentences = ["The water is high.", "It was 4.31 m.", "Read it."] * 6
    model = WritingModel(stand_in.address, "any")
    pairs = translate(sentences, "de", model, CancelToken(), lambda k, pair: told.append(k))
    assert [pair.source for pair in pairs] == sentences
    assert pairs[0].target == "Die Wasser ist hoch."
    assert told == list(range(18))


def test_numbers_that_a_translation_loses_are_told(server_that):
    event = {"choices": [{"delta": {"content": "1. Es war hoch."}, "finish_reason": "stop"}]}
    body = b"data: " + json.dumps(event).encode() + b"\n\ndata: [DONE]\n\n"
    model = WritingModel(server_that(body=body), "m")
    (pair,) = translate(["It was 4.31 m."], "de", model, CancelToken(), lambda *_: None)
    assert "4.31 is missing" in pair.doubts


def test_sentences_that_a_model_leaves_out_are_an_error(server_that):
    event = {"choices": [{"delta": {"content": "1. Eins."}, "finish_reason": "stop"}]}
    body = b"data: " + json.dumps(event).encode() + b"\n\ndata: [DONE]\n\n"
    model = WritingModel(server_that(body=body), "m")
    with pytest.raises(ServiceError, match="left out 1 of 2"):
        translate(["One.", "Two."], "de", model, CancelToken(), lambda *_: None)


# --- settings
