"""Rain on still water: rings that grow, the newest on top, and a drop in the middle of each."""

from typing import Annotated

from ovlo import Span, drawing, ramp


def rings(nib, radius, colours):
    """Rings from the outermost in, each a little stronger."""
    for i, colour in enumerate(colours):
        nib.ink = colour
        nib.line_width = 0.3 + 1.5 * i / len(colours)
        share = 1 - i / len(colours)
        fill = "#e7ecef" if i == 0 else None
        nib.ellipse(2 * radius * share, 1.05 * radius * share, fill=fill)


@drawing(width=420, height=297, unit="mm", paper="#e7ecef")
def rain_on_the_bay(
    nib, drops: Annotated[int, Span(20, 160)] = 74, largest: Annotated[float, Span(15, 60)] = 38
):
    """Drops from the far shore to the near one; those near look larger."""
    spots = sorted(nib.dice.scattered(drops), key=lambda spot: -spot[1])
    for x, y in spots:
        radius = nib.dice.number(0.2, 1) * largest * (1.25 - y / 297)
        radius = min(radius, 209 - abs(x), (147 - abs(y)) / 0.525)
        if radius < 3:
            continue
        nib.travel_to(x, y)
        rings(nib, radius, ramp("#a3bac3", "#1d3557", max(3, int(radius / 3.4))))
        if radius > largest / 2:
            nib.circle(1.3, fill="#e63946", outline=False)


if __name__ == "__main__":
    rain_on_the_bay.show()
