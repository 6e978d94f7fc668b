"""The command line run in this process: as a command would, without loading everything anew."""

import io
import sys
from contextlib import redirect_stderr, redirect_stdout
from dataclasses import dataclass
from unittest import mock

from wide_margin import cli


@dataclass(frozen=True)
class Ended:
    """What a command left behind."""

    returncode: int
    stdout: str
    stderr: str


def run(*arguments: object) -> Ended:
    """Run ``wide-margin`` with some arguments, its input closed."""
    out, err, code = io.StringIO(), io.StringIO(), 0
    with (
        mock.patch.object(sys, "argv", ["wide-margin", *map(str, arguments)]),
        mock.patch.object(sys, "stdin", io.StringIO()),
        redirect_stdout(out),
        redirect_stderr(err),
    ):
        try:
            cli.main()
        except SystemExit as stop:
            code = stop.code if isinstance(stop.code, int) else int(stop.code is not None)
    return Ended(code, out.getvalue(), err.getvalue())
