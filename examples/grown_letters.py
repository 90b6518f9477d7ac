"""Words that grow: a stem along each stroke of the letters, with leaves by turns, buds and tendrils."""

from itertools import pairwise
from math import atan2, degrees, hypot

from ovlo import Sheet, Span, drawing

STEM, BUD = "#4a5a2c", "#c4523a"
LEAVES = "#6d8f45", "#94a95a", "#4f7a4a"


def strokes(words, size):
    """The strokes of the letters as rows of points: a line for each word, all about the middle."""
    sheet = Sheet(2000, 1000, unit="mm")
    nib, lines = sheet.new_nib(), words.split()
    for number, word in enumerate(lines):
        nib.travel_to(0, size * (1.05 * ((len(lines) - 1) / 2 - number) + 0.06))
        nib.text(word, size=size, font="stroke", align="middle", baseline="middle")
    return [contour.tolist() for path in sheet.paths() for contour in path.contours]


def along(points, step, first):
    """Places on a row of points, so far apart, with the heading there."""
    left = first
    for (x, y), (to_x, to_y) in pairwise(points):
        length, heading = hypot(to_x - x, to_y - y), degrees(atan2(to_y - y, to_x - x))
        while left <= length:
            yield x + (to_x - x) * left / length, y + (to_y - y) * left / length, heading
            left += step
        left -= length


def leaf(nib, radius, colour):
    """Two arcs from tip to tip, and the vein between them."""
    with nib.returning():
        with nib.area(colour):
            for _ in range(2):
                nib.arc_left(radius, 66)
                nib.left(114)
        nib.left(33)
        nib.forward(0.75 * radius)


def tendril(nib, radius, side):
    """A curl that winds up."""
    turn = nib.arc_left if side > 0 else nib.arc_right
    with nib.returning():
        for i in range(9):
            turn(radius * 0.8**i, 75)


@drawing(width=420, height=297, unit="mm", paper="#f4efdf")
def grown_letters(nib, words="Marrow Bay", size: Span(60, 114) = 112, spacing: Span(5, 14) = 7):
    """The name of the harbour, as a gardener would write it."""
    nib.ink = STEM
    for points in strokes(words, size):
        nib.line_width = 2
        nib.travel_to(points[0])
        nib.polyline(points[1:])
        nib.line_width = 0.35
        for number, (x, y, heading) in enumerate(along(points, spacing, spacing / 2)):
            side = 1 if number % 2 else -1
            nib.travel_to(x, y)
            nib.turn_to(heading + side * nib.dice.number(35, 60) - 33)
            leaf(nib, nib.dice.number(0.055, 0.1) * size, nib.dice.pick(LEAVES))
        (x, y), (before_x, before_y) = points[-1], points[-2]
        nib.travel_to(x, y)
        nib.turn_to(degrees(atan2(y - before_y, x - before_x)))
        nib.line_width = 0.6
        tendril(nib, 0.055 * size, nib.dice.pick((-1, 1)))
        nib.line_width = 0.35
        nib.circle(0.021 * size, fill=BUD)


if __name__ == "__main__":
    grown_letters.show()
