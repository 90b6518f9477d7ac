"""The sheet: the surface nibs draw on, and what becomes of it.

sheet = Sheet(640, 480, paper="aliceblue")
sheet.new_nib().forward(90)
sheet.save("line.svg")
"""

from __future__ import annotations

import sys
import warnings
from collections.abc import Iterable
from os import PathLike
from typing import TYPE_CHECKING, BinaryIO, get_args

from ovlo.core.paint.timeline import SECONDS, checked_seconds
from ovlo.core.sheet import unsaved
from ovlo.core.sheet.answers import answer_errors
from ovlo.core.sheet.copies import SheetState, restored
from ovlo.core.sheet.door import outlets, studio
from ovlo.core.sheet.host import current_host
from ovlo.core.sheet.motif import Motif, default_pointer
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.reader import TrailReader
from ovlo.core.trail.columns import Columns, Style
from ovlo.core.trail.origins import Origins
from ovlo.core.trail.trail import Trail
from ovlo.core.values import arguments, colour
from ovlo.core.values.choices import (
    DryFrame,
    Hatch,
    HiddenLines,
    PenOrder,
    PlotText,
    StrokeOrder,
    TextOutput,
    Unit,
)
from ovlo.core.values.degrees import normal
from ovlo.core.values.dice import Dice
from ovlo.core.values.errors import BadType, BadUse, BadValue, NoEffect, UnknownName
from ovlo.core.values.pose import Pose
from ovlo.core.values.sealed import Sealed
from ovlo.core.values.units import LINE_WIDTH, PIXELS_PER_UNIT, refuse_paper_size

if TYPE_CHECKING:
    from matplotlib.axes import Axes

    from ovlo.core.compare.comparison import Comparison
    from ovlo.core.sheet.step_table import CallTotal, Step
    from ovlo.core.values.arrays import Bytes
    from ovlo.core.values.finding import Finding
    from ovlo.render.flat import FlatPath
    from ovlo.render.plotter.report import PlotReport


