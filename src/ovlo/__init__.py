"""Ovlo: turtle graphics that are exact, fast and kind about mistakes.

from ovlo import Sheet

sheet = Sheet(640, 480, paper="aliceblue")
nib = sheet.new_nib()
for _ in nib.full_turn(4):
    nib.forward(90)
sheet.save("square.svg")
"""

from __future__ import annotations

from ovlo.core.colour import Colour, blend, ramp, shift_hue
from ovlo.core.degrees import from_polar
from ovlo.core.dice import Dice
from ovlo.core.errors import BadType, BadValue, FileTrouble, OvloError
from ovlo.core.joining import column, end_to_end, layered, row
from ovlo.core.motif import Motif
from ovlo.core.nib import Nib
from ovlo.core.pose import Pose
from ovlo.core.sheet import Sheet
from ovlo.core.trail import Trail
from ovlo.program.drawing import Drawing, drawing
from ovlo.program.parameters import Span

__version__ = "0.1.0"

__all__ = [
    "BadType",
    "BadValue",
    "Colour",
    "Dice",
    "Drawing",
    "FileTrouble",
    "Motif",
    "Nib",
    "OvloError",
    "Pose",
    "Sheet",
    "Span",
    "Trail",
    "blend",
    "column",
    "drawing",
    "end_to_end",
    "from_polar",
    "layered",
    "ramp",
    "row",
    "shift_hue",
]
