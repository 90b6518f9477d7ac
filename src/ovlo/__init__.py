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
from importlib import import_module
from typing import TYPE_CHECKING

from ovlo.core.values.version import VERSION

if TYPE_CHECKING:
    from ovlo.core.compare.comparison import Comparison
    from ovlo.core.sheet.joining import column, end_to_end, layered, row
    from ovlo.core.sheet.motif import Motif
    from ovlo.core.sheet.nib import Nib
    from ovlo.core.sheet.sheet import Sheet
    from ovlo.core.sheet.step_table import CallTotal, Step
    from ovlo.core.values.colour import Colour, blend, ramp, shift_hue
    from ovlo.core.values.degrees import from_polar
    from ovlo.core.values.dice import Dice
    from ovlo.core.values.errors import (
        BadType,
        BadUse,
        BadValue,
        FileError,
        MissingFont,
        MissingGlyph,
        NoBrowser,
        NoEffect,
        OvloError,
        OvloWarning,
        PartsSkipped,
        UnknownName,
    )
    from ovlo.core.values.finding import Finding
    from ovlo.core.values.pose import Pose
    from ovlo.program.drawing import Drawing, drawing
    from ovlo.program.parameters import Span
    from ovlo.program.variations import Variations
    from ovlo.render.flat import FlatPath
    from ovlo.render.plotter.report import PenReport, PlotReport

__version__ = VERSION

__all__ = [
    "BadType",
    "BadUse",
    "BadValue",
    "CallTotal",
    "Colour",
    "Comparison",
    "Dice",
    "Drawing",
    "FileError",
    "Finding",
    "FlatPath",
    "MissingFont",
    "MissingGlyph",
    "Motif",
    "Nib",
    "NoBrowser",
    "NoEffect",
    "OvloError",
    "OvloWarning",
    "PartsSkipped",
    "PenReport",
    "PlotReport",
    "Pose",
    "Sheet",
    "Span",
    "Step",
    "UnknownName",
    "Variations",
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


_HOMES = {
    "BadType": "ovlo.core.values.errors",
    "BadUse": "ovlo.core.values.errors",
    "BadValue": "ovlo.core.values.errors",
    "CallTotal": "ovlo.core.sheet.step_table",
    "Colour": "ovlo.core.values.colour",
    "Comparison": "ovlo.core.compare.comparison",
    "Dice": "ovlo.core.values.dice",
    "Drawing": "ovlo.program.drawing",
    "FileError": "ovlo.core.values.errors",
    "Finding": "ovlo.core.values.finding",
    "FlatPath": "ovlo.render.flat",
    "MissingFont": "ovlo.core.values.errors",
    "MissingGlyph": "ovlo.core.values.errors",
    "Motif": "ovlo.core.sheet.motif",
    "Nib": "ovlo.core.sheet.nib",
    "NoBrowser": "ovlo.core.values.errors",
    "NoEffect": "ovlo.core.values.errors",
    "OvloError": "ovlo.core.values.errors",
    "OvloWarning": "ovlo.core.values.errors",
    "PartsSkipped": "ovlo.core.values.errors",
    "PenReport": "ovlo.render.plotter.report",
    "PlotReport": "ovlo.render.plotter.report",
    "Pose": "ovlo.core.values.pose",
    "Sheet": "ovlo.core.sheet.sheet",
    "Span": "ovlo.program.parameters",
    "Step": "ovlo.core.sheet.step_table",
    "UnknownName": "ovlo.core.values.errors",
    "Variations": "ovlo.program.variations",
    "blend": "ovlo.core.values.colour",
    "column": "ovlo.core.sheet.joining",
    "drawing": "ovlo.program.drawing",
    "end_to_end": "ovlo.core.sheet.joining",
    "from_polar": "ovlo.core.values.degrees",
    "layered": "ovlo.core.sheet.joining",
    "ramp": "ovlo.core.values.colour",
    "row": "ovlo.core.sheet.joining",
    "shift_hue": "ovlo.core.values.colour",
}
"""The module of each name, loaded when the name is first used: a command that only prints its options need
not load what draws."""


_ROOMS = ("cli", "core", "outlets", "page", "program", "render", "studio", "testing")


def __dir__() -> list[str]:
    return __all__


def __getattr__(name: str) -> object:
    """A public name that nobody asked for before, or one that there is not."""
    if name in _HOMES:
        found: object = getattr(import_module(_HOMES[name]), name)
        globals()[name] = found
        return found
    if name in _ROOMS:  # `from ovlo import outlets` asks for a name before it looks for a module
        raise AttributeError(name, name=name, obj=sys.modules[__name__])
    from ovlo.core.values.everyday import unknown

    raise AttributeError(unknown("ovlo", name, __all__), name=name, obj=sys.modules[__name__])
