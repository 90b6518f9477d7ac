"""A field of pinwheels on sticks, all turned by the same wind."""

from typing import Annotated

from ovlo import Span, drawing, shift_hue


@drawing(width=640, height=420, paper="#e6f4e1")
def pinwheels(
    nib,
    vanes: Annotated[int, Span(3, 12)] = 6,
    wind: Annotated[float, Span(0, 90)] = 20,
):
    """Three rows, the far ones smaller."""
    for row, (count, size, y) in enumerate(((7, 26, 90), (5, 38, 10), (4, 52, -90))):
        for i in range(count):
            x = 560 * ((i + 0.5) / count - 0.5)
            nib.travel_to(x, y - 2.2 * size)
            nib.turn_to(90)
            nib.line_width = size / 14
            nib.ink = "saddlebrown"
            nib.forward(2.2 * size)
            wheel(nib, vanes, size, wind * (i + 1), shift_hue("tomato", 50 * i + 20 * row))


def wheel(nib, vanes, size, turned, colour):
    """Vanes of folded paper around a pin."""
    nib.ink, nib.line_width = "dimgray", 1
    nib.left(turned)
    for _ in nib.full_turn(vanes):
        with nib.returning(), nib.area(colour):
            nib.forward(size)
            nib.left(110)
            nib.forward(0.55 * size)
            nib.line_to_start()
    nib.circle(size / 10, fill="gold")
