"""A gull's wing: rows of feathers that lie on one another like tiles on a roof."""

from typing import Annotated

from ovlo import Span, drawing, ramp


def feather(nib, length, fill, edge):
    """A feather that hangs from the nib along its heading."""
    nib.ink, nib.line_width = edge, 0.5
    with nib.returning():
        nib.right(42)
        with nib.area(fill):
            nib.arc_left(0.745 * length, 84)
            nib.left(96)
            nib.arc_left(0.745 * length, 84)
    nib.line_width = 0.25
    for side in (1, -1):
        with nib.returning():
            for i in range(14):
                nib.travel(length / 16)
                with nib.returning():
                    nib.right(side * 32)
                    nib.forward(0.3 * length * (1 - ((i - 6) / 9.5) ** 2))
    nib.line_width = 0.7
    with nib.returning():
        nib.forward(0.96 * length)


@drawing(width=420, height=297, unit="mm", paper="#faf3e7")
def feathers(nib, rows: Annotated[int, Span(3, 14)] = 9, length: Annotated[float, Span(25, 72)] = 62):
    """From the lowest row up, each lies on the tips of the one before."""
    fills = ramp("#1d3557", "#e9edc9", rows)
    for row in range(rows):
        for column in range(16):
            shift = (row % 2) / 2
            nib.travel_to(-184 + 23.7 * (column + shift), -76 + row * 208 / (rows - 1))
            nib.turn_to(270 + 5 * (column + shift - 7.5) / 3 + nib.dice.number(-2, 2))
            feather(nib, length, fills[row], "#3d2f24" if row > 2 else "#cbd5e1")


if __name__ == "__main__":
    feathers.show()
