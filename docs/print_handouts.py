"""Print each lesson of the built guide as a PDF: `make handouts`. Without the solutions."""

from __future__ import annotations

import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

BUILT = Path(__file__).parent / "_build"
HANDOUTS = BUILT / "handouts"
SWITCHES = "--headless=new --no-sandbox --disable-gpu --disable-background-networking --no-pdf-header-footer"


def main() -> None:
    """Print every lesson."""
    chromium = shutil.which("chromium")
    if chromium is None:
        sys.exit("chromium is not installed; print the lessons from any browser instead.")
    HANDOUTS.mkdir(exist_ok=True)
    for lesson in sorted(BUILT.glob("lessons/[1-9]*.html")):
        target = HANDOUTS / f"{lesson.stem}.pdf"
        with tempfile.TemporaryDirectory() as profile:
            private = [f"--user-data-dir={profile}", f"--print-to-pdf={target}"]
            command = [chromium, *SWITCHES.split(), *private, lesson.as_uri()]
            subprocess.run(command, check=True, capture_output=True)
        print(target)


if __name__ == "__main__":
    main()
