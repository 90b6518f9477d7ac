"""The window: a drawing that is drawn before one's eyes.

show_sheet(sheet, seconds=4)
"""

from __future__ import annotations

from ovlo.core.sheet.sheet import Sheet
from ovlo.live.player import TICK, Player
from ovlo.live.screen import BAR, Screen

LARGEST = 1280, 800
SMALLEST = 560, 400
"""Pixels of the window, across and down."""


def open_player(
    sheet: Sheet, seconds: float, at_once: bool, pointer: bool, call: str = "show", panel: int = 0
) -> Player:
    """A player in a window as large as the sheet, within limits."""
    size = (
        side * sheet._pixels_per_unit + more for side, more in ((sheet.width, 40), (sheet.height, BAR + 40))
    )
    width, height = (
        round(min(max(one, low), high)) for one, low, high in zip(size, SMALLEST, LARGEST, strict=True)
    )
    screen = Screen(call, sheet.title, min(width + panel, LARGEST[0]), height, panel)
    player = Player(screen, sheet, seconds, pointer)
    if at_once:
        player.at_once()
    return player


def show_sheet(sheet: Sheet, seconds: float, at_once: bool, wait: bool, pointer: bool) -> None:
    """Replay a sheet in a window, until it is closed, or while the program goes on."""
    player = open_player(sheet, seconds, at_once, pointer)
    screen = player.screen
    if wait:
        screen.every(TICK, player.tick)
    else:

        def look() -> None:
            player.follow()
            player.tick()

        screen.every(TICK, look)
    if not at_once:
        player.play()
    screen.show(wait)
