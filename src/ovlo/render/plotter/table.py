"""The formats a plot can be written in; a table of their own, since an SVG for a plotter is another thing.

render = plot_renderer_of(".gcode", "plot")
"""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from typing import cast

from ovlo.core.plot.plot import Plotted
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadValue
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine

Renderer = Callable[[Plotted, Machine, PlotDetails], bytes]

MODULES = {
    ".svg": "ovlo.render.plotter.svg",
    ".gcode": "ovlo.render.plotter.gcode",
    ".hpgl": "ovlo.render.plotter.hpgl",
    ".png": "ovlo.render.plotter.preview",
}


def plot_renderer_of(suffix: str, call: str) -> Renderer:
    """What writes plots with this ending."""
    known = "one of .svg, .gcode and .hpgl, or .png for a preview"
    if not suffix:
        raise BadValue(f"{call}: the file name has no ending to select the format; use {known}.")
    if suffix.lower() not in MODULES:
        near = arguments.near(suffix, MODULES)
        raise BadValue(f"{call}: a plot cannot be written as {suffix!r}{near}; use {known}.")
    return cast(Renderer, import_module(MODULES[suffix.lower()]).render)
