"""The window at work: frames a second of a long replay, and how soon a slider shows its picture.

Needs a screen; without one:  xvfb-run -a -s "-screen 0 1280x800x24 -dpi 96" python -m bench.watching
"""

from __future__ import annotations

import statistics
import tempfile
import time
from pathlib import Path

from ovlo import Sheet
from ovlo.live.player import TICK
from ovlo.live.session import Session
from ovlo.live.window import open_player
from ovlo.live.worker import Request

STEPS = 100_000
MOVES = 20

PROGRAM = """\
from typing import Annotated
from ovlo import Span, drawing

@drawing(width=640, height=480)
def tail(nib, turn: Annotated[int, Span(1, 170)] = 91):
    for i in range(1000):
        nib.forward(i / 5)
        nib.left(turn)
"""


def replay() -> str:
    """Replay 100,000 steps in four seconds."""
    sheet = Sheet(1280, 800)
    nib = sheet.new_nib()
    for i in range(STEPS):
        nib.forward(3 + i % 11 * 0.37)
        nib.left(i * i % 7919 * 0.017)
    player = open_player(sheet, 4, False, False)
    begins: list[float] = []
    taken: list[float] = []

    def tick() -> None:
        if not player.replay.is_playing:
            return
        begins.append(time.perf_counter())
        player.tick()
        taken.append(time.perf_counter() - begins[-1])
        if player.replay.is_over:
            player.screen.close()

    player.screen.every(TICK, tick)
    player.play()
    player.screen.show(wait=True)
    tenth = len(taken) // 10
    first, last = (statistics.mean(part) for part in (taken[:tenth], taken[-tenth - 1 : -1]))
    rate = (len(begins) - 1) / (begins[-1] - begins[0])
    return (
        f"replay of {STEPS:,} steps at 1280 × 800: {rate:.1f} frames a second (at least 24); a frame takes "
        f"{1000 * first:.1f} ms in the first tenth and {1000 * last:.1f} ms in the last, "
        f"{last / first:.2f} times as long (at most 1.5)"
    )


def slider() -> str:
    """Move a slider, and wait until its picture is in the window."""
    path = Path(tempfile.mkdtemp()) / "tail.py"
    path.write_text(PROGRAM)
    session = Session(Request(str(path), {}))
    taken: list[float] = []
    moved_at, value, old = 0.0, 100, session.player.sheet
    tick = session.tick

    def look() -> None:
        nonlocal moved_at, value, old
        tick()
        if session.controls is None or session.player.replay.length < 1000:
            return
        if session.player.sheet is not old and moved_at:
            taken.append(time.perf_counter() - moved_at)
        if session.player.sheet is not old or not moved_at:
            if len(taken) == MOVES:
                session.screen.close()
                return
            session.player.at_once()
            old, value = session.player.sheet, value + 1
            moved_at = time.perf_counter()
            session.controls.widgets["turn"].set_val(value)

    session.tick = look  # type: ignore[method-assign]
    session.run()
    return (
        f"from a slider's move to the picture of 1,000 steps: {1000 * statistics.median(taken):.0f} ms, "
        f"longest {1000 * max(taken):.0f} ms of {MOVES} (at most 150)"
    )


if __name__ == "__main__":
    print(replay())
    print(slider())
