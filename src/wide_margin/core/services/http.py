"""One HTTP exchange that can be cancelled at any moment and takes no more than it was allowed.

httpx's own synchronous calls cannot be ended from outside while they wait for a silent server.
Here the exchange runs on an event loop in the calling thread; cancelling the token ends its task,
which closes the connection at once.
"""

from __future__ import annotations

from collections.abc import AsyncIterator, Callable, Coroutine, Iterator
from contextlib import AsyncExitStack, contextmanager
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, TypeVar

from wide_margin.core.errors import ServiceError
from wide_margin.core.jobs import Cancelled
from wide_margin.core.later import loaded_later

if TYPE_CHECKING:
    import asyncio

    import httpx

    from wide_margin.core.jobs import CancelToken
else:
    asyncio = loaded_later("asyncio")

CONNECT_SECONDS = 10.0
Result = TypeVar("Result")


class TooMuchError(ServiceError):
    """The server sends more than it may."""


class TooLateError(ServiceError):
    """The server takes longer than it may."""


class UnreachableError(ServiceError):
    """No connection, or it broke."""


@dataclass(frozen=True, slots=True)
class Limits:
    """What one exchange may take."""

    silence: float = 60.0
    """Seconds without a byte."""
    whole: float = 600.0
    """Seconds for all of it."""
    n_bytes: int = 16_000_000
    """Of the body."""
    n_bytes_event: int = 0
    """Between two empty lines: of one event of a stream; 0 where the body is no such stream."""


class Exchange:
    """A request under way; use it in a with statement.

        with Exchange("GET", address, token) as exchange:
            for piece in exchange.pieces():
                …

    Raises from every method:
        ServiceError: No answer, too late, too much, or not an address.
        Cancelled: The token was cancelled.
    """

    def __init__(
        self,
        method: str,
        address: str,
        token: CancelToken,
        *,
        limits: Limits | None = None,
        headers: dict[str, str] | None = None,
        json: object = None,
        follow_redirects: bool = False,
        trust_env: bool = False,
    ) -> None:
        """Nothing is sent before the with statement is entered."""
        self._method, self._address, self._token = method, address, token
        self.limits = limits or Limits()
        # What is packed can unpack to a thousand times its size: ask for it as it is.
        self._headers, self._json = {"Accept-Encoding": "identity", **(headers or {})}, json
        self._follow, self._trust_env = follow_redirects, trust_env
        self._loop = asyncio.new_event_loop()
        self._stack = AsyncExitStack()
        self._ends = 0.0

    def __enter__(self) -> Exchange:
        """Send the request and wait for the head of the response."""
        try:
            self._ends = self._loop.time() + self.limits.whole
            self.response = self._run(self._open)
        except BaseException:
            self._close()
            raise
        return self

    def __exit__(self, *_: object) -> None:
        """Close the connection."""
        self._close()

    @property
    def status(self) -> int:
        """Of the response."""
        return self.response.status_code

    def header(self, name: str) -> str:
        """Of the response, "" where it has none."""
        return str(self.response.headers.get(name, ""))

    @property
    def n_announced(self) -> int:
        """Bytes that the server says will come, 0 where it does not say."""
        said = self.header("Content-Length")
        return int(said) if said.isascii() and said.isdigit() and len(said) < 20 else 0

    def body(self, n_bytes: int | None = None) -> bytes:
        """The whole body, or at most so many bytes of it."""
        parts, n = [], 0
        for piece in self.pieces():
            parts.append(piece)
            n += len(piece)
            if n_bytes is not None and n >= n_bytes:
                break
        return b"".join(parts)[:n_bytes]

    def pieces(self) -> Iterator[bytes]:
        """The body as it arrives."""
        return self._each(self.response.aiter_bytes(65536))

    def events(self) -> Iterator[str]:
        """The data of a stream of server-sent events (HTML standard, 9.2)."""
        from httpx_sse import EventSource

        if not self.header("Content-Type").startswith("application/json"):
            # Services are careless about what they call it; the events tell.
            self.response.headers["Content-Type"] = "text/event-stream"
            for event in self._each(EventSource(self.response).aiter_sse()):
                yield event.data

    def _each(self, source: AsyncIterator[Any]) -> Iterator[Any]:
        end = object()

        async def following() -> Any:
            return await anext(source, end)

        while (item := self._run(following)) is not end:
            yield item

    async def _open(self) -> httpx.Response:
        import httpx

        limits = httpx.Timeout(self.limits.silence, connect=CONNECT_SECONDS)
        client = await self._stack.enter_async_context(
            httpx.AsyncClient(
                timeout=limits, headers=self._headers, trust_env=self._trust_env,
                follow_redirects=self._follow, max_redirects=8,
            )
        )  # fmt: skip
        request = client.build_request(self._method, self._address, json=self._json)
        response = await client.send(request, stream=True)
        self._stack.push_async_callback(response.aclose)
        if response.headers.get("Content-Encoding", "identity") != "identity":
            raise UnreachableError(
                f"{self._address} sends its answer packed, which was not asked for.",
                hint="Try another address.",
            )
        response.stream = _counted(response.stream, self.limits)
        return response

    def _run(self, work: Callable[[], Coroutine[Any, Any, Result]]) -> Result:
        """Run a step on the loop; cancelling the token cancels it."""
        import httpx

        async def within() -> Result:
            async with asyncio.timeout_at(self._ends):
                return await work()

        self._token.check()
        loop = self._loop
        task = loop.create_task(within())
        with self._token.waking(lambda: _wake(loop, task)), _told(self._address, httpx):
            try:
                return loop.run_until_complete(task)
            except asyncio.CancelledError:
                raise Cancelled from None

    def _close(self) -> None:
        loop = self._loop
        if loop.is_closed():
            return
        try:
            loop.run_until_complete(asyncio.wait_for(self._stack.aclose(), 0.5))
        except (Exception, asyncio.CancelledError):
            pass  # a connection that does not close in time goes with its loop
        finally:
            loop.run_until_complete(loop.shutdown_asyncgens())
            loop.close()


