"""A lighthouse lens, cut through: rings of glass bend the rays of a lamp until all go out level."""

from math import atan2, degrees
from typing import Annotated

from ovlo import Span, drawing


@drawing(width=420, height=297, unit="mm", paper="#10222e")
def lighthouse_lens(nib, rings: Annotated[int, Span(3, 15)] = 9, rays: Annotated[int, Span(1, 9)] = 5):
    """Each ring stands a little farther back, and bends what meets it until it is level."""
    high_ring = 126 / (rings + 0.8)
    for side in (1, -1):
        for ring in range(rings + 1):
            low, high = 4 + high_ring * (ring - 0.5), 4 + high_ring * (ring + 0.5)
            x = -62 + 0.0026 * high**2
            tilt = degrees(atan2((low + high) / 2, 120)) / 2
            if ring:
                nib.travel_to(x, side * low)
                nib.ink, nib.line_width = "#9ad1d4", 0.8
                with nib.area("rgb(154 209 212 / 22%)"):
                    nib.line_to(x + 7, side * low)
                    nib.turn_to(side * (90 + tilt))
                    nib.line_to(x + 15 - tilt / 3, side * (high - 1.2))
                    nib.line_to(x + 2, side * (high - 1.2))
                    nib.line_to_start()
            for ray in range(rays):
                y = side * (low + (ray + 0.5) * high_ring / rays)
                if side < 0 and ring == 0:
                    continue
                nib.travel_to(-178, 0)
                nib.ink = "#ffd166" if ray % 2 else "#f4f1de"
                nib.line_width = 0.25 + 0.35 * (ring == 0)
                nib.line_to(x + 4, y)
                nib.line_to(x + 12, y * 1.012)
                nib.line_to(206, y * 1.012)
    nib.travel_to(-178, 0)
    for radius, fill in ((13, "#f4a261"), (8, "#ffd166"), (4, "#f4f1de")):
        nib.circle(radius, fill=fill, outline=False)


if __name__ == "__main__":
    lighthouse_lens.show()
