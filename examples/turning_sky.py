"""A night's exposure: the stars turn about the pole, and the harbour stands still."""

from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=297, height=420, unit="mm", paper="#0b1026")
def turning_sky(nib, stars: Annotated[int, Span(50, 600)] = 330, hours: Annotated[float, Span(0.5, 8)] = 3.4):
    """Each star is an arc about the pole, as long as the exposure; the brightest are the widest."""
    x, y = 0, 48
    tints = [*ramp("#fefae0", "#8ecae6", 6), "#ffb703", "#f4a261"]
    for _ in range(stars):
        radius = 132 * nib.dice.number(0, 1) ** 0.62 + 3
        nib.travel_to(x, y)
        nib.turn_to(nib.dice.number(0, 360))
        nib.travel(radius)
        nib.left(90)
        nib.ink = nib.dice.pick(tints)
        nib.line_width = 0.25 + 1.1 * nib.dice.number(0, 1) ** 4
        nib.arc_left(radius, 15 * hours * nib.dice.number(0.92, 1))
    nib.travel_to(x, y)
    nib.circle(0.9, fill="#fefae0", outline=False)
    nib.ink = "#05070f"
    nib.travel_to(-146, -208)
    nib.turn_to(90)
    with nib.area("#05070f"):
        nib.forward(58)
        for width, wall, roof in ((26, 14, 13), (34, 4, 17), (22, 22, 11), (40, -8, 20), (30, 6, 15)):
            nib.line_by(0, wall)
            nib.line_by(width / 2, roof)
            nib.line_by(width / 2, -roof)
            nib.line_by(0, -wall)
            nib.line_by(4, 0)
        nib.line_by(26, -24)
        for dx, dy in ((4, 92), (-3, 0), (0, 10), (8, 7), (8, -7), (0, -10), (-3, 0), (4, -92), (70, -6)):
            nib.line_by(dx, dy)
        nib.line_to(nib.position[0], -208)
        nib.line_to_start()
    for wx, wy in ((-133, -152), (-103, -166), (-69, -149), (-39, -166), (0, -160), (49, -88)):
        nib.travel_to(wx, wy)
        nib.rectangle(4, 5, fill="#ffd166", outline=False)


if __name__ == "__main__":
    turning_sky.show()
