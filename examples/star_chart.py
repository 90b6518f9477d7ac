"""The sky over the bay in a summer night, with the figures that sailors see in it."""

from typing import Annotated

from ovlo import Span, drawing


@drawing(width=640, height=480, paper="#0d1433")
def star_chart(nib, stars: Annotated[int, Span(30, 140)] = 90, figures: Annotated[int, Span(0, 9)] = 6):
    """Stars that keep apart; those near to one another are joined to figures."""
    dice = nib.dice
    sky = dice.scattered(stars, min_distance=30, margin=24)
    nib.ink, nib.line_width = "#6f86c9", 0.8
    left = list(sky)
    for _ in range(figures):
        if len(left) < 5:
            break
        here = dice.pick(left)
        nib.travel_to(here)
        for _ in range(4):
            left.remove(here)
            here = min(left, key=lambda star: nib.distance_to(*star))
            nib.line_to(here)
    for star in sky:
        nib.travel_to(star)
        nib.star(
            5,
            dice.number(2, 7),
            inner_radius=1.2,
            turn=dice.number(0, 72),
            fill="lemonchiffon",
            outline=False,
        )
