"""From what somebody asks of a plot to what is plotted.

order = checked_order({"page_size": "A3", "fit": True}, "plot")
plotted = order.plotted(sheet)
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from os import PathLike
from pathlib import Path
from typing import TypedDict

from ovlo.core.plot.hatching import HATCHES
from ovlo.core.plot.placing import check_margin, placed
from ovlo.core.plot.plot import (
    DRY_FRAMES,
    HIDDEN_LINES,
    PEN_ORDERS,
    PLOT_TEXTS,
    STROKE_ORDERS,
    Plotted,
    Wishes,
    plot,
)
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values import arguments
from ovlo.core.values.choices import DryFrame, Hatch, HiddenLines, PenOrder, PlotText, StrokeOrder
from ovlo.core.values.errors import BadValue
from ovlo.core.values.units import MARGIN, Length, millimetres, page_size
from ovlo.render import lettering
from ovlo.render.page import details, mark_boxes
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine
from ovlo.render.plotter.tray import not_too_fine, read_tray


class PlotHow(TypedDict, total=False):
    """How a picture is to be plotted; see `Sheet.save_plot`."""

    page_size: str | None
    landscape: bool
    margin: Length | None
    fit: bool
    hidden_lines: HiddenLines
    hatch: Hatch
    hatch_spacing: Length | None
    hatch_angle: float
    pen_tray: str | PathLike[str] | None
    tolerance: Length | None
    stroke_order: StrokeOrder
    pen_order: PenOrder
    pen_width: Length | None
    dry_frame: DryFrame
    registration_marks: bool
    file_per_pen: bool
    text: PlotText


@dataclass(frozen=True)
class PlotOrder:
    """What was asked of a plot, checked; lengths in millimetres."""

    page: tuple[float, float] | None
    margin: float
    fit: bool
    wishes: Wishes
    machine: Machine
    call: str
    file_per_pen: bool = False

    def files_of(self, path: Path, plotted: Plotted) -> list[tuple[Path, Plotted]]:
        """The files that a path stands for, and what each holds."""
        if not self.file_per_pen:
            return [(path, plotted)]
        return [
            (path.with_stem(f"{path.stem}-{number}-{_plain(run.pen.name)}"), replace(plotted, runs=[run]))
            for number, run in enumerate(plotted.runs, 1)
        ]

    def plotted(self, sheet: Sheet) -> Plotted:
        """What pens draw of a sheet.

        Raises
        ------
        BadValue
            If the margins leave no room, or there would be more than five million strokes.
        """
        box = mark_boxes(sheet).whole if self.fit else None
        placing = placed((sheet.width, sheet.height), sheet.unit, self.page, self.margin, box, self.call)
        self.machine.check_reach(placing.width, placing.height, self.call)
        letters = lettering.glyphs if self.wishes.text == PLOT_TEXTS[0] else lettering.single_strokes
        return plot(sheet._columns, placing, self.wishes, letters, sheet.paper, self.call)


def about(sheet: Sheet, untitled: str = "") -> PlotDetails:
    """What the files say of a sheet."""
    return PlotDetails(sheet.title or untitled or "Drawing", details(sheet), sheet.paper)


def checked_order(how: PlotHow, call: str, spelt: Callable[[str], str] = str) -> PlotOrder:
    """What is asked of a plot, each value checked; `spelt` says how whoever asks writes a name.

    Raises
    ------
    BadValue, BadType
        If there is no such page, no room on it, a pen without width, or a value that will not do.
    FileError
        If the tray of pens cannot be read.
    """
    is_landscape = arguments.truth(how.get("landscape", False), call, spelt("landscape"))
    name = how.get("page_size")
    if name is None and is_landscape:
        raise BadValue(
            f"{call}: {spelt('landscape')} needs a page size: add {spelt('page_size')}, such as A4."
        )
    margin = how.get("margin")
    if margin is None:
        margin = 0.0 if name is None else MARGIN
    path = how.get("pen_tray")
    tray, machine = ((), Machine()) if path is None else read_tray(path, call)
    pen_width = _not_too_fine(how.get("pen_width"), call, spelt("pen_width"))
    if pen_width is not None and tray:
        raise BadValue(f"{call}: {spelt('pen_width')} is for pens without a tray; leave it out.")
    order = PlotOrder(
        page=None if name is None else page_size(name, call, is_landscape),
        margin=millimetres(margin, call, spelt("margin")),
        fit=arguments.truth(how.get("fit", False), call, spelt("fit")),
        wishes=Wishes(
            hidden_lines=arguments.choice(
                how.get("hidden_lines", HIDDEN_LINES[0]), call, spelt("hidden_lines"), HIDDEN_LINES
            ),
            hatch=arguments.choice(how.get("hatch", HATCHES[0]), call, spelt("hatch"), HATCHES),
            hatch_spacing=_not_too_fine(how.get("hatch_spacing"), call, spelt("hatch_spacing")),
            hatch_angle=arguments.angle(how.get("hatch_angle", 45), call, spelt("hatch_angle")),
            tray=tray,
            tolerance=_above_zero(how.get("tolerance"), call, spelt("tolerance")),
            stroke_order=arguments.choice(
                how.get("stroke_order", STROKE_ORDERS[0]), call, spelt("stroke_order"), STROKE_ORDERS
            ),
            pen_order=arguments.choice(
                how.get("pen_order", PEN_ORDERS[0]), call, spelt("pen_order"), PEN_ORDERS
            ),
            pen_width=pen_width,
            dry_frame=arguments.choice(
                how.get("dry_frame", DRY_FRAMES[0]), call, spelt("dry_frame"), DRY_FRAMES
            ),
            registration_marks=arguments.truth(
                how.get("registration_marks", False), call, spelt("registration_marks")
            ),
            text=arguments.choice(how.get("text", PLOT_TEXTS[0]), call, spelt("text"), PLOT_TEXTS),
        ),
        machine=machine,
        call=call,
        file_per_pen=arguments.truth(how.get("file_per_pen", False), call, spelt("file_per_pen")),
    )
    if order.page is not None:
        check_margin(order.page, order.margin, call)
    return order


def _plain(name: str) -> str:
    """The name of a pen as a part of a file's name."""
    return re.sub(r"[^\w.]+", "-", name).strip("-.") or "pen"


def _not_too_fine(value: Length | None, call: str, name: str) -> float | None:
    width = _above_zero(value, call, name)
    return None if width is None else not_too_fine(width, call, name)


def _above_zero(value: Length | None, call: str, name: str) -> float | None:
    if value is None:
        return None
    return arguments.positive(millimetres(value, call, name), call, name)
