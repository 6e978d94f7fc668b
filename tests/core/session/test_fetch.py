import http.server
import threading

import pytest

from wide_margin.core.errors import UnreadableFileError
from wide_margin.core.jobs import Cancelled, CancelToken, no_progress
from wide_margin.core.session.fetch import fetch_pdf, is_address


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
    assert list((tmp_path / "in").iterdir()) == []


def test_a_file_that_is_too_large_is_refused(serve, tmp_path):
    with pytest.raises(UnreadableFileError, match="larger than"):
        fetch_pdf(
            serve(b"%PDF-" + b"x" * 5000), tmp_path, CancelToken(), no_progress, max_bytes=1000
        )


def test_nobody_there_is_told(tmp_path):
    with pytest.raises(UnreadableFileError, match="did not answer"):
        fetch_pdf("http://127.0.0.1:9/a.pdf", tmp_path, CancelToken(), no_progress)


def test_fetching_can_be_cancelled(serve, small_pdf, tmp_path):
    token = CancelToken()
    token.cancel()
    with pytest.raises(Cancelled):
        fetch_pdf(serve(small_pdf.read_bytes()), tmp_path / "in", token, no_progress)
    assert not list((tmp_path / "in").glob("*"))


def test_addresses_are_told_from_paths():
    assert is_address("https://example.org/a.pdf")
    assert is_address("file:///tmp/a.pdf")
    assert not is_address("/tmp/a.pdf")
    assert not is_address("a.pdf")
