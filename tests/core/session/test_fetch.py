import contextlib
import http.server
import socket
import threading
import time

import pytest

from tests.making import PATIENT
from wide_margin.core.errors import UnreadableFileError
from wide_margin.core.jobs import Cancelled, CancelToken, no_progress
from wide_margin.core.session.fetch import fetch_pdf, is_address, place_for


@pytest.fixture
def serve():
    """Serve bytes at any path of a loopback server; gives its address."""
    servers = []

    def start(body, status=200, length=None):
        class Handler(http.server.BaseHTTPRequestHandler):
            def do_GET(self):
                self.send_response(status)
                self.send_header("Content-Length", str(length or len(body)))
                self.end_headers()
                self.wfile.write(body)

            def log_message(self, *_):
                pass

        server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), Handler)
        threading.Thread(target=server.serve_forever, kwargs={"poll_interval": 0.02}).start()
        servers.append(server)
        return f"http://127.0.0.1:{server.server_address[1]}/a%20book.pdf"

    yield start
    for server in servers:
        server.shutdown()
        server.server_close()


def test_a_pdf_is_fetched_with_progress(serve, small_pdf, tmp_path):
    told = []
    path = fetch_pdf(
        serve(small_pdf.read_bytes()),
        tmp_path / "in",
        CancelToken(),
        lambda a, b: told.append((a, b)),
    )
    assert path.name == "a book.pdf"
    assert path.read_bytes() == small_pdf.read_bytes()
    assert told[-1] == (len(small_pdf.read_bytes()),) * 2


def test_a_file_address_is_the_file(small_pdf, tmp_path):
    assert fetch_pdf(small_pdf.as_uri(), tmp_path, CancelToken(), no_progress) == small_pdf


@pytest.mark.parametrize(
    ("body", "status", "said"),
    [(b"<html>no</html>", 200, "is not a PDF"), (b"gone", 404, "error \\(404\\)")],
)
def test_anything_but_a_pdf_is_refused_and_leaves_nothing(serve, tmp_path, body, status, said):
    with pytest.raises(UnreadableFileError, match=said):
        fetch_pdf(serve(body, status), tmp_path / "in", CancelToken(), no_progress)
    assert [found for found in (tmp_path / "in").rglob("*") if found.is_file()] == []


def test_a_file_that_is_too_large_is_refused(serve, tmp_path):
    with pytest.raises(UnreadableFileError, match="larger than"):
        fetch_pdf(
            serve(b"%PDF-" + b"x" * 5000), tmp_path, CancelToken(), no_progress, max_bytes=1000
        )


def test_nobody_there_is_told(tmp_path):
    with pytest.raises(UnreadableFileError, match="cannot be reached"):
        fetch_pdf("http://127.0.0.1:9/a.pdf", tmp_path, CancelToken(), no_progress)


def test_fetching_can_be_cancelled(serve, small_pdf, tmp_path):
    token = CancelToken()
    token.cancel()
    with pytest.raises(Cancelled):
        fetch_pdf(serve(small_pdf.read_bytes()), tmp_path / "in", token, no_progress)
    assert not [found for found in (tmp_path / "in").rglob("*") if found.is_file()]


def test_two_addresses_of_one_name_have_places_of_their_own(serve, small_pdf, tmp_path):
    data = small_pdf.read_bytes()
    one, two = (fetch_pdf(serve(data), tmp_path, CancelToken(), no_progress) for _ in range(2))
    assert one.name == two.name
    assert one != two
    assert one.exists()


def test_a_length_too_large_is_refused_before_the_first_byte(serve, tmp_path):
    address = serve(b"%PDF-", length=10_000_000_000)
    with pytest.raises(UnreadableFileError, match="larger than 1000 MB"):
        fetch_pdf(address, tmp_path, CancelToken(), no_progress)


@pytest.mark.parametrize("drips", [False, True], ids=["silent", "dripping"])
def test_cancelling_ends_a_fetch_from_a_server_that_gives_nothing(drips, tmp_path):
    token, ended = CancelToken(), threading.Event()
    with listening(drips=drips) as (address, hung_up):

        def fetch():
            with contextlib.suppress(Cancelled):
                fetch_pdf(address, tmp_path, token, no_progress)
            ended.set()

        thread = threading.Thread(target=fetch)
        thread.start()
        time.sleep(0.3)
        token.cancel()
        assert ended.wait(10.0), "the fetch goes on after it was cancelled"
        assert hung_up.wait(PATIENT), "the connection is still open"
        thread.join()


@contextlib.contextmanager
def listening(*, drips):
    """A server that takes a request and says nothing, or a byte every tenth of a second."""
    server = socket.create_server(("127.0.0.1", 0))
    hung_up = threading.Event()

    def serve():
        connection, _ = server.accept()
        with connection:
            connection.recv(65536)
            if drips:
                connection.sendall(b"HTTP/1.1 200 OK\r\nContent-Length: 1000000\r\n\r\n%PDF-")
            connection.settimeout(0.1)
            while not hung_up.is_set():
                try:
                    if drips:
                        connection.sendall(b"x")
                    if not connection.recv(1):
                        hung_up.set()
                except TimeoutError:
                    continue
                except OSError:
                    hung_up.set()

    thread = threading.Thread(target=serve, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.getsockname()[1]}/a.pdf", hung_up
    hung_up.set()
    thread.join(2.0)
    server.close()


@pytest.mark.parametrize(
    "address", ["http://[bad", "http://ex ample/\x00", "http://" + "a" * 300, "https://",
                "http://127.0.0.1:99999/a.pdf", "http://127.0.0.1:9/" + "n" * 4000 + ".pdf"]
)  # fmt: skip
def test_what_is_no_address_is_told_in_one_sentence(address, tmp_path):
    assert is_address(address)
    with pytest.raises(UnreadableFileError) as told:
        fetch_pdf(address, tmp_path, CancelToken(), no_progress)
    assert "Traceback" not in told.value.message


def test_long_names_fit_the_file_system(tmp_path):
    place = place_for("http://example.org/" + "ä" * 500 + ".pdf", tmp_path)
    assert len(place.with_suffix(".part").name.encode()) < 200
    assert place.suffix == ".pdf"


def test_addresses_are_told_from_paths():
    assert is_address("https://example.org/a.pdf")
    assert is_address("file:///tmp/a.pdf")
    assert not is_address("/tmp/a.pdf")
    assert not is_address("a.pdf")
