"""The command begins with the process that workers come from, where a document is read."""

import subprocess
import sys

import pytest

from wide_margin.start import COMMANDS, READS_NOTHING

TOLD = """
import gc
from unittest import mock
from wide_margin import start
from wide_margin.core.session.forking import FORK_SERVER
with mock.patch.object(FORK_SERVER, "_connected") as connected:
    import wide_margin.cli
    wide_margin.cli.main = lambda: print(connected.called, gc.isenabled())
    start.open_window = lambda *file: print(connected.called, True)
    start.main()
"""


def test_what_reads_nothing_is_a_command_or_an_option():
    assert {word for word in READS_NOTHING if not word.startswith("-")} < COMMANDS


@pytest.mark.parametrize(
    ("arguments", "is_started"),
    [(["outline", "a.pdf"], True), (["a.pdf"], True), ([], True),
     (["entries", "a.pdf"], False), (["--version"], False)],
)  # fmt: skip
def test_workers_are_made_ready_where_a_document_is_read(arguments, is_started):
    command = [sys.executable, "-c", TOLD, *arguments]
    done = subprocess.run(command, capture_output=True, text=True, check=True)
    assert done.stdout.split() == [str(is_started), "True"]


def test_the_command_runs_as_it_is_installed(small_pdf):
    command = [sys.executable, "-m", "wide_margin.start", "outline", str(small_pdf)]
    done = subprocess.run(command, capture_output=True, text=True, check=True)
    assert done.stdout.splitlines()[0] == "1 Wells  1"


def test_the_window_loads_neither_pdfium_nor_what_only_some_work_needs_nor_sources():
    code = (
        "import linecache, sys\n"
        "import wide_margin.desktop.app\n"
        "print(*{name.partition('.')[0] for name in sys.modules})\n"
        "print(sum('wide_margin' in name for name in linecache.cache))\n"
    )
    done = subprocess.run(
        [sys.executable, "-c", code], capture_output=True, text=True, check=True
    )  # fmt: skip
    loaded, n_sources = done.stdout.splitlines()
    waiting = {"pypdfium2", "httpx", "docx", "numpy", "typer", "rapidfuzz", "tomlkit"}
    assert "msgspec" in loaded.split()
    assert not waiting & set(loaded.split())
    assert n_sources == "0"


@pytest.mark.parametrize(("command", "module"), [("say", "cli_say"), ("outline", ""), ("", "")])
def test_a_command_loads_its_own_module_alone(command, module):
    code = (
        "import sys\nfrom wide_margin import cli\n"
        "try: cli.main()\nexcept SystemExit: pass\n"
        "print('wide_margin:', *sorted(m for m in sys.modules if m.startswith('wide_margin.cli_')))"
    )
    arguments = [command, "--help"] if command else ["--help"]
    done = subprocess.run(
        [sys.executable, "-c", code, *arguments], capture_output=True, text=True, check=True
    )  # fmt: skip
    said, _, loaded = done.stdout.rpartition("wide_margin:")
    n = 5 if not command else int(bool(module))
    assert len(loaded.split()) == n
    assert f"wide_margin.{module}" in loaded or not module
    assert all(f"\n  {name} " in said for name in COMMANDS) == (not command)
