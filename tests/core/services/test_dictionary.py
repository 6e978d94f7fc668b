"""The DICT client against the stand-in, against servers that misbehave, and against a real one."""

import shutil
import socket
import subprocess
import tempfile
import time
from pathlib import Path

import pytest

from wide_margin.core.errors import ServiceError
from wide_margin.core.services.dictionary import Dictionary, is_this_machine, split_address
from wide_margin.core.services.stand_in_dictionary import DictionaryStandIn


def test_a_word_is_looked_up_in_every_dictionary():
    with DictionaryStandIn() as server, Dictionary(server.address) as dictionary:
        found = dictionary.define("house")
        assert {sense.database for sense in found} >= {"stand-in-eng-deu", "stand-in-eng-fra"}
        assert found[0].text.splitlines()[-1] == "Haus"
        assert "Stand-in" in found[0].title


def test_one_dictionary_can_be_chosen():
    with DictionaryStandIn() as server, Dictionary(server.address) as dictionary:
        (sense,) = dictionary.define("Haus", "stand-in-deu-eng")
        assert sense.text.splitlines()[-1] == "house"


def test_the_dictionaries_are_listed():
    with DictionaryStandIn() as server, Dictionary(server.address) as dictionary:
        names = [database.name for database in dictionary.databases()]
        assert "stand-in-eng-deu" in names
        assert len(names) == len(set(names)) == 12


@pytest.mark.parametrize("word", ["xylophone", "", '"', "a\r\nQUIT", "\\", "§" * 5000])
def test_what_no_dictionary_has_gives_nothing(word):
    with DictionaryStandIn() as server, Dictionary(server.address) as dictionary:
        assert dictionary.define(word) == ()
        assert dictionary.define("house")  # and the connection still works


@pytest.mark.parametrize("misbehave", ["silent", "closes", "rambles", "endless"])
def test_a_service_that_misbehaves_is_a_sentence_in_time(misbehave):
    with DictionaryStandIn(misbehave=misbehave) as server:
        start = time.monotonic()
        with pytest.raises(ServiceError, match="dictionary service"):
            Dictionary(server.address, timeout=0.6).define("house")
        assert time.monotonic() - start < 30


def test_a_service_that_is_not_there_is_a_sentence():
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        address = f"127.0.0.1:{free.getsockname()[1]}"
    with pytest.raises(ServiceError, match="does not answer"):
        Dictionary(address, timeout=0.5).define("house")


def test_a_connection_that_was_lost_is_opened_anew():
    with DictionaryStandIn() as server:
        dictionary = Dictionary(server.address)
        assert dictionary.define("house")
        dictionary.close()
        assert dictionary.define("house")
        dictionary.close()


@pytest.mark.parametrize(
    ("address", "expected"),
    [("dict.example", ("dict.example", 2628)), ("127.0.0.1:99", ("127.0.0.1", 99)),
     ("", ("127.0.0.1", 2628)), ("[::1]:2000", ("::1", 2000)), ("host:port", ("host:port", 2628))],
)  # fmt: skip
def test_addresses_are_read_with_and_without_a_port(address, expected):
    assert split_address(address) == expected


def test_only_the_loopback_interface_is_this_machine():
    assert is_this_machine("127.0.0.1:2628")
    assert is_this_machine("localhost")
    assert not is_this_machine("dict.example:2628")


DICTD = shutil.which("dictd") or shutil.which("dictd", path="/usr/sbin:/sbin")
INDEX = Path("/usr/share/dictd/wn.index")


@pytest.mark.skipif(not DICTD or not INDEX.exists(), reason="dictd and dict-wn are not installed")
def test_a_real_server_answers():
    with tempfile.TemporaryDirectory() as folder:
        Path(folder).chmod(0o777)  # the server gives up root's rights and still writes here
        _ask_a_real_server(Path(folder))


def _ask_a_real_server(tmp_path):
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    settings = tmp_path / "dictd.conf"
    settings.write_text(
        f"global {{\n listen_to 127.0.0.1\n port {port}\n}}\n"
        "database wn {\n data /usr/share/dictd/wn.dict.dz\n index /usr/share/dictd/wn.index\n}\n"
    )
    command = [DICTD, "-d", "nodetach", "-c", str(settings), "--pid-file", str(tmp_path / "pid")]
    server = subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    try:
        dictionary, found = Dictionary(f"127.0.0.1:{port}"), ()
        for _ in range(80):
            try:
                found = dictionary.define("gauge")
                break
            except ServiceError:
                time.sleep(0.1)
        assert "measuring instrument" in found[0].text
        assert [database.name for database in dictionary.databases()] == ["wn"]
        assert dictionary.define("zzzxq") == ()
        dictionary.close()
    finally:
        server.terminate()
        server.wait(10)
