"""A stand-in for a writing model: a small server on this machine that really answers.

It speaks the same protocol as any chat-completions service and is spoken to the same way.
What it writes is simulated: translation word for word from a small lexicon, and answers composed
of sentences of the excerpts that it is sent, a few of their words exchanged. Its model name says
"stand-in".
"""

from __future__ import annotations

import json
import re
import threading
import time
from contextlib import suppress
from functools import cache
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from importlib import resources
from typing import Any

from wide_margin.core.later import regex
from wide_margin.core.search import guess_language

MODEL = "wide-margin-stand-in"
_LANGUAGE = regex(r"translate\b.*?\b(?:in)?to (English|German|French|Spanish|\w+)", re.I | re.S)
_CODES = {"english": "en", "german": "de", "french": "fr", "spanish": "es"}
_NUMBERED = regex(r"^\s*(\d+)\.\s+(.*)$")
_WORD = regex(r"[^\W\d_]+(?:['’][^\W\d_]+)*")
MAX_REQUEST = 4_000_000
SILENCE = 5.0
"""Seconds that a stand-in told to be silent waits before it answers after all."""


class StandIn:
    """The server, running in a thread of its own on the loopback interface."""

    def __init__(self, port: int = 0, *, delay: float = 0.0, misbehave: str = "") -> None:
        """Start serving.

        Args:
            port: 0 for a free one.
            delay: Seconds between pieces of an answer.
            misbehave: For tests: "invents" names excerpts that were not sent, "miscounts" changes
                numbers, "breaks" off, "busy" refuses twice and "refuses" always (429), "silent"
                never answers.
        """
        self.asked: list[list[tuple[str, str]]] = []
        """The messages of every request so far."""
        own = {"delay": delay, "misbehave": misbehave, "asked": self.asked}
        handler = type("Handler", (_Handler,), own)
        self._server = ThreadingHTTPServer(("127.0.0.1", port), handler)
        self._server.daemon_threads = True
        self._thread = threading.Thread(
            target=self._server.serve_forever, kwargs={"poll_interval": 0.1}, daemon=True
        )
        self._thread.start()

    def __enter__(self) -> StandIn:
        """For use in a with statement."""
        return self

    def __exit__(self, *_: object) -> None:
        """Stop."""
        self.close()

    @property
    def address(self) -> str:
        """Base address to give to a client."""
        return f"http://127.0.0.1:{self._server.server_address[1]}/v1"

    def wait(self) -> None:
        """Serve until interrupted."""
        self._thread.join()

    def close(self) -> None:
        """Stop serving."""
        self._server.shutdown()
        self._server.server_close()
        self._thread.join(timeout=2.0)


