"""The harbour of Marrow Bay at dusk, painted from the sky forward to the boats."""

from typing import Annotated

from ovlo import Span, blend, drawing, ramp

LEFT, TOP, SEA = -640, 400, -120


@drawing(width=1280, height=800, paper="midnightblue")
def harbour(nib, kites: Annotated[int, Span(0, 9)] = 5, title: str = "Kite day at Marrow Bay"):
    """Sky, sun, hills, water, a lighthouse, boats, kites on strings, gulls and a painted title."""
    bands(nib, SEA, TOP, ramp("#ffb26b", "#b8577a", 14) + ramp("#b8577a", "#2a2a5e", 22)[1:])
    sun(nib, -190, SEA + 40, 90)
    hill(nib, -330, 620, 130, "#5b4a78")
    hill(nib, 130, 760, 100, "#4a3c69")
    bands(nib, -TOP, SEA, ramp("#1c2347", "#6d5a86", 16))
    for i in range(15):
        waves(nib, SEA - 4 - 18 * i, 14 + 3 * i)
    glitter(nib, -190, SEA - 14)
    hill(nib, 430, 420, 180, "#2b2547")
    lighthouse(nib, 430, SEA + 170, 190)
    boat(nib, -380, SEA - 80, 1, "linen")
    boat(nib, 60, SEA - 125, 1.5, "antiquewhite")
    for i in range(kites):
        x = -560 + 900 * (i + 0.5) / kites
        kite(nib, x, nib.dice.number(150, 290), 26 + 24 * i / kites, nib.dice.colour("vivid"))
    for x, y, size in [(-590, 90, 26), (-530, 120, 20), (-560, 60, 16), (560, 300, 22), (520, 330, 16)]:
        gull(nib, x, y, size)
    for shift, colour in ((3, "#141a3a"), (0, "moccasin")):
        at(nib, shift, -358 - shift).ink = colour
        nib.text(title, size=52, font="serif", weight="bold", slant="italic", align="middle")


def at(nib, x, y, heading=0):
    """Put the nib there, without a line."""
    nib.travel_to(x, y)
    nib.turn_to(heading)
    return nib


def bands(nib, bottom, top, colours):
    """Bands of colour from the bottom up, each over the foot of the next."""
    step = (top - bottom) / len(colours)
    for i, colour in reversed(list(enumerate(colours))):
        height = min(step * (i + 1) + 1, top - bottom)
        at(nib, 0, bottom + height / 2).rectangle(-2 * LEFT, height, fill=colour, outline=False)


def sun(nib, x, y, radius):
    """A low sun in rings of glow."""
    for share in (3, 2.4, 1.9, 1.5, 1.2):
        at(nib, x, y).circle(radius * share, fill="#ffe2a31c", outline=False)
    nib.circle(radius, fill="#fff0c2", outline=False)


def hill(nib, x, width, height, colour):
    """A hill that stands on the water, as an arc of a circle."""
    at(nib, x - width / 2, SEA).aim_at(x, SEA + height)
    slope = nib.heading
    with nib.area(colour, outline=False):
        nib.left(slope)
        nib.arc_right((width**2 / 4 + height**2) / (2 * height), 4 * slope)


def waves(nib, y, length):
    """Shallow waves from edge to edge."""
    at(nib, LEFT + nib.dice.number(0, length), y)
    with nib.styled(ink="#ffffff30", line_width=1 + length / 30):
        while nib.position[0] < -LEFT - length:
            nib.turn_to(-20)
            nib.arc_left(1.46 * length, 40)


def glitter(nib, x, y):
    """The sun on the water."""
    for i in range(12):
        at(nib, x + nib.dice.number(-14, 14), y - 14 * i)
        nib.rectangle(nib.dice.number(60, 150), 3, fill="#ffe2a388", outline=False)


def lighthouse(nib, x, y, height):
    """Red and white bands on a hill, a lantern, and its beams."""
    for heading in (172, 186):
        with at(nib, x, y + height + 14, heading).area("#fff3c430", outline=False):
            nib.forward(620)
            nib.left(92)
            nib.forward(50)
    for i, colour in enumerate(["firebrick", "seashell"] * 3):
        at(nib, x, y + height * (i + 0.5) / 6)
        nib.rectangle(56 - 5 * i, height / 6 + 1, fill=colour, outline=False)
    at(nib, x, y + height + 14).rectangle(30, 28, fill="lemonchiffon", outline=False)
    at(nib, x, y + height + 34).polygon(3, radius=26, turn=90, fill="firebrick", outline=False)


def boat(nib, x, y, size, sail):
    """A hull and two sails."""
    with at(nib, x - 55 * size, y).area("#3a1f1a", outline=False):
        for turn, side in ((0, 110), (130, 34), (50, 66)):
            nib.right(turn)
            nib.forward(side * size)
    for reach in (44, -34):
        with at(nib, x + reach * size / 14, y + 8 * size).area(sail, outline=False):
            nib.line_to(x + reach * size, y + 8 * size)
            nib.line_to(x + reach * size / 14, y + 104 * size)


def kite(nib, x, y, size, sail):
    """A kite with a cross of spars, a tail with bows, and a string down to the shore."""
    with at(nib, x, y, 70).styled(ink="#ffffff66", line_width=1):
        nib.line_to(x + 160, SEA + 20)
    with at(nib, x, y, 70).styled(ink=blend(sail, "black", 0.4), line_width=2):
        nib.polygon(4, radius=size, fill=sail)
        for _ in nib.full_turn(4):
            with nib.returning():
                nib.forward(size)
        nib.travel(-size)
        for i in range(6):
            nib.turn_to(250 if i % 2 else 290)
            nib.forward(size / 3)
            nib.circle(size / 12, fill="gold")


def gull(nib, x, y, size):
    """Two wings that meet."""
    with nib.styled(ink="#20203c", line_width=size / 9):
        at(nib, x, y, 75).arc_right(size / 2, 110)
        at(nib, x, y, 105).arc_left(size / 2, 110)
