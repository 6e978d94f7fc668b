"""Put Wide Margin into the desktop's menus for this user, or take it out again.

    python tools/install_desktop.py [--undo]

Files go under XDG_DATA_HOME (~/.local/share), as the XDG base directory, desktop entry, icon
theme and AppStream specifications say.
"""

import os
import shutil
import subprocess
import sys
from importlib import resources
from pathlib import Path

PLACES = {
    "wide-margin.desktop": "applications",
    "wide-margin.svg": "icons/hicolor/scalable/apps",
    "wide-margin.metainfo.xml": "metainfo",
}


def data_home() -> Path:
    """The user's data folder."""
    return Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share")


def install() -> list[Path]:
    """Copy the files; the entry starts the program that this environment has."""
    program = Path(sys.executable).parent / "wide-margin"
    made = []
    for name, place in PLACES.items():
        target = data_home() / place / name
        target.parent.mkdir(parents=True, exist_ok=True)
        text = (resources.files("wide_margin.data") / "desktop" / name).read_text("utf-8")
        target.write_text(text.replace("Exec=wide-margin", f'Exec="{program}"'), encoding="utf-8")
        made.append(target)
    return made


def undo() -> list[Path]:
    """Remove the files that install puts there."""
    gone = [data_home() / place / name for name, place in PLACES.items()]
    for path in gone:
        path.unlink(missing_ok=True)
    return gone


def main() -> None:
    """Install or undo, and let the desktop know."""
    paths = undo() if "--undo" in sys.argv[1:] else install()
    for path in paths:
        print(("removed " if "--undo" in sys.argv[1:] else "installed ") + str(path))
    if tool := shutil.which("update-desktop-database"):
        subprocess.run([tool, str(data_home() / "applications")], check=False)


if __name__ == "__main__":
    main()