class Sheet(Sealed):
    """The surface: its size, its paper, its nibs and the trail they leave.

    Parameters
    ----------
    width, height : float
        In sheet units, above 0. The origin is the centre, x to the right, y up.
    paper : str or Colour
        The colour of the paper, or "transparent".
    unit : "px" or "mm"
        CSS pixels (1/96 inch) or millimetres.
    seed : int, optional
        The seed of the dice. By default the dice choose a new seed when they are first used.

    Raises
    ------
    BadValue, BadType
        If a size is not above 0, the colour is unknown, or the unit is neither of these.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> sheet = Sheet(640, 480, paper="aliceblue")
    >>> nib = sheet.new_nib()
    >>> nib.forward(90)
    >>> sheet
    <Sheet 640 × 480 px, 2 steps>
    """

    def __init__(
        self,
        width: float = 640,
        height: float = 480,
        paper: str | colour.Colour = "white",
        unit: Unit = "px",
        seed: int | None = None,
    ) -> None:
        refuse_paper_size(width, paper)
        self._width = arguments.positive(width, "Sheet", "width")
        self._height = arguments.positive(height, "Sheet", "height")
        self._paper = colour.parse(paper, "Sheet(paper=…)")
        self._unit: Unit = arguments.choice(unit, "Sheet", "unit", get_args(Unit))
        host = current_host()
        if seed is None and host is not None:
            seed = host.seed
        self._dice = Dice(seed, (self._width, self._height))
        self._trail = Trail(host)
        self._nibs: list[Nib] = []
        self._title = "" if host is None else host.title
        self._description = ""
        self._parameters: dict[str, object] = {}
        if host is not None:
            host.sheets.append(self)
        else:
            frame = sys._getframe(1)
            answer_errors(frame)
            unsaved.wait_for_saving(self, "a sheet", 'sheet.save("kite.svg")', frame)

    def __repr__(self) -> str:
        size = f"{self._width:g} × {self._height:g} {self._unit}"
        return f"<Sheet {size}, {len(self._trail)} steps>"

    if not TYPE_CHECKING:

        def __getattr__(self, name: str) -> object:
            if name in dir(Nib) and name not in ("left", "right"):  # edges, more likely
                words = f"sheet has no {name!r}; a nib has it: nib = sheet.new_nib(), then nib.{name}"
                raise UnknownName(words, name=name, obj=self)
            return super().__getattr__(name)

    @property
    def width(self) -> float:
        """Sheet units from the left edge to the right."""
        return self._width

    @property
    def height(self) -> float:
        """Sheet units from the lower edge to the upper."""
        return self._height

    @property
    def paper(self) -> colour.Colour:
        """The colour of the paper."""
        return self._paper

    @property
    def unit(self) -> Unit:
        """`"px"` or `"mm"`."""
        return self._unit

    @property
    def title(self) -> str:
        """The title of the picture in the files written of it; it may be set."""
        return self._title

    @title.setter
    def title(self, value: str) -> None:
        self._title = arguments.text(value, "title", "")

    @property
    def parameters(self) -> dict[str, object]:
        """The parameter values of the drawing, by name, as written into its files; they may be set."""
        return self._parameters

    @parameters.setter
    def parameters(self, value: dict[str, object]) -> None:
        self._parameters = arguments.by_name(value, "parameters")

    @property
    def _columns(self) -> Columns:
        """All that is drawn so far, as finished arrays."""
        return self._trail.columns()

    @property
    def _origins(self) -> Origins | None:
        """Where in the program the steps came from, if that is recorded."""
        return self._trail.origins()

    @property
    def _pixels_per_unit(self) -> float:
        """How many CSS pixels a sheet unit is."""
        return PIXELS_PER_UNIT[self._unit]

    @property
    def dice(self) -> Dice:
        """The random numbers of this sheet."""
        return self._dice

    @property
    def seed(self) -> int | None:
        """The seed of the dice: the one given, or one chosen at their first use; None until then."""
        return self._dice.seed

    @property
    def trail(self) -> TrailReader:
        """The record of everything drawn on this sheet, read-only."""
        unsaved.is_used(self)
        return TrailReader(self._trail)

    @property
    def nibs(self) -> tuple[Nib, ...]:
        """The nibs of this sheet, in the order they were made."""
        return tuple(self._nibs)

    def new_nib(self, x: float | tuple[float, float] = 0, y: float = 0, heading: float = 0) -> Nib:
        """Make a new nib on this sheet.

        Parameters
        ----------
        x, y : float
            Its starting point, in sheet units from the centre.
        heading : float
            The direction it points in, degrees anticlockwise from east.

        Returns
        -------
        Nib
            Lowered, with black ink and a line width of 2 px.

        Examples
        --------
        >>> sheet.new_nib(x=-100, heading=90).pose
        Pose(x=-100.0, y=0.0, heading=90.0)
        """
        if isinstance(x, Iterable) and not isinstance(x, str) and y != 0:
            raise BadType("new_nib: after a point, name the heading: new_nib((1, 2), heading=90).")
        x, y = arguments.point(x, None if isinstance(x, Iterable) else y, "new_nib")
        heading = normal(arguments.angle(heading, "new_nib", "heading"))
        style = Style(line_width=LINE_WIDTH / self._pixels_per_unit)
        pose = Pose(x, y, heading)
        nib = Nib(self._trail, len(self._nibs), pose, style, self, self._dice, default_pointer())
        self._nibs.append(nib)
        return nib

    def clear(self) -> None:
        """Remove all marks; the nibs stay where they are.

        Examples
        --------
        >>> nib.forward(90)
        >>> sheet.clear()
        >>> len(sheet.trail), nib.position
        (0, (90.0, 0.0))
        """
        self._trail.clear()
        for nib in self._nibs:
            nib._forget_marks()

    def undo(self, count: int = 1) -> None:
        """Take back the last things drawn, as at a prompt: a step, a shape, a stamp or a text each.

        The nib that drew is put back to where it was before, turns included; its style stays. An area whose
        steps are all taken back is gone too.

        Parameters
        ----------
        count : int
            1 or more.

        Raises
        ------
        BadValue
            If there is less to take back; nothing is taken back then.
        BadUse
            If a block such as `with nib.area(…)` is open.

        Examples
        --------
        >>> nib.forward(90)
        >>> nib.circle(20)
        >>> sheet.undo(2)
        >>> len(sheet.trail), nib.position
        (1, (0.0, 0.0))
        """
        count = arguments.whole(count, "undo", "count", 1)
        for nib in self._nibs:
            if nib._blocks:
                raise BadUse("undo: a block of the nib is open; call undo after it.")
        poses = self._trail.take_back(count)
        for nib in self._nibs:
            nib._go_back(poses.get(nib._number))

    def check(self, *, skip: Iterable[str] = ()) -> list[Finding]:
        """Find what may be wrong with the drawing: shapes that do not close, lines nobody can see, and the
        like.

        A comment `# ovlo: skip not-closed` at the end of a line of the program turns a rule off for that
        line, if lines were recorded.

        Parameters
        ----------
        skip : list of str
            Names of rules to turn off.

        Returns
        -------
        list of Finding
            Empty if nothing is wrong. `ovlo check --rules` explains the rules. Findings have the lines of the
            program if `ovlo check` or `drawing.check` runs it, or `drawing.run(traced=True)` drew it.

        Raises
        ------
        BadValue, BadType
            If there is no such rule.

        Examples
        --------
        A triangle that turns by its inner angle instead of its outer one:

        >>> for _ in range(3):
        ...     nib.forward(90)
        ...     nib.left(60)
        >>> [finding.rule for finding in sheet.check()]
        ['turns-miss-360']
        """
        unsaved.is_used(self)
        return outlets.check(self, skip)

    def compare(self, other: Sheet) -> Comparison:
        """Find out whether another sheet shows the same picture, and how the two differ.

        The order, direction and splitting of lines do not matter.

        Returns
        -------
        Comparison
            True if they are the same, even if one is moved, turned, scaled or mirrored.

        Raises
        ------
        BadType, BadUse
            If the other is not a sheet, or has another unit.

        Examples
        --------
        >>> other = Sheet()
        >>> for each in (nib, other.new_nib(heading=90)):
        ...     each.polygon(4, side_length=50)
        >>> bool(sheet.compare(other)), str(sheet.compare(other))
        (True, 'The same.')
        """
        unsaved.is_used(self)
        unsaved.is_used(other)
        return outlets.compare(self, other)

    def steps(self) -> list[Step]:
        """List everything that was drawn, step by step: a table that `pandas.DataFrame` takes as it is.

        Returns
        -------
        list of Step
            In the order in which they were made; texts are rows too.

        Examples
        --------
        >>> nib.forward(90)
        >>> sheet.steps()[-1].kind, sheet.steps()[-1].length
        ('line', 90.0)
        """
        from ovlo.core.sheet.step_table import steps_of  # with all of painting, which few programs need

        unsaved.is_used(self)
        return steps_of(self._columns, self._origins)

    def calls(self) -> list[CallTotal]:
        """List the functions that drew, as a tree: each under the one that called it.

        Returns
        -------
        list of CallTotal

        Raises
        ------
        BadUse
            If the lines of the program were not recorded; plain drawing never records them.

        Examples
        --------
        >>> @drawing()
        ... def kite(nib):
        ...     nib.polygon(4, radius=90)
        >>> sheet = kite.run(traced=True)
        >>> calls = sheet.calls()
        """
        from ovlo.core.sheet.step_table import call_totals  # with all of painting, which few programs need

        unsaved.is_used(self)
        origins = self._origins
        if origins is None:
            raise BadUse(
                "calls: the lines of the program were not recorded; draw with kite.run(traced=True), or run "
                "`ovlo steps FILE --calls`."
            )
        return [total for _, total in call_totals(self._columns, origins)]

    def paths(self, *, tolerance: float = 0.05) -> list[FlatPath]:
        """Give all marks as polylines with their styles, for other programs.

        Parameters
        ----------
        tolerance : float
            The largest permitted deviation from arcs and letters, in sheet units.

        Returns
        -------
        list of FlatPath
            In painting order, the lowest first. A text is given as the outlines of its letters.

        Examples
        --------
        >>> nib.polygon(3, radius=40, fill="tomato")
        >>> path, = sheet.paths()
        >>> path.fill.css, path.contours[0].shape
        ('#ff6347', (4, 2))
        """
        unsaved.is_used(self)
        return outlets.paths(self, tolerance)

    def draw_on(self, axes: Axes) -> None:
        """Add the drawing to Matplotlib axes as vectors: in data units, at equal aspect, without the paper.

        Parameters
        ----------
        axes : matplotlib.axes.Axes
            Line widths are in data units too, at whatever zoom.

        Raises
        ------
        BadType
            If these are not axes.
        """
        unsaved.is_used(self)
        outlets.draw_on(self, axes)

    def cropped(self, x: float, y: float, width: float, height: float, *, whole: bool = True) -> Motif:
        """Copy the marks inside a rectangle into a motif whose origin is the rectangle's centre.

        A mark is a stroke, an area or a text. The sheet is unchanged.

        Parameters
        ----------
        x, y : float
            The lower left corner, in sheet units from the centre of the sheet.
        width, height : float
            Above 0.
        whole : bool
            Whether to take only marks that lie wholly inside (ignoring line widths). With False, marks are
            cut at the border, and a text is taken if its anchor is inside.

        Returns
        -------
        Motif
            It ends at its origin.

        Raises
        ------
        BadValue, BadType
            If the rectangle has no size, or a number is not valid.

        Examples
        --------
        >>> nib.circle(20)
        >>> nib.travel_to(200, 0)
        >>> nib.circle(50)
        >>> sheet.cropped(-30, -30, 60, 60).bounds
        (-20.0, -20.0, 20.0, 20.0)
        """
        unsaved.is_used(self)
        x, y = arguments.real(x, "cropped", "x"), arguments.real(y, "cropped", "y")
        width = arguments.positive(width, "cropped", "width")
        height = arguments.positive(height, "cropped", "height")
        whole = arguments.truth(whole, "cropped", "whole")
        box = x, y, x + width, y + height
        from ovlo.core.sheet.cropping import cropped  # with all of painting, which few programs need

        motif = cropped(self._columns, self._paper, box, whole, outlets.text_box)
        if not motif._columns.is_traced.any() and not motif._columns.texts:
            fix = "whole=False cuts marks at the border" if whole else "nothing is drawn there"
            warnings.warn(f"cropped: no {'whole ' * whole}mark lies in this rectangle; {fix}.", NoEffect, 2)
        return motif

    # ── files and pages ─────────────────────────────────────────────────────────────────────────────────────

    def save(
        self,
        path: str | PathLike[str] | BinaryIO,
        *,
        format: str | None = None,
        scale: float = 1,
        fit: bool = False,
        overlay: str | Iterable[str] = (),
        text: TextOutput = "editable",
        dpi: float | None = None,
        page_size: str | None = None,
        landscape: bool = False,
        margin: float | str | None = None,
        tiles: str | None = None,
        groups: bool = False,
        allow_large: bool = False,
    ) -> None:
        """Write the picture to a file; the file ending selects the format.

        Parameters
        ----------
        path : path or binary file object
            Ends in `.svg`, `.png`, `.pdf`, or `.html` for a page that replays the drawing. The folder must
            exist. The file is written whole or not at all.
        format : str
            The format, such as "svg", of a file object, or of a path with another ending.
        scale : float
            The size of the picture relative to the sheet, above 0. A PNG of scale 1 has one pixel for each
            CSS pixel.
        fit : bool
            Zoom so that all marks are visible, with a margin. Line widths and texts are zoomed too.
        overlay : str or iterable of str
            What to lay over the picture: "grid" (of coordinates), "axes", "steps" (the number of each step),
            "angles" (outer and inner angles at corners), "pointer" (where each nib ended) and "findings" (of
            `check`). A string may name several, separated by commas.
        text : "editable" or "outlines"
            Whether an SVG or PDF holds texts as editable text, set in the viewer's fonts, or as outlines,
            which look the same everywhere.
        dpi : float
            PNG resolution in pixels per inch of the sheet; replaces `scale` (scale 1 is 96).
        page_size : str
            The paper size of a PDF, such as "A4", "letter" or "200x300mm"; the picture fills the page. By
            default the page is as large as the sheet.
        landscape : bool
            Use landscape orientation.
        margin : length
            The empty space on each side of a page: millimetres, or a string such as "12mm"; 10 mm by default.
        tiles : str
            A smaller paper size, into sheets of which the page is split: a poster to glue together.
        groups : bool
            Whether an SVG has a group for each call of a function, so that its shapes can be picked in an
            editor; of a picture that `drawing.run(traced=True)` drew.
        allow_large : bool
            Whether an `.html` may be larger than 100 MB.

        Raises
        ------
        BadValue
            If no format has this ending, no overlay has this name, or the picture would be too large.
        FileError
            If the file cannot be written.
        BadUse
            If there are to be groups and it is not known which function drew what.

        Examples
        --------
        >>> sheet.save("kite.svg")
        """
        unsaved.is_used(self)
        outlets.save(
            self,
            path,
            format=format,
            scale=scale,
            fit=fit,
            overlay=overlay,
            text=text,
            dpi=dpi,
            page_size=page_size,
            landscape=landscape,
            margin=margin,
            tiles=tiles,
            groups=groups,
            allow_large=arguments.truth(allow_large, "save", "allow_large"),
        )

    def to_bytes(
        self,
        format: str,
        *,
        scale: float = 1,
        fit: bool = False,
        overlay: str | Iterable[str] = (),
        text: TextOutput = "editable",
        dpi: float | None = None,
    ) -> bytes:
        """Return what `save` would write.

        Parameters
        ----------
        format : str
            "svg", "png", "pdf" or "html".
        scale, fit, overlay, text, dpi
            See `save`.

        Examples
        --------
        >>> sheet.to_bytes("png")[1:4]
        b'PNG'
        """
        unsaved.is_used(self)
        how = {"scale": scale, "fit": fit, "overlay": overlay, "text": text, "dpi": dpi}
        return outlets.to_bytes(self, format, how)  # type: ignore[arg-type]

    def to_array(self, *, scale: float = 1) -> Bytes:
        """Return the picture as pixels.

        Parameters
        ----------
        scale : float
            With scale 1, one pixel for each CSS pixel.

        Returns
        -------
        array of shape (rows, columns, 4)
            Bytes: red, green, blue and opacity, the top row first.

        Examples
        --------
        >>> Sheet(64, 48, paper="tomato").to_array()[0, 0].tolist()
        [255, 99, 71, 255]
        """
        unsaved.is_used(self)
        return outlets.to_array(self, scale)

    def animate(
        self,
        path: str | PathLike[str],
        *,
        seconds: float = SECONDS,
        fps: float = 25,
        hold: float = 1,
        pointer: bool = False,
        loops: int = 0,
        scale: float = 1,
        overlay: str | Iterable[str] = (),
    ) -> None:
        """Write an animation of the drawing as it is drawn; pauses are added to its length.

        Parameters
        ----------
        path : path
            Ends in `.gif`, `.apng`, `.webp`, `.svg`, or `.html` for a page that plays at once.
        seconds : float
            The length of the animation.
        fps : float
            Frames per second.
        hold : float
            Seconds to show the last frame.
        pointer : bool
            Show where the nib is and where it points.
        loops : int
            How many times it plays; 0 repeats it forever. An SVG plays once.
        scale, overlay
            See `save`.

        Raises
        ------
        BadValue, BadType
            If no format has this ending, a value is not valid, or there would be too many frames.
        FileError
            If the file cannot be written.

        Examples
        --------
        >>> nib.polygon(5, radius=90)
        >>> sheet.animate("kite.gif", seconds=1, fps=10)
        """
        unsaved.is_used(self)
        outlets.animate(
            self,
            path,
            scale,
            seconds=seconds,
            fps=fps,
            hold=hold,
            pointer=pointer,
            loops=loops,
            overlay=overlay,
        )

    def save_plot(
        self,
        path: str | PathLike[str],
        *,
        page_size: str | None = None,
        landscape: bool = False,
        margin: float | str | None = None,
        fit: bool = False,
        hidden_lines: HiddenLines = "remove",
        hatch: Hatch = "parallel",
        hatch_spacing: float | str | None = None,
        hatch_angle: float = 45,
        pen_tray: str | PathLike[str] | None = None,
        tolerance: float | str | None = None,
        stroke_order: StrokeOrder = "short-travel",
        pen_order: PenOrder = "light-first",
        pen_width: float | str | None = None,
        dry_frame: DryFrame = "none",
        registration_marks: bool = False,
        file_per_pen: bool = False,
        text: PlotText = "outlines",
    ) -> PlotReport:
        """Convert the picture to pen-plotter or cutter output.

        Lines that later areas cover are removed, areas are hatched, each ink gets its own pen, lines wider
        than their pen are filled, and lines are drawn once, in an order that keeps travel short. A length is
        a number of millimetres, or a string such as "12mm".

        Parameters
        ----------
        path : path
            Ends in `.svg` (millimetres, a group for each pen), `.gcode` (ISO 6983), `.hpgl` (HP-GL/2), or
            `.png` or `.html` for a preview: what a machine draws that is given the file, with the travel of
            the lifted pen.
        page_size : str
            Such as "A4", "letter" or "200x300mm"; by default the page is as large as the sheet.
        landscape : bool
            Use landscape orientation.
        margin : length
            The empty space on each side; by default 10 mm with a page size, and 0 without.
        fit : bool
            Fill the page with all marks; otherwise the sheet keeps its size and is centred.
        hidden_lines : "remove" or "keep"
            Whether to draw lines that later opaque areas cover.
        hatch : "parallel", "crosshatch", "concentric" or "none"
            How to fill areas; concentric lines follow the border.
        hatch_spacing : length
            The distance between hatch lines; by default the width of the pen.
        hatch_angle : float
            The direction of hatch lines, degrees anticlockwise from east.
        pen_tray : path
            A TOML file that lists the pens at hand, one table each with `ink` and `line_width` (and, if you
            like, `passes` and `hatch_angle`), and may describe the machine in a table `[machine]`. Each mark
            takes the pen of the nearest ink (CIEDE2000).
        tolerance : length
            The largest permitted deviation from the drawn line; by default a tenth of the finest pen's width.
        stroke_order : "short-travel" or "as-drawn"
            The order of strokes: the shortest travel, or as the program drew them.
        pen_order : "light-first" or "as-drawn"
            The order of pens, as far as none has to lie on another: light inks first, or as the picture needs
            them.
        pen_width : length
            The width of every pen, if there is no tray; by default the width of most lines of its ink.
        dry_frame : "none", "drawing" or "page"
            What the lifted pen goes around first, so that you see where the drawing will be.
        registration_marks : bool
            Whether every pen draws a cross in each corner of the page, at which the next pen can be set.
        file_per_pen : bool
            Whether each pen gets a file of its own: `kite-1-black.gcode` for `kite.gcode`.
        text : "outlines" or "stroke"
            Whether words are the filled outlines of their letters, or written in letters of single strokes.

        Returns
        -------
        PlotReport
            What each pen takes, and what is not as in the picture.

        Raises
        ------
        BadValue
            If there is no such page or format, the margins leave no room, a spacing is 0, a pen has no width,
            or the plot would need more than five million strokes.
        FileError
            If a file cannot be read or written.

        Examples
        --------
        >>> nib.circle(40, fill="tomato")
        >>> report = sheet.save_plot("kite.gcode", page_size="A5", hatch="concentric", hatch_spacing=1)
        >>> [pen.name for pen in report.pens]
        ['#ff6347 0.53 mm', '#000000 0.53 mm']
        """
        unsaved.is_used(self)
        return outlets.save_plot(
            self,
            path,
            page_size=page_size,
            landscape=landscape,
            margin=margin,
            fit=fit,
            hidden_lines=hidden_lines,
            hatch=hatch,
            hatch_spacing=hatch_spacing,
            hatch_angle=hatch_angle,
            pen_tray=pen_tray,
            tolerance=tolerance,
            stroke_order=stroke_order,
            pen_order=pen_order,
            pen_width=pen_width,
            dry_frame=dry_frame,
            registration_marks=registration_marks,
            file_per_pen=file_per_pen,
            text=text,
        )

    def show(
        self,
        *,
        seconds: float | None = None,
        steps_per_second: float | None = None,
        at_once: bool = False,
        wait: bool = True,
        pointer: bool = False,
    ) -> None:
        """Replay the drawing in the browser, as it was drawn; when `ovlo` runs the program, do nothing.

        In a notebook the page is shown in the cell.

        Parameters
        ----------
        seconds : float
            The length of the whole replay, by default about 4; pauses are added to it.
        steps_per_second : float
            The speed of the replay; replaces `seconds`.
        at_once : bool
            Show the finished picture without replaying it.
        wait : bool
            Wait until the page is closed. With False, return at once; the page then follows what is drawn
            next, at a prompt command by command.
        pointer : bool
            Show the nib's pointer at the end too.

        Raises
        ------
        NoBrowser
            If no browser can be opened.
        BadValue
            If the replay would take no time, or both `seconds` and `steps_per_second` are given.
        """
        if steps_per_second is not None:
            if seconds is not None:
                raise BadValue("show: give seconds or steps_per_second, not both.")
            speed = arguments.positive(steps_per_second, "show", "steps_per_second")
            seconds = max(len(self._trail), 1) / speed
        seconds = SECONDS if seconds is None else checked_seconds(seconds, "show")
        at_once = arguments.truth(at_once, "show", "at_once")
        wait = arguments.truth(wait, "show", "wait")
        pointer = arguments.truth(pointer, "show", "pointer")
        unsaved.is_used(self)
        if current_host() is None:
            studio.show(self, seconds, at_once, wait, pointer)

    def _repr_svg_(self) -> str:
        return outlets.framed(self)

    def _repr_png_(self) -> bytes:
        return outlets.as_bytes(self, ".png")

    def __reduce__(self) -> tuple[object, ...]:
        """A sheet is copied and sent to other processes as finished arrays."""
        return restored, (type(self), SheetState.of(self), self._columns, self._origins)
