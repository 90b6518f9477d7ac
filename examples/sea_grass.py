"""Sea grass on the bottom of the bay: blades that sway, each from its own root."""

from typing import Annotated

from ovlo import Span, blend, drawing


@drawing(width=640, height=300, paper="#d8ecef")
def sea_grass(
    nib,
    blades: Annotated[int, Span(20, 160)] = 90,
    sway: Annotated[float, Span(2, 14)] = 7,
):
    """Blades of grass, the far ones paler, bent by one current."""
    dice = nib.dice
    for i in range(blades):
        near = i / blades
        nib.ink = blend("#b9dcdc", dice.pick(["#1f6f5c", "#2e8b57", "#557a2b"]), 0.25 + 0.75 * near)
        nib.travel_to(dice.number(-1, 1) * (305 - 13 * sway), -146)
        nib.turn_to(dice.number(80, 100))
        blade(nib, dice.number(7, 11) * (0.7 + 0.3 * near), sway * dice.number(-1, 1), 4)


def blade(nib, length, bend, width):
    """One blade, thinner and more bent towards its tip."""
    for i in range(24):
        nib.line_width = width * (1 - i / 24) + 0.3
        nib.forward(length)
        nib.left(bend * i / 24)
