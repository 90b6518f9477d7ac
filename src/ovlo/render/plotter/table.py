"""The formats a plot can be written in; a table of their own, since an SVG for a plotter is another thing.

render = plot_renderer_of(".gcode", "plot")
follow = plot_reader_of(".gcode", "plot")
"""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from typing import cast

from ovlo.core.plot.plot import Plotted
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadValue
from ovlo.render.formats.table import PAGE
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine
from ovlo.render.plotter.simulation import Simulated, Size

Renderer = Callable[[Plotted, Machine, PlotDetails], bytes]
Reader = Callable[[str, Machine, Size | None], Simulated]

FORMATS = (".svg", ".gcode", ".hpgl")
"""What machines read."""

PREVIEWS = (".png", PAGE)


def check_ending(suffix: str, call: str) -> None:
    """Refuse an ending that is neither a machine's format nor a preview's."""
    known = "one of .svg, .gcode and .hpgl, or .png or .html for a preview"
    if not suffix:
        raise BadValue(f"{call}: the file name has no ending to select the format; use {known}.")
    if suffix.lower() not in (*FORMATS, *PREVIEWS):
        near = arguments.near(suffix, (*FORMATS, *PREVIEWS))
        raise BadValue(f"{call}: a plot cannot be written as {suffix!r}{near}; use {known}.")


def plot_renderer_of(suffix: str) -> Renderer:
    """What writes plots with this ending, one of FORMATS."""
    return cast(Renderer, import_module(f"ovlo.render.plotter.{suffix.lower()[1:]}").render)


def plot_reader_of(suffix: str) -> Reader:
    """What follows files with this ending, one of FORMATS, as a machine does."""
    return cast(Reader, import_module(f"ovlo.render.plotter.read_{suffix.lower()[1:]}").follow)
