"""What a file for a plotter says of its picture."""

from __future__ import annotations

from typing import NamedTuple

from ovlo.core.values.colour import WHITE, Colour


class PlotDetails(NamedTuple):
    """The title of a picture, what makes it again (as in every file), and its paper."""

    title: str = "Drawing"
    details: str = ""
    paper: Colour = WHITE