def _wake(loop: asyncio.AbstractEventLoop, task: asyncio.Task[Any]) -> None:
    if not loop.is_closed():
        loop.call_soon_threadsafe(task.cancel)


@contextmanager
def _told(address: str, httpx: Any) -> Iterator[None]:
    """Tell what went wrong in the reader's terms."""
    try:
        yield
    except (TimeoutError, httpx.TimeoutException) as error:
        raise TooLateError(
            f"{address} did not answer in time.", hint="Try again, or later."
        ) from error
    except (
        httpx.InvalidURL,
        httpx.UnsupportedProtocol,
        UnicodeError,
        ValueError,
        OverflowError,
    ) as error:
        raise ServiceError(
            f"“{address[:200]}” is not an address.", hint="It begins with http:// or https://."
        ) from error
    except (httpx.HTTPError, httpx.StreamError, OSError, RuntimeError, ExceptionGroup) as error:
        raise UnreachableError(
            f"{address} cannot be reached, or broke off.",
            hint="Check the address and the connection.",
        ) from error


def _counted(stream: Any, limits: Limits) -> Any:
    """The stream of a response that ends where it takes more than it may."""
    import httpx

    class Counted(httpx.AsyncByteStream):
        async def __aiter__(self) -> AsyncIterator[bytes]:
            n = since_gap = 0
            async for piece in stream:
                n += len(piece)
                gap = max(piece.rfind(b"\n\n"), piece.rfind(b"\r\n\r\n"), piece.rfind(b"\r\r"))
                since_gap = len(piece) - gap if gap >= 0 else since_gap + len(piece)
                if n > limits.n_bytes or 0 < limits.n_bytes_event < since_gap:
                    raise TooMuchError(
                        "The server sends more than an answer could be.", hint="Try another one."
                    )
                yield piece

        async def aclose(self) -> None:
            await stream.aclose()

    return Counted()
