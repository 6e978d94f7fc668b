import os
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]


def test_the_demo_without_a_display_shows_every_step(tmp_path):
    """What ``make demo`` runs where there is no display, in a process of its own."""
    environment = {k: v for k, v in os.environ.items() if k not in ("DISPLAY", "WAYLAND_DISPLAY")}
    done = subprocess.run(
        [sys.executable, str(ROOT / "demo" / "run.py"), str(tmp_path)],
        capture_output=True, text=True, timeout=240, env=environment, check=False,
    )  # fmt: skip
    assert done.returncode == 0, done.stdout + done.stderr
    steps = [line.split(":")[0] for line in done.stdout.splitlines()]
    for step in ("open", "find the way", "check outline", "ask", "visit places", "decline",
                 "explain", "translate", "keep", "open again"):  # fmt: skip
        assert step in steps
    assert "FAILED" not in done.stdout
    assert len(list(tmp_path.glob("*.png"))) >= 10