class _Handler(BaseHTTPRequestHandler):
    protocol_version = "HTTP/1.1"
    delay = 0.0
    misbehave = ""
    asked: list[list[tuple[str, str]]]

    def handle(self) -> None:
        """Serve a connection; one that the other side breaks off is no fault to be told."""
        with suppress(ConnectionError):
            super().handle()

    def do_GET(self) -> None:
        """List the one model."""
        if self.path.rstrip("/").endswith("/models"):
            self._json(200, {"object": "list", "data": [{"id": MODEL, "object": "model"}]})
        else:
            self._json(404, {"error": {"message": "no such address"}})

    def do_POST(self) -> None:
        """Answer a chat completion, streamed when asked to, or embed texts."""
        if self.path.rstrip("/").endswith("/embeddings"):
            self._embed()
            return
        if not self.path.rstrip("/").endswith("/chat/completions"):
            self._json(404, {"error": {"message": "no such address"}})
            return
        try:
            length = min(int(self.headers.get("Content-Length", "0")), MAX_REQUEST)
            request = json.loads(self.rfile.read(length))
            messages = [(m["role"], str(m["content"])) for m in request["messages"]]
        except (ValueError, LookupError, TypeError):
            self._json(400, {"error": {"message": "not a chat completion request"}})
            return
        self.asked.append(messages)
        if self.misbehave == "refuses" or (self.misbehave == "busy" and len(self.asked) < 3):
            self._json(429, {"error": {"message": "too many requests"}})
            return
        if self.misbehave == "silent":
            time.sleep(SILENCE)
        text = _spoiled(reply_to(messages), self.misbehave)
        if request.get("stream"):
            self._stream(text)
        else:
            message = {"role": "assistant", "content": text}
            choice = {"index": 0, "message": message, "finish_reason": "stop"}
            self._json(200, {"object": "chat.completion", "model": MODEL, "choices": [choice]})

    def _embed(self) -> None:
        try:
            length = min(int(self.headers.get("Content-Length", "0")), MAX_REQUEST)
            texts = [str(text) for text in json.loads(self.rfile.read(length))["input"]]
        except (ValueError, LookupError, TypeError):
            self._json(400, {"error": {"message": "not a request for embeddings"}})
            return
        if self.misbehave == "refuses":
            self._json(429, {"error": {"message": "too many requests"}})
            return
        vectors: list[Any] = [_simulated_embedding(text) for text in texts]
        if self.misbehave == "invents":
            vectors = [["far", "near"]] * len(vectors)
        if self.misbehave == "miscounts":
            vectors = vectors[1:]
        data = [{"index": k, "embedding": vector} for k, vector in enumerate(vectors)]
        self._json(200, {"object": "list", "model": MODEL, "data": data})

    def log_message(self, format: str, *args: Any) -> None:
        """Say nothing: what is sent here is the reader's."""

    def _json(self, status: int, value: dict[str, Any]) -> None:
        data = json.dumps(value).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)

    def _stream(self, text: str) -> None:
        self.send_response(200)
        self.send_header("Content-Type", "text/event-stream")
        self.send_header("Connection", "close")
        self.end_headers()
        self.close_connection = True
        try:
            for piece in re.findall(r"\S+\s*|\s+", text):
                if self.misbehave == "breaks" and piece.endswith("] "):
                    return
                self._event({"index": 0, "delta": {"content": piece}, "finish_reason": None})
                if self.delay:
                    time.sleep(self.delay)
            self._event({"index": 0, "delta": {}, "finish_reason": "stop"})
            self.wfile.write(b"data: [DONE]\n\n")
        except (BrokenPipeError, ConnectionResetError):
            pass  # the reader cancelled

    def _event(self, choice: dict[str, Any]) -> None:
        event = {"object": "chat.completion.chunk", "model": MODEL, "choices": [choice]}
        self.wfile.write(b"data: " + json.dumps(event, ensure_ascii=False).encode() + b"\n\n")
        self.wfile.flush()


def reply_to(messages: list[tuple[str, str]]) -> str:
    """What the stand-in writes: always the same for the same messages.

    Args:
        messages: (role, content) pairs.
    """
    instruction = " ".join(content for role, content in messages if role == "system")
    asked = next((content for role, content in reversed(messages) if role == "user"), "")
    language = _LANGUAGE.search(instruction) or _LANGUAGE.search(asked)
    if language is None and (help_given := _help_in_finding(asked)) is not None:
        return help_given
    if language is None:
        return _in_other_words(asked) or _composed(asked)
    target = _CODES.get(language[1].casefold())
    lines = []
    for line in asked.splitlines():
        match = _NUMBERED.match(line)
        number, text = (f"{match[1]}. ", match[2]) if match else ("", line)
        lines.append(number + (translate_words(text, target) if target else text))
    return "\n".join(lines)


_LISTS = regex(r"[A-Z]{2,}\b")
"""How a list of abbreviations begins."""
_CONDENSE = regex(r"(?:summari[sz]e|tell)\b", re.I)
_SAID_OTHERWISE = {
    "must": "has to", "changed": "replaced", "large": "big", "small": "little", "begin": "start",
    "begins": "starts", "about": "roughly", "often": "frequently", "kept": "held", "shall": "must",
    "therefore": "so", "every": "each", "people": "persons",
}  # fmt: skip


EMBEDDED = 64
"""Numbers of a simulated embedding."""


def _simulated_embedding(text: str) -> list[float]:
    """How often words of each of some classes stand in a text; the classes mean nothing."""
    vector = [0.0] * EMBEDDED
    for word in _WORD.findall(text.lower()):
        vector[sum(map(ord, word)) % EMBEDDED] += 1.0
    return vector


