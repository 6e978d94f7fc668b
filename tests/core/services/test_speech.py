"""Sentences said: Speech Dispatcher's protocol against a stand-in, espeak-ng where it is there."""

import shutil
import socket
import stat
import threading
import time
import wave

import pytest

from tests.making import PATIENT
from tests.sounds import cues_in
from wide_margin.core.errors import ServiceError, WideMarginError
from wide_margin.core.export.sound import joined_sound
from wide_margin.core.jobs import Cancelled, CancelToken
from wide_margin.core.services.speech import Espeak, SpeechDispatcher, find_engine
from wide_margin.core.services.stand_in_speech import SpeechStandIn

needs_espeak = pytest.mark.skipif(not shutil.which("espeak-ng"), reason="not installed here")


def test_a_sentence_is_said_with_its_language_and_rate():
    with SpeechStandIn() as server:
        engine = SpeechDispatcher(server.address)
        engine.say("One.\n.hidden dot\nThree.", "de", 2.0, CancelToken())
        engine.say("Four.", "de", 1.0, CancelToken())
        engine.close()
        assert server.said == ["One.\n.hidden dot\nThree.", "Four."]
        assert "SET self LANGUAGE de" in server.settings
        assert "SET self RATE 50" in server.settings
        assert "SET self RATE 0" in server.settings


def test_it_returns_when_the_sentence_has_ended():
    with SpeechStandIn(seconds=0.3) as server:
        engine = SpeechDispatcher(server.address)
        start = time.monotonic()
        engine.say("One.", "en", 1.0, CancelToken())
        assert time.monotonic() - start >= 0.25
        engine.close()


@pytest.mark.parametrize("how", ["closes", "refuses"])
def test_what_goes_wrong_is_told_with_what_to_do(how):
    with SpeechStandIn(misbehave=how) as server:
        engine = SpeechDispatcher(server.address)
        with pytest.raises(ServiceError) as caught:
            engine.say("One.", "en", 1.0, CancelToken())
        engine.close()
        assert caught.value.hint


def test_a_server_of_another_kind_is_none():
    with SpeechStandIn(misbehave="rambles") as server, pytest.raises(ServiceError):
        SpeechDispatcher(server.address)


def test_one_that_never_ends_can_be_stopped():
    with SpeechStandIn(misbehave="silent") as server:
        engine, token = SpeechDispatcher(server.address), CancelToken()
        engine._socket.settimeout(1.5)
        threading.Timer(0.3, token.cancel).start()
        with pytest.raises(Cancelled):
            engine.say("One.", "en", 1.0, token)
        engine.close()


def test_one_that_hangs_up_in_the_middle_of_a_sentence_is_no_more_listened_to():
    with SpeechStandIn() as server:
        others = set(threading.enumerate())
        with socket.create_connection(server.address) as caller:
            caller.sendall(b"SPEAK\r\n")
            assert caller.recv(100).startswith(b"230")
            (listening,) = set(threading.enumerate()) - others
            caller.sendall(b"One and\r\n")
        listening.join(PATIENT)
        assert not listening.is_alive()
        assert server.said == []


def test_without_any_engine_what_to_install_is_told(tmp_path, monkeypatch):
    monkeypatch.setenv("PATH", str(tmp_path))
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(tmp_path))
    with pytest.raises(ServiceError) as caught:
        find_engine()
    assert "espeak-ng" in caught.value.hint
    with pytest.raises(ServiceError):
        Espeak("no-such-program").say("One.", "en", 1.0, CancelToken())


def test_the_dispatcher_goes_before_the_program(monkeypatch):
    with SpeechStandIn() as server:
        engine = find_engine(lambda: SpeechDispatcher(server.address))
        assert engine.name == "Speech Dispatcher"
        engine.close()


@pytest.fixture
def program(tmp_path):
    """A program in place of espeak-ng, which does as it is told."""

    def make(script):
        path = tmp_path / "espeak-ng"
        path.write_text(f"#!/bin/sh\n{script}\n")
        path.chmod(path.stat().st_mode | stat.S_IXUSR)
        return Espeak(str(path))

    return make


def test_the_program_gets_the_sentence_on_its_input_and_nothing_in_a_shell(program, tmp_path):
    engine = program(f'echo "$@" > {tmp_path}/asked; cat > {tmp_path}/said')
    engine.say("`touch x`; $(ls) — “so”", "en", 2.0, CancelToken())
    assert (tmp_path / "said").read_text() == "`touch x`; $(ls) — “so”"
    assert (tmp_path / "asked").read_text() == "-v en -s 350 --stdin\n"


def test_a_program_that_fails_is_told_and_one_that_hangs_is_stopped(program):
    with pytest.raises(ServiceError):
        program("exit 1").say("One.", "en", 1.0, CancelToken())
    token = CancelToken()
    threading.Timer(0.3, token.cancel).start()
    start = time.monotonic()
    with pytest.raises(Cancelled):
        program("exec sleep 600").say("One.", "en", 1.0, token)
    assert time.monotonic() - start < PATIENT


# --- sound files


def silence(path, seconds):
    with wave.open(str(path), "wb") as out:
        out.setnchannels(1)
        out.setsampwidth(2)
        out.setframerate(8000)
        out.writeframes(bytes(int(2 * 8000 * seconds)))
    return path


def test_sounds_are_joined_with_a_cue_for_each_section(tmp_path):
    parts = [(silence(tmp_path / f"{k}.wav", 0.5), title)
             for k, title in enumerate(["1 Wells", "", "2 Büchsen\x07"])]  # fmt: skip
    target = tmp_path / "all.wav"
    cues = joined_sound(parts, target, pause=0.5)
    assert cues_in(target) == [(0, "1 Wells"), (16000, "2 Büchsen")]
    assert [cue.frame for cue in cues] == [0, 16000]
    with wave.open(str(target)) as sound:
        assert sound.getnframes() == 24000
    assert target.read_bytes()[4:8] == (target.stat().st_size - 8).to_bytes(4, "little")


def test_nothing_to_join_and_a_folder_that_is_not_there_are_told(tmp_path):
    with pytest.raises(WideMarginError, match="nothing to say"):
        joined_sound([], tmp_path / "x.wav")
    one = silence(tmp_path / "0.wav", 0.1)
    with pytest.raises(WideMarginError, match="could not be written"):
        joined_sound([(one, "")], tmp_path / "no" / "x.wav")
    assert not (tmp_path / "x.wav").exists()


@needs_espeak
def test_the_real_program_writes_a_sound(tmp_path):
    Espeak().write("The rope is changed.", "en", tmp_path / "a.wav", CancelToken())
    joined_sound([(tmp_path / "a.wav", "Wells")], tmp_path / "b.wav")
    with wave.open(str(tmp_path / "b.wav")) as sound:
        assert sound.getnframes() / sound.getframerate() > 0.5
