"""Processes killed at random moments: the file of a picture is whole, old or new, and nothing else is left.

killed(7)    # "" or what is wrong
"""

from __future__ import annotations

import os
import random
import signal
import subprocess
import sys
import tempfile
import time
import xml.etree.ElementTree as ElementTree
from pathlib import Path

OVLO = Path(sys.executable).with_name("ovlo")

PROGRAM = """\
from ovlo import drawing

@drawing(width=400, height=300)
def kites(nib):
    for i in range(20_000):
        nib.forward(3 + i % 90)
        nib.left(91)
"""

LONGEST = 1.6
"""Seconds after which a process is killed at the latest; by then it is done."""


def killed(seed: int) -> str:
    """Draw over an older picture, kill that at a random moment, and say what is wrong then."""
    dice = random.Random(seed)
    ending = dice.choice((".svg", ".png", ".pdf"))
    with tempfile.TemporaryDirectory(prefix="kite-") as name:
        folder = Path(name)
        (folder / "kites.py").write_text(PROGRAM)
        target = folder / f"kites{ending}"
        target.write_bytes(b"old")
        running = subprocess.Popen(
            [OVLO, "draw", "kites.py", "-o", target.name],
            cwd=folder,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            start_new_session=True,
        )
        time.sleep(dice.uniform(0, LONGEST))
        os.killpg(running.pid, signal.SIGKILL)
        running.wait()
        content = target.read_bytes()
        if content != b"old" and not is_whole(content, ending):
            return f"{target.name} is torn ({len(content)} bytes)"
        # What is left of a killed process is taken away by the next one.
        subprocess.run(
            [OVLO, "draw", "kites.py", "-o", target.name], cwd=folder, capture_output=True, check=True
        )
        left = sorted(path.name for path in folder.iterdir() if path.name != "__pycache__")
        if left != sorted(["kites.py", target.name]) or not is_whole(target.read_bytes(), ending):
            return f"the folder holds {left}"
    return ""


def is_whole(content: bytes, ending: str) -> bool:
    """Whether a file of a picture is not torn."""
    if ending == ".svg":
        try:
            ElementTree.fromstring(content)
        except ElementTree.ParseError:
            return False
        return True
    end = b"IEND\xaeB`\x82" if ending == ".png" else b"%%EOF"
    return content.rstrip(b"\n").endswith(end)
