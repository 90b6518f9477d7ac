"""A drawing as vectors in Matplotlib's axes, in data units.

draw_on(sheet, axes)
"""

from __future__ import annotations

from typing import Any

from matplotlib import rcParams
from matplotlib.axes import Axes
from matplotlib.backend_bases import RendererBase
from matplotlib.patches import PathPatch
from matplotlib.path import Path

from ovlo.core.paint.order import painted
from ovlo.core.paint.regions import without_overlaps
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Style, Text
from ovlo.core.values.arguments import brief
from ovlo.core.values.errors import BadType
from ovlo.render import lettering
from ovlo.render.formats.agg import rgba
from ovlo.render.formats.pdf import with_cubics

FLATNESS = 1e-4
"""Of the sheet, that a chord of an even-odd area may be from its arc."""

POINTS = 72
"""In an inch."""


class _Line(PathPatch):
    """A path whose line has a width, and dashes, in data units at whatever zoom it is drawn."""

    def __init__(self, path: Path, style: Style, dash_offset: float, **more: Any) -> None:
        cap = "projecting" if style.line_cap == "square" else style.line_cap
        super().__init__(path, capstyle=cap, joinstyle=style.line_join, edgecolor=rgba(style.ink), **more)
        self._style, self._dash_offset = style, dash_offset

    def draw(self, renderer: RendererBase) -> None:
        """Draw it, as wide as its axes are zoomed at this moment."""
        figure = self.get_figure()
        if self.axes is None or figure is None:
            return
        (left, _), (right, _) = self.axes.transData.transform([(0.0, 0.0), (1.0, 0.0)])
        points = abs(right - left) * POINTS / figure.dpi
        width = self._style.line_width * points
        self.set_linewidth(width)
        if self._style.line_dash:
            # Matplotlib may take dashes in widths of the line.
            unit = points / width if rcParams["lines.scale_dashes"] else points
            dashes = [length * unit for length in self._style.line_dash]
            self.set_linestyle((self._dash_offset * unit, dashes))
        super().draw(renderer)


def draw_on(sheet: Sheet, axes: Axes) -> None:
    """Add all marks to axes, the lowest first, and make room for the sheet."""
    if not isinstance(axes, Axes):
        raise BadType(f"draw_on: give Matplotlib axes, as from plt.subplots(), not {brief(axes)}.")
    painting = painted(sheet._columns)
    strokes, borders = with_cubics(painting.strokes), with_cubics(painting.borders)
    flat = painting.flattened(FLATNESS * max(sheet.width, sheet.height))
    for mark in painting.marks:
        if isinstance(mark, Text):
            axes.add_patch(PathPatch(Path(*lettering.glyphs(mark)), facecolor=rgba(mark.ink), linewidth=0))
            continue
        path = Path(*(borders if mark.style is None else strokes).path(mark.number))
        if mark.fill is not None:
            inside = path
            if mark.fill_rule == "evenodd":  # Matplotlib fills by winding only
                inside = Path(*without_overlaps(*flat.outline_of(mark).path(mark.number), "evenodd"))
            axes.add_patch(PathPatch(inside, facecolor=rgba(mark.fill), linewidth=0))
        if mark.style is not None:
            axes.add_patch(_Line(path, mark.style, mark.dash_offset, fill=False))
    right, top = sheet.width / 2, sheet.height / 2
    axes.update_datalim([(-right, -top), (right, top)])
    axes.set_aspect("equal")
    axes.autoscale_view()
