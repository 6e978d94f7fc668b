"""A writing model behind an HTTP chat-completions service, streamed as server-sent events."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING
from urllib.parse import urlsplit

from wide_margin.core.errors import ServiceError
from wide_margin.core.jobs import CancelToken
from wide_margin.core.later import loaded_later
from wide_margin.core.plain import FACT_LENGTH, one_line
from wide_margin.core.services.http import Exchange, Limits, TooLateError, UnreachableError

if TYPE_CHECKING:
    import numpy as np

    from wide_margin.core.geometry import FloatArray
else:
    np = loaded_later("numpy")


LONGEST_WAIT = 30.0
LONGEST_ANSWER = 900.0
"""Seconds for a whole answer, however slowly its pieces come."""
MAX_ANSWER, MAX_EVENT = 8_000_000, 200_000
"""Bytes of an answer and of one event of it: fifty times what the longest have."""
MAX_LIST, MAX_NAMES = 4_000_000, 2_000
MAX_EMBEDDINGS = 32_000_000
MAX_ERROR = 4_000
"""Bytes of an error's body that are looked at."""
Message = dict[str, str]
"""{"role": "system" or "user", "content": …}"""


@dataclass(frozen=True, slots=True)
class WritingModel:
    """Where a model is, and what it is called there."""

    address: str
    """Base address, such as http://127.0.0.1:8080/v1."""
    name: str = "default"
    key: str = ""
    patience: float = 60.0
    """Seconds to wait for the next piece of an answer."""
    pauses: tuple[float, ...] = (1.0, 3.0)
    """Seconds before each further try where the service is busy or fails for the moment."""

    @property
    def is_stand_in(self) -> bool:
        """Whether what it writes is simulated."""
        return "stand-in" in self.name

    def stream(self, messages: list[Message], token: CancelToken) -> Iterator[str]:
        """Pieces of the model's answer as they arrive.

        Raises:
            ServiceError: The service cannot be reached, refuses, breaks off, is silent, or does
                not come to an end.
            Cancelled: The token was cancelled; the connection is closed by then.
        """
        for pause in (*self.pauses, None):
            try:
                yield from self._stream_once(messages, token)
            except _BusyError as error:
                if pause is None:
                    raise ServiceError(error.message, hint=error.hint) from error
                _wait(max(pause, error.wait), token)
            else:
                return

    def _stream_once(self, messages: list[Message], token: CancelToken) -> Iterator[str]:
        request = {"model": self.name, "messages": messages, "stream": True, "temperature": 0}
        limits = Limits(silence=self.patience, whole=LONGEST_ANSWER, n_bytes=MAX_ANSWER,
                        n_bytes_event=MAX_EVENT)  # fmt: skip
        try:
            with Exchange(
                "POST", _endpoint(self.address, "chat/completions"), token,
                headers=_headers(self.key), json=request, limits=limits,
            ) as exchange:  # fmt: skip
                if exchange.status != 200:
                    raise _refusal(exchange)
                yield from _pieces(exchange.events())
        except TooLateError as error:
            raise ServiceError(
                f"The writing model at {self.address} did not answer in time.",
                hint="Try again, or choose another model.",
            ) from error
        except UnreachableError as error:
            raise ServiceError(
                f"The writing model at {self.address} cannot be reached.",
                hint="Is the address right, and is the service running?",
            ) from error

    def embed(self, texts: list[str], token: CancelToken) -> FloatArray | None:
        """Embeddings of some texts, where the service has them.

        Returns:
            (n, d); None where it has none.

        Raises:
            ServiceError: The service cannot be reached, or what it sends are no embeddings.
            Cancelled: The token was cancelled.
        """
        limits = Limits(silence=self.patience, whole=LONGEST_ANSWER, n_bytes=MAX_EMBEDDINGS)
        request = {"model": self.name, "input": texts}
        try:
            with Exchange(
                "POST", _endpoint(self.address, "embeddings"), token,
                headers=_headers(self.key), json=request, limits=limits,
            ) as exchange:  # fmt: skip
                if exchange.status != 200:
                    return None
                rows = sorted(json.loads(exchange.body())["data"], key=lambda row: row["index"])
            vectors = np.array([row["embedding"] for row in rows], dtype=float)
        except (ValueError, LookupError, TypeError, RecursionError) as error:
            raise ServiceError(f"What {self.address} sends are no embeddings.") from error
        if vectors.ndim != 2 or len(vectors) != len(texts):
            raise ServiceError(f"What {self.address} sends are no embeddings.")
        return vectors


