"""What ``make demo`` runs: the window on the handbook, or, without a display, a tour of it.

The tour leaves its pictures in the folder given, tour-pictures by default.
"""

import os
import sys
import tempfile
from importlib import resources
from pathlib import Path

from wide_margin.core.services.stand_in import StandIn

PICTURES = Path(__file__).resolve().parent.parent / "tour-pictures"


def main() -> int:
    """The exit code: 1 when a step of the tour does not show what it should."""
    with resources.as_file(resources.files("wide_margin.data") / "handbook.pdf") as handbook:
        if os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY"):
            from wide_margin.desktop.app import run

            with StandIn() as model:
                print("The stand-in for a writing model is connected; what it writes is simulated.")
                return run(handbook, model=model.address)
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
        print("There is no display: the same window, offscreen, is taken through a tour.")
        with tempfile.TemporaryDirectory() as home, StandIn() as model:
            for name in ("XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME", "XDG_STATE_HOME"):
                os.environ[name] = str(Path(home) / name)
            from tour import Tour

            pictures = Path(sys.argv[1]) if len(sys.argv) > 1 else PICTURES
            return Tour(handbook, model.address, pictures).go()


if __name__ == "__main__":
    sys.exit(main())
