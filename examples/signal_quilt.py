"""A quilt of signal flags: every pattern is one of eight, every flag has two of five colours."""

from typing import Annotated

from ovlo import Span, drawing

COLOURS = ["#f2e9dc", "#c8553d", "#28536b", "#f0b349", "#2f3e46"]


def patch(nib, size, name, one, other):
    """A flag, its middle on the nib."""
    nib.rectangle(size, size, fill=one)
    half = size / 2
    with nib.returning():
        if name == "cross":
            nib.rectangle(size, size / 4, fill=other, outline=False)
            nib.rectangle(size / 4, size, fill=other, outline=False)
        elif name == "saltire":
            for turn in (45, 135):
                nib.rectangle(1.16 * size, size / 5, turn=turn, fill=other, outline=False)
        elif name == "border":
            nib.rectangle(size / 2, size / 2, fill=other, outline=False)
        elif name == "halves":
            nib.travel(half / 2)
            nib.rectangle(half, size, fill=other, outline=False)
        elif name == "disc":
            nib.circle(size / 3.4, fill=other, outline=False)
        elif name == "corner":
            nib.travel(half)
            nib.left(90)
            with nib.area(other, outline=False):
                for distance, turn in ((half, 90), (size, 135), (size * 2**0.5, 135), (half, 0)):
                    nib.forward(distance)
                    nib.left(turn)
        elif name == "quarters":
            for _ in nib.full_turn(2):
                nib.rectangle(half, half, fill=other, outline=False, anchor="corner")
        else:
            nib.polygon(4, radius=0.47 * size, fill=other, outline=False)


@drawing(width=297, height=420, unit="mm", paper="#2f3e46")
def signal_quilt(nib, columns: Annotated[int, Span(3, 10)] = 6, seam: Annotated[float, Span(0, 6)] = 2.2):
    """Flags at random, in rows; a seam of the ground between them."""
    names = ["cross", "saltire", "border", "halves", "disc", "corner", "quarters", "lozenge"]
    size = 261 / columns
    rows = int(384 / size)
    nib.line_width = 0.3
    for row in range(rows):
        for column in range(columns):
            nib.travel_to(size * (column - (columns - 1) / 2), size * (row - (rows - 1) / 2))
            nib.turn_to(nib.dice.pick([0, 90, 180, 270]))
            one, other = nib.dice.shuffled(COLOURS)[:2]
            patch(nib, size - seam, nib.dice.pick(names), one, other)


if __name__ == "__main__":
    signal_quilt.show()
