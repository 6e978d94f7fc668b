"""Where the command begins: the process that workers come from loads while this one does."""

import gc
import sys
from contextlib import suppress

READS_NOTHING = frozenset(["--help", "--version", "annotate", "entries", "say", "stand-in"])
"""First arguments after which no document is read."""


def main() -> None:
    """Entry point of ``wide-margin``."""
    # What is loaded stays; looking through all of it again and again takes a tenth of the time.
    gc.disable()
    if not READS_NOTHING.intersection(sys.argv[1:2]):
        from wide_margin.core.session.forking import FORK_SERVER

        with suppress(OSError):  # told when a worker is asked for
            FORK_SERVER.start()
    from wide_margin.cli import main as run

    gc.freeze()
    gc.enable()
    run()


if __name__ == "__main__":
    main()
