"""The harbour at night: windows, the beam of the lighthouse, and the moon on the water."""

from typing import Annotated

from ovlo import Span, blend, drawing, from_polar


@drawing(width=640, height=420, paper="#0c1230")
def night_harbour(nib, houses: Annotated[int, Span(3, 14)] = 9, beam: Annotated[float, Span(150, 210)] = 172):
    """From the sky forward to the water."""
    dice = nib.dice
    for x, y in dice.scattered(60, margin=15):
        nib.travel_to(x, abs(y))
        nib.circle(dice.number(0.5, 1.6), fill="white", outline=False)
    nib.travel_to(-220, 140)
    nib.circle(28, fill="lemonchiffon", outline=False)
    lighthouse(nib, 230, beam)
    for i in range(houses):
        house(nib, -270 + 420 * i / (houses - 1), 40 + 12 * (i % 3), dice)
    nib.travel_to(0, -145)
    nib.rectangle(640, 130, fill="#141d47", outline=False)
    nib.ink = "rgb(255 250 205 / 60%)"
    for k in range(12):
        nib.travel_to(-220, -92 - 9 * k)
        half = dice.number(6, 14 + 3 * k)
        nib.travel_by(-half, 0)
        nib.turn_to(0)
        nib.forward(2 * half)


def house(nib, x, height, dice):
    """A dark house with a roof and some lit windows."""
    nib.ink = "#1d2550"
    nib.turn_to(0)
    nib.travel_to(x, -80 + height / 2)
    nib.rectangle(40, height, fill="#1d2550")
    nib.travel_to(x, -80 + height + 11)
    nib.polygon(3, radius=23, turn=90, fill="#2b346b", outline=False)
    for row in range(int(height / 18)):
        for side in (-9, 9):
            nib.travel_to(x + side, -70 + 17 * row)
            nib.rectangle(
                8, 10, fill="gold" if dice.chance(0.7) else blend("#1d2550", "white", 0.2), outline=False
            )


def lighthouse(nib, x, beam):
    """A tower, and the beam that goes round."""
    with nib.area("rgb(255 245 190 / 35%)", outline=False):
        nib.travel_to(x, 50)
        for angle in (beam - 5, beam + 5):
            dx, dy = from_polar(420, angle)
            nib.line_to(x + dx, 50 + dy)
        nib.line_to_start()
    nib.ink = "#46507f"
    nib.travel_to(x, -20)
    nib.turn_to(0)
    nib.rectangle(22, 120, fill="#46507f")
    nib.travel_to(x, 50)
    nib.circle(8, fill="lemonchiffon")
