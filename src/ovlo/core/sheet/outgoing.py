"""What leads from a sheet to files, pages and notebooks.

sheet.save("kite.svg")
sheet.show()
"""

from __future__ import annotations

from collections.abc import Iterable
from os import PathLike
from typing import TYPE_CHECKING, cast

from ovlo.core.paint.timeline import SECONDS, checked_seconds
from ovlo.core.sheet import unsaved
from ovlo.core.sheet.door import outlets
from ovlo.core.sheet.host import current_host
from ovlo.core.trail.trail import Trail
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadValue
from ovlo.core.values.sealed import Sealed

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet


class Outgoing(Sealed):
    """A sheet, as far as it is saved, plotted and shown."""

    _trail: Trail

    def save(
        self,
        path: str | PathLike[str],
        scale: float = 1,
        fit: bool = False,
        overlay: str | Iterable[str] = (),
        text: str = "words",
        dpi: float | None = None,
    ) -> None:
        """Write the picture to a file; its ending says in which format.

        Parameters
        ----------
        path : path
            Ends in `.svg`, `.png` or `.pdf`. The folder must exist. The file is written whole or not at all.
        scale : float
            How many times as large as the sheet, above 0. A PNG of scale 1 has one pixel per CSS pixel.
        fit : bool
            Zoom the view so that all marks are seen, with a margin. Lines and texts are zoomed with it.
        overlay : str or iterable of str
            What to lay over the picture: "grid" of coordinates, "axes", "steps" (the number of each step),
            "angles" (outer and inner ones, at corners), "pointer" (where each nib ended) and "findings" (of
            `check`). A string may name several, with commas between.
        text : "words" or "shapes"
            Whether words are text in an SVG or PDF, set in the fonts of whoever looks at it, or the shapes of
            letters, which look the same everywhere.
        dpi : float
            Pixels of a PNG in an inch of the sheet, instead of a scale; scale 1 has 96.

        Raises
        ------
        BadValue
            When no format has this ending, no overlay has this name, or the picture would be too large.
        FileTrouble
            When the file cannot be written.

        Examples
        --------
        >>> sheet.save("kite.svg")
        """
        unsaved.is_used(self._sheet)
        outlets().save(self._sheet, path, scale=scale, fit=fit, overlay=overlay, text=text, dpi=dpi)

    def save_for_plotter(
        self,
        path: str | PathLike[str],
        *,
        page_size: str | None = None,
        landscape: bool = False,
        margin: float | str | None = None,
        fit: bool = False,
        hidden: str = "left-out",
        hatch: str = "lines",
        hatch_gap: float | str | None = None,
        hatch_angle: float = 45,
        pen_tray: str | PathLike[str] | None = None,
        precision: float | str | None = None,
        order: str = "short",
        feed: float | None = None,
        on_lift: str | None = None,
        on_lower: str | None = None,
    ) -> None:
        """Write what a pen plotter or a cutter draws of the picture.

        What later areas hide is left out, areas are filled by lines, each ink and width has its pen, lines
        are drawn once and in an order with little travel. Lengths are in millimetres, or texts: "12mm".

        Parameters
        ----------
        path : path
            Ends in `.svg` (millimetres, a group for each pen), `.gcode` (ISO 6983), `.hpgl` (HP-GL/2), or
            `.png` for a preview with the ways of the lifted pen.
        page_size : str
            Such as "A4", "letter" or "200x300mm"; without it, a page as large as the sheet.
        landscape : bool
            Turn the page.
        margin : length
            What stays empty on each side: 10 mm, or nothing without a page size.
        fit : bool
            Fill the page with all marks; otherwise the sheet has its own size, in the middle.
        hidden : "left-out" or "drawn"
            What becomes of what later opaque areas cover.
        hatch : "lines", "crossed", "rings" or "none"
            How areas are filled; rings run along the border.
        hatch_gap : length
            Between two lines; without it, the width of the pen.
        hatch_angle : float
            Of the lines, degrees anticlockwise from east.
        pen_tray : path
            A TOML file of the pens at hand, one table each with `ink` and `line_width`; each mark takes the
            nearest by CIEDE2000.
        precision : length
            How far a line may be off; without it, a tenth of the finest pen's width.
        order : "short" or "drawn"
            With little travel, or as the program drew.
        feed : float
            How fast a pen draws, millimetres in a minute; 2000 without it.
        on_lift, on_lower : str
            The G-code that lifts and lowers the pen; moves along Z without them.

        Raises
        ------
        BadValue
            When there is no such page or format, the margins leave no room, a gap is 0, a pen has no width,
            or it would take more than five million strokes.
        FileTrouble
            When a file cannot be read or written.

        Examples
        --------
        >>> nib.circle(40, fill="tomato")
        >>> sheet.save_for_plotter("kite.gcode", page_size="A5", hatch="rings", hatch_gap=1)
        """
        unsaved.is_used(self._sheet)
        how = {name: value for name, value in locals().items() if name not in ("self", "path")}
        outlets().save_for_plotter(self._sheet, path, how)

    def show(
        self,
        seconds: float | None = None,
        steps_per_second: float | None = None,
        at_once: bool = False,
        wait: bool = True,
        pointer: bool = False,
    ) -> None:
        """Watch the drawing in the browser, as it was drawn; run by `ovlo`, do nothing.

        In a notebook the page is in the cell.

        Parameters
        ----------
        seconds : float
            How long the whole replay takes, about 4 without it; the holds of `pause` come on top.
        steps_per_second : float
            Instead of `seconds`, a pace.
        at_once : bool
            Show the finished picture, without a replay.
        wait : bool
            Wait until the page is closed. With False, go on, and the page follows what is drawn next: at a
            prompt each command as it is given.
        pointer : bool
            Leave the nib's pointer at the end.

        Raises
        ------
        NoBrowser
            When no browser can be opened.
        BadValue
            When the replay would take no time, or both paces are given.
        """
        if steps_per_second is not None:
            if seconds is not None:
                raise BadValue("show: give seconds or steps_per_second, not both.")
            pace = arguments.positive(steps_per_second, "show", "steps_per_second")
            seconds = max(len(self._trail), 1) / pace
        seconds = SECONDS if seconds is None else checked_seconds(seconds, "show")
        flags = {"at_once": at_once, "wait": wait, "pointer": pointer}
        for name, value in flags.items():
            arguments.truth(value, "show", name)
        unsaved.is_used(self._sheet)
        if current_host() is None:
            outlets().show(self._sheet, seconds, **flags)

    def _repr_svg_(self) -> str:
        return outlets().framed(self._sheet)

    def _repr_png_(self) -> bytes:
        return outlets().as_bytes(self._sheet, ".png")

    @property
    def _sheet(self) -> Sheet:
        return cast("Sheet", self)
