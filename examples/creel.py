"""A basket for fish: willow rods woven over and under round upright stakes."""

from typing import Annotated

from ovlo import Span, drawing


@drawing(width=420, height=297, unit="mm", paper="#efe3cf")
def creel(nib, rows: Annotated[int, Span(6, 40)] = 21, stakes: Annotated[int, Span(8, 40)] = 23):
    """The rods behind a stake are drawn first, then the stake, then those before it."""
    rods = ["#8a5a2b", "#a9743b", "#6b4423", "#c29657", "#7d6b3d"]
    gap, rise = 380 / stakes, 250 / rows
    for column in range(stakes + 1):
        nib.travel_to(-190 + gap * column, -140)
        for ink, width in (("#3b2614", 6.4), ("#d8b67a", 5)):
            nib.ink, nib.line_width = ink, width
            nib.line_by(0, 280)
            nib.travel_by(0, -280)
    for row in range(rows):
        y = -125 + rise * (row + 0.5)
        rod = nib.dice.pick(rods)
        for over in (False, True):
            for ink, width in (("#2c1b0e", 0.86 * rise), (rod, 0.86 * rise - 1.4), ("#f1d9a8", 0.5)):
                nib.ink, nib.line_width = ink, width
                lift = 0.2 * rise if width < 1 else 0
                for column in range(-1, stakes + 2):
                    if (column + row) % 2 != over:
                        continue
                    nib.travel_to(-190 + gap * (column - 0.5), y + lift)
                    nib.line_cap = "butt"
                    bend = 11 if over else -11
                    nib.turn_to(bend)
                    arc = nib.arc_right if over else nib.arc_left
                    arc(gap / 2 / 0.190809, 22)
            if not over:
                for column in range(stakes + 1):
                    if (column + row) % 2 == 0:
                        nib.travel_to(-190 + gap * column, y - rise / 2)
                        for ink, width in (("#3b2614", 6.4), ("#d8b67a", 5)):
                            nib.ink, nib.line_width = ink, width
                            nib.line_by(0, rise)
                            nib.travel_by(0, -rise)


if __name__ == "__main__":
    creel.show()
