"""Pictures of the window, taken on a virtual display: xvfb-run python docs/take_window_shots.py FOLDER."""

from __future__ import annotations

import sys
import time
from collections.abc import Callable
from pathlib import Path

import matplotlib
import numpy as np
from PIL import Image

from ovlo.live.player import TICK
from ovlo.live.screen import Screen
from ovlo.live.session import Session
from ovlo.live.window import open_player
from ovlo.live.worker import Request
from ovlo.program.loading import load
from ovlo.program.running import run_program

EXAMPLES = Path(__file__).parents[1] / "examples"
PATIENCE = 60


def main(folder: Path) -> None:
    """A replay in progress, and a live session."""
    matplotlib.use("TkAgg")
    sheet = run_program(load(str(EXAMPLES / "harbour.py")), seed=4, traced=True).sheet
    assert sheet is not None
    player = open_player(sheet, 4, at_once=False, pointer=False)
    player.screen.show(wait=False)
    player.seek(1180)
    wait(player.screen, lambda: True)
    take(player.screen, folder / "window.png")

    session = Session(Request(str(EXAMPLES / "kite_family.py"), {"sides": "5"}))
    session.screen.every(TICK, session.tick)
    session.screen.show(wait=False)
    wait(session.screen, lambda: session.controls is not None and session.player.replay.is_over)
    take(session.screen, folder / "live.png")
    session._worker.close()


def wait(screen: Screen, is_so: Callable[[], bool]) -> None:
    """Let a window live until something is so."""
    end = time.monotonic() + PATIENCE
    while not is_so():
        screen.canvas.get_tk_widget().update()
        assert time.monotonic() < end, "the window did not get there"
    screen.canvas.get_tk_widget().update()


def take(screen: Screen, path: Path) -> None:
    """What is in a window, which is then closed."""
    Image.fromarray(np.asarray(screen.canvas.buffer_rgba())).convert("RGB").save(path)
    screen.close()


if __name__ == "__main__":
    main(Path(sys.argv[1]))
