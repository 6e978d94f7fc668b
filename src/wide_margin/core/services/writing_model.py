"""A writing model behind an HTTP chat-completions service, streamed as server-sent events."""

import json
import time
from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING
from urllib.parse import urlsplit

from wide_margin.core.errors import ServiceError
from wide_margin.core.jobs import CancelToken

if TYPE_CHECKING:
    import httpx  # loaded when a model is first spoken to: reading a document does not need it

LONGEST_WAIT = 30.0
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
            ServiceError: The service cannot be reached, refuses, breaks off or is silent.
            Cancelled: The token was cancelled.
        """
        for pause in (*self.pauses, None):
            try:
                yield from self._stream_once(messages, token)
            except _BusyError as error:
                if pause is None:
                    raise ServiceError(str(error), hint=error.hint) from error
                _wait(max(pause, error.wait), token)
            else:
                return

    def _stream_once(self, messages: list[Message], token: CancelToken) -> Iterator[str]:
        import httpx

        headers = {"Authorization": f"Bearer {self.key}"} if self.key else {}
        request = {"model": self.name, "messages": messages, "stream": True, "temperature": 0}
        limits = httpx.Timeout(self.patience, connect=10.0)
        try:
            with (
                httpx.Client(timeout=limits, headers=headers, trust_env=False) as client,
                client.stream("POST", self._endpoint(), json=request) as response,
            ):
                if response.status_code != 200:
                    response.read()
                    raise _refusal(response)
                yield from _pieces(response, token)
        except httpx.TimeoutException as error:
            raise ServiceError(
                f"The writing model at {self.address} did not answer in time.",
                hint="Try again, or choose another model.",
            ) from error
        except (httpx.HTTPError, httpx.InvalidURL) as error:
            raise ServiceError(
                f"The writing model at {self.address} cannot be reached.",
                hint="Is the address right, and is the service running?",
            ) from error

    def _endpoint(self) -> str:
        return self.address.rstrip("/") + "/chat/completions"


class _BusyError(ServiceError):
    """Refused for the moment, before anything was written."""

    wait = 0.0


def _wait(seconds: float, token: CancelToken) -> None:
    until = time.monotonic() + min(seconds, LONGEST_WAIT)
    while time.monotonic() < until:
        token.check()
        time.sleep(min(0.05, max(until - time.monotonic(), 0.0)))


def list_models(address: str) -> list[str]:
    """The names of the models that a service lists.

    Raises:
        ServiceError: The service cannot be reached or lists none.
    """
    import httpx

    try:
        response = httpx.get(address.rstrip("/") + "/models", timeout=5.0, trust_env=False)
        names = [str(model["id"]) for model in response.json()["data"]]
    except (httpx.HTTPError, httpx.InvalidURL, ValueError, LookupError, TypeError) as error:
        raise ServiceError(
            f"There is no writing model at {address}.",
            hint="Give the base address of a chat-completions service, such as http://127.0.0.1:8080/v1.",
        ) from error
    if not names:
        raise ServiceError(f"The service at {address} lists no model.", hint="Start one there.")
    return names


def first_model(address: str) -> WritingModel:
    """The first model that a service lists.

    Raises:
        ServiceError: The service cannot be reached or lists none.
    """
    return WritingModel(address, list_models(address)[0])


def is_on_this_machine(address: str) -> bool:
    """Whether what is sent to an address stays on this machine."""
    return urlsplit(address).hostname in {"127.0.0.1", "localhost", "::1"}


def _pieces(response: "httpx.Response", token: CancelToken) -> Iterator[str]:
    """The text in a stream of server-sent events (HTML standard, 9.2)."""
    finished = False
    for line in response.iter_lines():
        token.check()
        if not line.startswith("data:"):
            continue
        data = line[5:].strip()
        if data == "[DONE]":
            finished = True
            break
        try:
            choice = json.loads(data)["choices"][0]
            piece = choice.get("delta", {}).get("content") or ""
            finished = finished or choice.get("finish_reason") is not None
        except (ValueError, LookupError, AttributeError, TypeError) as error:
            raise ServiceError(
                "The writing model sent something that is not an answer.", hint="Try again."
            ) from error
        if piece:
            yield piece
    if not finished:
        raise ServiceError("The writing model broke off before its end.", hint="Try again.")


def _refusal(response: "httpx.Response") -> ServiceError:
    reasons = {
        401: "does not accept the key", 403: "does not accept the key",
        404: "has no such model or address", 429: "is asked too often just now",
    }  # fmt: skip
    reason = reasons.get(response.status_code, f"answered with an error ({response.status_code})")
    text, hint = f"The writing model {reason}.", "Check its settings, or try later."
    if response.status_code != 429 and response.status_code < 500:
        return ServiceError(text, hint=hint)
    busy = _BusyError(text, hint=hint)
    asked = response.headers.get("Retry-After", "")
    busy.wait = float(asked) if asked.isdigit() else 0.0
    return busy