class _BusyError(ServiceError):
    """Refused for the moment, before anything was written."""

    wait = 0.0
    """Seconds that the service asks for."""


def _wait(seconds: float, token: CancelToken) -> None:
    until = time.monotonic() + min(seconds, LONGEST_WAIT)
    while time.monotonic() < until:
        token.check()
        time.sleep(min(0.05, max(until - time.monotonic(), 0.0)))


def list_models(address: str, key: str = "", token: CancelToken | None = None) -> list[str]:
    """The names of the models that a service lists.

    Raises:
        ServiceError: The service cannot be reached, refuses or lists none.
        Cancelled: The token was cancelled.
    """
    limits = Limits(silence=5.0, whole=10.0, n_bytes=MAX_LIST)
    try:
        with Exchange(
            "GET", _endpoint(address, "models"), token or CancelToken(), headers=_headers(key),
            limits=limits,
        ) as exchange:  # fmt: skip
            if exchange.status != 200:
                raise _refusal(exchange)
            names = [str(model["id"]) for model in json.loads(exchange.body())["data"]]
    except (ValueError, LookupError, TypeError, RecursionError, UnreachableError) as error:
        raise ServiceError(
            f"There is no writing model at {address}.",
            hint="Give the base address of a chat-completions service, such as http://127.0.0.1:8080/v1.",
        ) from error
    names = [one_line(name, FACT_LENGTH) for name in names[:MAX_NAMES]]
    if not names:
        raise ServiceError(f"The service at {address} lists no model.", hint="Start one there.")
    return names


def first_model(address: str, key: str = "", token: CancelToken | None = None) -> WritingModel:
    """The first model that a service lists.

    Raises:
        ServiceError: The service cannot be reached, refuses or lists none.
    """
    return WritingModel(address, list_models(address, key, token)[0], key)


def is_on_this_machine(address: str) -> bool:
    """Whether what is sent to an address stays on this machine."""
    try:
        return urlsplit(address).hostname in {"127.0.0.1", "localhost", "::1"}
    except ValueError:  # not an address: nothing will be sent there
        return False


def _endpoint(address: str, name: str) -> str:
    return f"{address.rstrip('/')}/{name}"


def _headers(key: str) -> dict[str, str]:
    if not key:
        return {}
    if not key.isascii() or not key.isprintable():
        raise ServiceError(
            "The key of the writing model has signs that no key has.", hint="Copy it again."
        )
    return {"Authorization": f"Bearer {key}"}


def _pieces(events: Iterator[str]) -> Iterator[str]:
    """The text in a stream of chat completion chunks."""
    finished = False
    for data in events:
        if data.strip() == "[DONE]":
            finished = True
            break
        try:
            choice = json.loads(data)["choices"][0]
            piece = choice.get("delta", {}).get("content") or ""
            finished = finished or choice.get("finish_reason") is not None
        except (ValueError, LookupError, AttributeError, TypeError, RecursionError) as error:
            raise ServiceError(
                "The writing model sent something that is not an answer.", hint="Try again."
            ) from error
        if piece:
            yield str(piece)
    if not finished:
        raise ServiceError("The writing model broke off before its end.", hint="Try again.")


def _refusal(exchange: Exchange) -> ServiceError:
    """What the service says of why it does not answer, in its own words where it has any."""
    reasons = {
        401: "does not accept the key", 403: "does not accept the key",
        404: "has no such model or address", 429: "is asked too often just now",
    }  # fmt: skip
    reason = reasons.get(exchange.status, f"answered with an error ({exchange.status})")
    said = _own_words(exchange.body(MAX_ERROR))
    text = f"The writing model {reason}" + (f": “{said}”." if said else ".")
    hint = "Check its settings, or try later."
    if exchange.status != 429 and exchange.status < 500:
        return ServiceError(text, hint=hint)
    busy = _BusyError(text, hint=hint)
    asked = exchange.header("Retry-After")
    busy.wait = float(asked) if asked.isascii() and asked.isdigit() and len(asked) < 9 else 0.0
    return busy


def _own_words(body: bytes) -> str:
    """The message in an error's body: {"error": {"message": …}} or {"error": …}; "" without."""
    try:
        said = json.loads(body)["error"]
        said = said["message"] if isinstance(said, dict) else said
    except (ValueError, LookupError, TypeError, RecursionError):
        return ""
    return one_line(str(said), 200).rstrip(".")
