"""Rigging, seen from the deck: one looks up the mast, and the higher a thing is, the smaller it stands."""

from math import radians, sin
from typing import Annotated

from ovlo import Span, drawing, ramp

DECK, TOP = -420, (0, 340)  # all that goes straight up meets at the top
HOUNDS, TRUCK = 13, 40  # metres: where the shrouds end, and the mast
LOW, HIGH = 0.13, 0.42  # the blocks that the shrouds are tightened between
TAR, WOOD, FLAG = "#24323d", "#7c4f33", "#c8553d"


@drawing(width=594, height=840, paper="#f0d3a8")
def rigging(
    nib,
    ropes: Annotated[int, Span(3, 7)] = 5,
    rungs: Annotated[int, Span(12, 40)] = 26,
    eye: Annotated[float, Span(3, 5.4)] = 4.5,
):
    """A mast under sail, and its shrouds with rungs that sag; the eye is so many metres below."""

    def at(across, height):
        share = eye / (height + eye)
        return across * share, TOP[1] + (DECK - TOP[1]) * share

    sky(nib)
    sail(nib, at, (29, 520), (21, 640))
    sail(nib, at, (20, 660), (10.5, 790))
    mast(nib, at)
    furled(nib, at, 10, 800)
    for side in (-1, 1):
        shrouds(nib, at, side, ropes, rungs)
    nib.travel_to(at(0, TRUCK))
    pennant(nib)


def sky(nib):
    """Evening, in bands, and the sun."""
    for k, colour in enumerate(ramp("#7ea7b5", "#f0d3a8", 14)[:-1]):
        nib.travel_to(0, 390 - 60 * k)
        nib.rectangle(594, 60, fill=colour, outline=False)
    nib.travel_to(150, -40)
    nib.circle(95, fill="#f7e7c3", outline=False)


def sail(nib, at, head, foot, cloths=9):
    """A sail of cloths sewn side by side, from its head to its foot, each a height and half a width."""
    nib.ink, nib.line_width = "#c9b48a", 0.8
    for k in range(cloths):
        left, right = 2 * k / cloths - 1, 2 * (k + 1) / cloths - 1
        with nib.area(("#f6ead0", "#eddcb8")[k % 2]):
            nib.travel_to(at(head[1] * left, head[0]))
            nib.line_to(at(head[1] * right, head[0]))
            nib.line_to(at(foot[1] * right, foot[0]))
            nib.line_to(at(foot[1] * left, foot[0]))
            nib.line_to_start()
    nib.ink = "#8d7a55"
    for k in range(2 * cloths - 1):  # points of rope, to shorten it
        across = (k + 1) / cloths - 1
        nib.travel_to(at(across * (head[1] * 0.6 + foot[1] * 0.4), head[0] * 0.6 + foot[0] * 0.4))
        nib.aim_at(0, -2000)
        nib.forward(9)
    spar(nib, at(-head[1], head[0]), at(head[1], head[0]))


def spar(nib, left, right):
    """A spar from its left end to its right."""
    nib.ink, nib.line_width = TAR, (right[0] - left[0]) / 52
    nib.travel_to(left)
    nib.line_to(right)


def furled(nib, at, height, half, bights=10):
    """A spar with its sail bound up beneath it, in so many bights."""
    left, right = at(-half, height), at(half, height)
    nib.ink, nib.line_width = "#8d7a55", 1
    width = (right[0] - left[0]) / bights
    for k in range(bights):
        start = left[0] + width * k
        with nib.area("#f6ead0"):
            hang(nib, (start, left[1]), (start + width, left[1]), 84 - 4 * abs(2 * k + 1 - bights))
            nib.line_to_start()
    spar(nib, left, right)


def mast(nib, at):
    """The mast, with the light from the right, and bands of rope."""
    for share, colour in zip((1, 0.62, 0.28), ("#a9744c", WOOD, "#5d3a28"), strict=True):
        with nib.area(colour, outline=False):
            nib.travel_to(at(-44, 0))
            nib.polyline([at(-44, TRUCK), at(88 * share - 44, TRUCK), at(88 * share - 44, 0)])
    nib.ink = TAR
    for k in range(8):
        left, right = at(-44, 0.6 + 1.2 * k), at(44, 0.6 + 1.2 * k)
        nib.line_width = (right[0] - left[0]) / 12
        hang(nib, left, right, 14)


def shrouds(nib, at, side, ropes, rungs):
    """The ropes that hold the mast on one side, and the rungs between them."""

    def on_rope(i, height):
        foot = side * (105 + 170 * i / (ropes - 1))
        return at(foot + (12 * side - foot) * height / HOUNDS, height)

    nib.ink = TAR
    for i in range(ropes):
        nib.line_width = 2.2
        nib.travel_to(on_rope(i, HIGH))
        nib.line_to(on_rope(i, HOUNDS))
        nib.line_width = 1.4
        for height in (LOW, HIGH):
            nib.travel_to(on_rope(i, height))
            nib.circle(6.5, fill=WOOD)
        nib.travel_to(on_rope(i, LOW))
        for apart in (-4, 0, 4):  # the cords that tighten the rope
            with nib.returning():
                nib.aim_at(on_rope(i, HIGH))
                length = nib.distance_to(on_rope(i, HIGH))
                nib.left(90)
                nib.travel(apart)
                nib.right(90)
                nib.forward(length)
    for k in range(1, rungs):
        height = HIGH + (HOUNDS - 2) * k / rungs
        nib.line_width = 10 / (height + 4)
        for i in range(ropes - 1):
            hang(nib, on_rope(i, height), on_rope(i + 1, height), 13)


def hang(nib, start, end, sag):
    """A slack rope between two points of one height, that leaves its start by so many degrees."""
    nib.travel_to(min(start, end))
    nib.aim_at(max(start, end))
    radius = nib.distance_to(max(start, end)) / (2 * sin(radians(sag)))
    nib.right(sag)
    nib.arc_left(radius, 2 * sag)


def pennant(nib):
    """A long flag in the wind, its two edges as one border."""
    waves = ((52, 64), (40, -64), (30, 64), (22, -64))
    nib.turn_to(32)
    with nib.area(FLAG, outline=False):
        for radius, sweep in waves:
            nib.arc_right(radius, sweep) if sweep > 0 else nib.arc_left(radius, -sweep)
        nib.right(176)
        for radius, sweep in reversed(waves):
            nib.arc_left(radius * 1.02, sweep) if sweep > 0 else nib.arc_right(radius * 1.02, -sweep)
