"""Sails patched from triangles: each is cut into four, and those again, in the colours of old cloth."""

from typing import Annotated

from ovlo import Span, drawing


def middle(a, b, share=0.5):
    """The point between two others."""
    return a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])


def patch(nib, corners, depth, fills):
    """A triangle of patches: plain, or four smaller ones."""
    a, b, c = corners
    if depth == 0 or nib.dice.chance(0.12):
        nib.travel_to(a)
        with nib.area(nib.dice.pick(fills)):
            nib.polyline([b, c])
            nib.line_to_start()
        return
    ab, bc, ca = middle(a, b), middle(b, c), middle(c, a)
    for smaller in ((a, ab, ca), (ab, b, bc), (ca, bc, c), (bc, ca, ab)):
        patch(nib, smaller, depth - 1, fills)


@drawing(width=420, height=297, unit="mm", paper="#dfe7e4")
def patched_sails(nib, depth: Annotated[int, Span(1, 6)] = 4):
    """Three boats; each takes four of the six cloths."""
    cloth = ["#f4ede0", "#e3cfa8", "#c1694f", "#8a3324", "#33576b", "#d9a441"]
    nib.ink, nib.line_width, nib.line_join = "#2b2622", 0.35, "round"
    for mast, size in ((-118, 0.86), (10, 1.12), (134, 0.72)):
        fills = nib.dice.shuffled(cloth)[:4]
        foot, top = -88, -88 + 190 * size
        patch(nib, ((mast + 4, top), (mast + 4, foot), (mast + 4 + 92 * size, foot)), depth, fills)
        patch(nib, ((mast - 3, top - 14), (mast - 3, foot), (mast - 3 - 52 * size, foot)), depth, fills[1:])
        with nib.styled(line_width=2.2):
            nib.travel_to(mast, foot - 8)
            nib.line_to(mast, top + 5)
        nib.travel_to(mast - 60 * size, foot - 6)
        nib.turn_to(0)
        with nib.area("#2b2622"):
            nib.forward(150 * size)
            nib.right(135)
            nib.forward(22 * size)
            nib.right(45)
            nib.forward(112 * size)
            nib.line_to_start()
    nib.ink = "#33576b"
    for i in range(9):
        nib.travel_to(-204 + nib.dice.number(0, 30), -112 - 4 * i)
        nib.line_width = 0.4 + 0.1 * i
        while nib.position[0] < 180:
            nib.turn_to(-20)
            nib.arc_left(18 + i, 40)
            nib.turn_to(0)
            nib.travel(nib.dice.number(4, 30))


if __name__ == "__main__":
    patched_sails.show()
