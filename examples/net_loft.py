"""A net that hangs to dry: meshes that sag more the lower they are."""

from math import sin
from typing import Annotated

from ovlo import Span, drawing


@drawing(width=640, height=420, paper="#f3ead7")
def net_loft(nib, meshes: Annotated[int, Span(6, 24)] = 14, sag: Annotated[float, Span(0, 40)] = 22):
    """Two families of ropes, and a float at each knot of the edge."""

    def knot(i, k):
        across, down = i / meshes, k / meshes
        return (
            -270 + 540 * across + 8 * sin(6 * down + 5 * across),
            170 - 320 * down - sag * down * sin(3.1416 * across) * 1.3,
        )

    nib.ink = "#31564f"
    for i in range(meshes + 1):
        nib.travel_to(knot(i, 0))
        for k in range(1, meshes + 1):
            nib.line_to(knot(i, k))
        nib.travel_to(knot(0, i))
        for k in range(1, meshes + 1):
            nib.line_to(knot(k, i))
    for i in range(meshes + 1):
        nib.travel_to(knot(i, 0))
        nib.circle(7, fill="tomato")
