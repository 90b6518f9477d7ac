"""Ovlo: turtle graphics that are exact, fast and kind about mistakes.

from ovlo import Sheet

sheet = Sheet(640, 480, paper="aliceblue")
nib = sheet.new_nib()
for _ in nib.full_turn(4):
    nib.forward(90)
sheet.save("square.svg")
"""

from __future__ import annotations

import sys

from ovlo.core.sheet.joining import column, end_to_end, layered, row
from ovlo.core.sheet.motif import Motif
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.colour import Colour, blend, ramp, shift_hue
from ovlo.core.values.degrees import from_polar
from ovlo.core.values.dice import Dice
from ovlo.core.values.errors import BadType, BadUse, BadValue, FileTrouble, OvloError, UnknownName
from ovlo.core.values.finding import Finding
from ovlo.core.values.pose import Pose
from ovlo.core.values.version import VERSION
from ovlo.program.drawing import Drawing, drawing
from ovlo.program.parameters import Span

__version__ = VERSION

__all__ = [
    "BadType",
    "BadUse",
    "BadValue",
    "Colour",
    "Dice",
    "Drawing",
    "FileTrouble",
    "Finding",
    "Motif",
    "Nib",
    "OvloError",
    "Pose",
    "Sheet",
    "Span",
    "UnknownName",
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


def __dir__() -> list[str]:
    return __all__


def __getattr__(name: str) -> object:
    """Asked for only where there is no such name."""
    from ovlo.core.values.everyday import unknown

    raise AttributeError(unknown("ovlo", name, __all__), name=name, obj=sys.modules[__name__])