def _help_in_finding(asked: str) -> str | None:
    """What it writes where it is to restate or to judge; None where neither is asked of it."""
    try:
        data = json.loads(asked)
        if "restate" in data:
            wanted = set(_WORD.findall(str(data["restate"]).lower()))
            titles = [str(title) for title in data["sections"]]
            near = [t for t in titles if wanted & set(_WORD.findall(t.lower()))][:2]
            said = _reworded(str(data["restate"])).rstrip(".")
            return json.dumps([said, *(f"{said} {title}" for title in near)], ensure_ascii=False)
        if "judge" in data:
            wanted = set(_WORD.findall(str(data["judge"]).lower()))
            shared = {
                int(e["number"]): len(wanted & set(_WORD.findall(str(e["text"]).lower())))
                for e in data["excerpts"]
            }
            best = sorted(shared, key=lambda number: -shared[number])
            return json.dumps([number for number in best if shared[number] >= 3][:3])
    except (ValueError, LookupError, TypeError):
        return None
    return None


def _in_other_words(asked: str) -> str:
    """A passage word for word in other ones; "" where none is given."""
    try:
        passage = str(json.loads(asked)["passage"])
    except (ValueError, LookupError, TypeError):
        return ""
    return " ".join(_reworded(part.strip()) for part in re.split(r"(?<=[.!?])\s+", passage))


def _composed(asked: str) -> str:
    """One sentence from each of the first two excerpts that share words with it, reworded.

    What is to be condensed needs to share none.
    """
    try:
        data = json.loads(asked)
        wanted = set(_WORD.findall(data["question"].lower()))
        excerpts = [(int(e["number"]), str(e["text"])) for e in data["excerpts"]]
    except (ValueError, LookupError, TypeError):
        return "This is the stand-in for a writing model; it composes from excerpts and translates."
    chosen: dict[int, str] = {}
    for number, text in excerpts:  # best first
        sentences = [s for s in re.split(r"(?<=[.!?])\s+", text) if not _LISTS.match(s)] or [text]
        shared = [wanted & set(_WORD.findall(sentence.lower())) for sentence in sentences]
        most = max(map(len, shared))
        if most >= min(3, len(wanted)) and len(chosen) < 2:
            letters = [sum(map(len, words)) for words in shared]  # long words say more
            chosen[number] = sentences[letters.index(max(letters))].strip()
    if not chosen and _CONDENSE.match(data["question"]):
        chosen = {n: re.split(r"(?<=[.!?])\s+", text)[0].strip() for n, text in excerpts[:2]}
    if not chosen:
        return "NOT SAID"
    return " ".join(f"{_reworded(text)} [{number}]" for number, text in chosen.items())


def _reworded(sentence: str) -> str:
    def one(match: re.Match[str]) -> str:
        return _SAID_OTHERWISE.get(match.group(), match.group())

    text = _WORD.sub(one, sentence)
    text = text[:1].upper() + text[1:]
    return text if text.endswith((".", "!", "?")) else f"{text}."


def _spoiled(text: str, how: str) -> str:
    if how == "invents":
        return re.sub(r"\[\d+\]", "[41]", text)
    if how == "miscounts":
        return re.sub(r"(?<!\[)\b\d+", lambda match: str(int(match.group()) + 3), text)
    return text


def translate_words(text: str, target: str) -> str:
    """Word for word by the lexicon; unknown words, names and numbers stay as they are."""
    source = guess_language(text)
    if source not in _CODES.values():
        source = "en"
    table = _table(source, target)

    def one(match: re.Match[str]) -> str:
        word = match.group()
        if word[1:] != word[1:].lower():
            return word  # an abbreviation
        found = table.get(word.lower())
        if found is None:
            return word
        return found[0].upper() + found[1:] if word[0].isupper() else found

    return _WORD.sub(one, text)


@cache
def _table(source: str, target: str) -> dict[str, str]:
    path = resources.files("wide_margin.data").joinpath("stand-in-lexicon.tsv")
    head, *rows = (line.split("\t") for line in path.read_text(encoding="utf-8").splitlines())
    left, right = head.index(source), head.index(target)
    table: dict[str, str] = {}
    for row in rows:
        table.setdefault(row[left].lower(), row[right])
    return table
