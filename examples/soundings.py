"""A chart of the bay: lines of equal depth, hachures on the shore, soundings in fathoms, and a rose."""

from math import atan2, cos, degrees, hypot, radians, sin
from typing import Annotated

from ovlo import Span, drawing


def reach(heading, level):
    """How far the line of a level is from the middle of the island, in a direction."""
    a = radians(heading)
    coast = 52 + 16 * sin(2 * a + 1) + 9 * sin(3 * a) + 5 * cos(5 * a + 2)
    return coast + level * (8 + 4 * sin(a + 0.6) + 2 * cos(3 * a))


@drawing(width=420, height=297, unit="mm", paper="#f6efdd")
def soundings(nib, lines: Annotated[int, Span(3, 8)] = 8):
    """Each line is a step of depth farther out; every second one is dashed."""
    waters = ["#cfe3e2", "#d9e9e6", "#e3eee8"]
    for level in range(lines, -1, -1):
        fill = "#e7d3a1" if level == 0 else waters[level - 1] if level <= 3 else None
        nib.ink, nib.line_width = "#345a66", 1.1 if level == 0 else 0.35
        nib.line_dash = () if level % 2 == 0 else (3, 1.6)
        points = [
            (-40 + 1.35 * reach(h, level) * cos(radians(h)), 8 + reach(h, level) * sin(radians(h)))
            for h in range(360)
        ]
        nib.travel_to(points[0])
        if fill:
            with nib.area(fill):
                nib.polyline(points[1:])
                nib.line_to_start()
        else:
            nib.polyline([*points[1:], points[0]])
    nib.ink, nib.line_width, nib.line_dash = "#6b4f2a", 0.3, ()
    for h in range(0, 360, 2):
        r = 0.95 * reach(h, 0)
        nib.travel_to(-40 + 1.35 * r * cos(radians(h)), 8 + r * sin(radians(h)))
        nib.turn_to(h + 180)
        nib.forward(4.5 if h % 4 else 7)
    nib.ink, nib.line_width = "#345a66", 0.35
    for x, y in nib.dice.scattered(120, margin=14):
        dx, dy = (x + 40) / 1.35, y - 8
        depth = (hypot(dx, dy) - reach(degrees(atan2(dy, dx)), 0)) / 8
        if depth > 0.6 and hypot(x - 150, y - 92) > 52 and y > -120:
            nib.travel_to(x, y)
            nib.turn_to(0)
            nib.text(str(round(3 * depth)), size=5, font="stroke", align="middle", baseline="middle")
    nib.travel_to(150, 92)
    for radius in (38, 36, 22):
        nib.circle(radius)
    for number in range(32):
        nib.travel_to(150, 92)
        nib.turn_to(90 - 11.25 * number)
        nib.travel(22)
        nib.forward(16 if number % 4 == 0 else 9)
    for number in range(8):
        nib.travel_to(150, 92)
        nib.turn_to(90 - 45 * number)
        length = 33 if number % 2 == 0 else 19
        for side, fill in ((1, "#345a66"), (-1, "#f6efdd")):
            with nib.returning(), nib.area(fill):
                nib.forward(length)
                nib.left(180 - 9 * side)
                nib.forward(length - 7)
                nib.line_to_start()
    nib.travel_to(150, 136)
    nib.turn_to(0)
    nib.text("N", size=9, font="stroke", align="middle")
    nib.travel_to(-196, -132)
    nib.text("MARROW ISLAND and its waters, in fathoms", size=8, font="stroke")


if __name__ == "__main__":
    soundings.show()
