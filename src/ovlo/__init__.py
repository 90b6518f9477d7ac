"""Ovlo: turtle graphics that are exact, fast and kind about mistakes.

from ovlo import Sheet

sheet = Sheet(640, 480, paper="aliceblue")
nib = sheet.new_nib()
for _ in nib.full_turn(4):
    nib.forward(90)
sheet.save("square.svg")
"""

from __future__ import annotations

from typing import TYPE_CHECKING

from ovlo.core.colour import Colour, blend, ramp, shift_hue
from ovlo.core.degrees import from_polar
from ovlo.core.dice import Dice
from ovlo.core.errors import BadType, BadValue, FileTrouble, OvloError
from ovlo.core.nib import Nib
from ovlo.core.pose import Pose
from ovlo.core.sheet import Sheet
from ovlo.core.trail import Trail
from ovlo.program.drawing import Drawing, drawing
from ovlo.program.parameters import Span

if TYPE_CHECKING:
    from ovlo.core.findings import Finding
    from ovlo.core.joining import column, end_to_end, layered, row
    from ovlo.core.motif import Motif

__version__ = "0.1.0"

__all__ = [
    "BadType",
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

LATE = {
    "Finding": "ovlo.core.findings",
    "Motif": "ovlo.core.motif",
    "column": "ovlo.core.joining",
    "end_to_end": "ovlo.core.joining",
    "layered": "ovlo.core.joining",
    "row": "ovlo.core.joining",
}
"""Names that most programs do without: loaded when they are first asked for."""


def __getattr__(name: str) -> object:
    from importlib import import_module

    if name not in LATE:
        raise AttributeError(f"module 'ovlo' has no attribute {name!r}")
    return getattr(import_module(LATE[name]), name)
