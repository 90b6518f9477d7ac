"""A frieze for the boathouse: motifs in turns, in a row, and rows above each other."""

from typing import Annotated

from ovlo import Motif, Span, column, drawing, row


def kite(nib):
    """A kite on its corner."""
    nib.polygon(4, radius=26, turn=90, fill="tomato")


def star(nib):
    """A five-pointed star."""
    nib.star(5, 22, turn=90, fill="gold")


def wave(nib):
    """One wave of the border."""
    nib.ink = "steelblue"
    nib.arc_left(12, 180)
    nib.turn_to(0)
    nib.arc_right(12, 0)


@drawing(width=800, height=240, paper="oldlace")
def frieze(nib, repeats: Annotated[int, Span(1, 12)] = 6, gap: Annotated[float, Span(0, 40)] = 12):
    """Kites and stars between two borders of waves."""
    figures = row([Motif.record(kite), Motif.record(star)] * repeats, gap=gap, align="middle")
    left, _, right, _ = figures.bounds
    crest = Motif.record(wave).mirrored(45)
    waves = row([crest] * int((right - left) / (crest.bounds[2] - crest.bounds[0])))
    whole = column([waves, figures, waves.mirrored()], gap=14, align="middle").centred()
    nib.stamp(whole, scale=min(1, 380 / whole.bounds[2]))
