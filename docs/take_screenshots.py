"""Redraw the pictures in docs/screenshots from the examples."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]
SCREENSHOTS = ROOT / "docs" / "screenshots"
OVLO = Path(sys.executable).with_name("ovlo")

COMMANDS = {
    "first_kite": ["draw", "examples/first_kite.py", "--scale", "1.5"],
    "row_of_kites": ["draw", "examples/row_of_kites.py", "--scale", "1.5"],
}


def main() -> None:
    """Run each command."""
    for name, command in COMMANDS.items():
        picture = SCREENSHOTS / f"{name}.png"
        subprocess.run([OVLO, *command, "-o", picture], check=True, cwd=ROOT)


if __name__ == "__main__":
    main()
