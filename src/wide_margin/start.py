"""Where the command begins: the process that workers come from loads while this one does."""

import gc
import sys
from collections.abc import Iterator
from contextlib import contextmanager, suppress

from wide_margin.core.errors import WideMarginError
from wide_margin.core.plain import plain

COMMANDS = frozenset([
    "open", "outline", "digest", "ask", "explain", "translate", "entries", "annotate", "stand-in",
    "recognise", "say", "talk",
])  # fmt: skip
READS_NOTHING = frozenset(["--help", "--version", "annotate", "entries", "say", "stand-in"])
"""First arguments after which no document is read."""


def main() -> None:
    """Entry point of ``wide-margin``."""
    # What is loaded stays; looking through all of it again and again takes a tenth of the time.
    gc.disable()
    arguments = sys.argv[1:]
    if not READS_NOTHING.intersection(arguments[:1]):
        from wide_margin.core.session.forking import FORK_SERVER

        with suppress(OSError):  # told when a worker is asked for
            FORK_SERVER.start()
    if not arguments or (len(arguments) == 1 and is_file(arguments[0])):
        # The window needs none of the commands, and they take as long to load as it does.
        with told_in_a_sentence():
            sys.exit(open_window(*arguments))
    from wide_margin.cli import main as run

    gc.freeze()
    gc.enable()
    run()


def is_file(argument: str) -> bool:
    """Whether a first argument is what to open, and no command or option."""
    return argument not in COMMANDS and not argument.startswith("-")


def open_window(file: str | None = None) -> int:
    """Open the window; what has been loaded for it stays. The exit code."""
    from wide_margin.desktop.app import run

    gc.freeze()
    gc.enable()
    return run(file)


@contextmanager
def told_in_a_sentence() -> Iterator[None]:
    """End with what went wrong, where it is an error of ours, in one sentence."""
    try:
        yield
    except WideMarginError as error:
        print(plain(f"{error.message} {error.hint}".strip()), file=sys.stderr)  # noqa: T201
        sys.exit(1)


if __name__ == "__main__":
    main()
