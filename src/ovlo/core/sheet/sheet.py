"""The sheet: the surface nibs draw on, and what becomes of it.

sheet = Sheet(640, 480, paper="aliceblue")
sheet.new_nib().forward(90)
sheet.save("line.svg")
"""

from __future__ import annotations

import sys
from collections.abc import Iterable
from os import PathLike
from typing import TYPE_CHECKING

from ovlo.core.paint.timeline import SECONDS, checked_seconds
from ovlo.core.sheet import unsaved
from ovlo.core.sheet.copies import About, restored
from ovlo.core.sheet.door import outlets
from ovlo.core.sheet.excerpt import excerpt
from ovlo.core.sheet.host import current_host
from ovlo.core.sheet.motif import Motif, default_pointer
from ovlo.core.sheet.nib import Nib
from ovlo.core.trail.columns import Columns, Style
from ovlo.core.trail.origins import Origins
from ovlo.core.trail.reader import TrailReader
from ovlo.core.trail.trail import Trail
from ovlo.core.values import arguments, colour
from ovlo.core.values.degrees import normal
from ovlo.core.values.dice import Dice
from ovlo.core.values.errors import BadType, BadValue, UnknownName
from ovlo.core.values.pose import Pose
from ovlo.core.values.sealed import Sealed
from ovlo.core.values.units import LINE_WIDTH, PIXELS_PER_UNIT, refuse_paper_size

if TYPE_CHECKING:
    from ovlo.core.values.finding import Finding


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
        Of the dice; without one they draw a fresh one when first used.

    Raises
    ------
    BadValue, BadType
        When a size is not above 0, the colour is unknown, or the unit is another.

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
        unit: str = "px",
        seed: int | None = None,
    ) -> None:
        refuse_paper_size(width, paper)
        self._width = arguments.positive(width, "Sheet", "width")
        self._height = arguments.positive(height, "Sheet", "height")
        self._paper = colour.parse(paper, "Sheet(paper=…)")
        self._unit = arguments.choice(unit, "Sheet", "unit", PIXELS_PER_UNIT)
        host = current_host()
        if seed is None and host is not None:
            seed = host.seed
        self._dice = Dice(seed, (self._width, self._height))
        self._trail = Trail(host)
        self._nibs: list[Nib] = []
        self._title = "" if host is None else host.title
        self._description = ""
        self._cells: tuple[object, ...] = ()
        """The pictures it was laid out from, if it is a contact sheet: its page shows each of them."""
        self._parameters: dict[str, object] = {}
        if host is not None:
            host.sheets.append(self)
        else:
            unsaved.wait_for_saving(self, "a sheet", 'sheet.save("kite.svg")', sys._getframe(1))

    def __repr__(self) -> str:
        size = f"{self._width:g} × {self._height:g} {self._unit}"
        return f"<Sheet {size}, {len(self._trail)} steps>"

    def __getattr__(self, name: str) -> object:
        if name in dir(Nib):
            words = f"sheet has no {name!r}; a nib has: nib = sheet.new_nib(), then nib.{name}"
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
    def unit(self) -> str:
        """`"px"` or `"mm"`."""
        return self._unit

    @property
    def title(self) -> str:
        """What the picture is called in the files written of it; it may be set."""
        return self._title

    @title.setter
    def title(self, value: str) -> None:
        self._title = arguments.text(value, "title", "it")

    @property
    def parameters(self) -> dict[str, object]:
        """The values the drawing was made with, by name, as written into its files; it may be set."""
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
        """The chance of this sheet."""
        return self._dice

    @property
    def seed(self) -> int | None:
        """The seed of the dice: given, or drawn at their first use; None while they are unused."""
        return self._dice.seed

    @property
    def trail(self) -> TrailReader:
        """The record of everything drawn on this sheet, to be read."""
        unsaved.is_used(self)
        return TrailReader(self._trail)

    @property
    def nibs(self) -> tuple[Nib, ...]:
        """The nibs made so far, in their order."""
        return tuple(self._nibs)

    def new_nib(self, x: float | tuple[float, float] = 0, y: float = 0, heading: float = 0) -> Nib:
        """A new nib on this sheet.

        Parameters
        ----------
        x, y : float
            Where it starts, in sheet units from the centre.
        heading : float
            Which way it points, degrees anticlockwise from east.

        Returns
        -------
        Nib
            Lowered, with black ink of 2 px.

        Examples
        --------
        >>> sheet.new_nib(x=-100, heading=90).pose
        Pose(x=-100.0, y=0.0, heading=90.0)
        """
        if isinstance(x, Iterable) and not isinstance(x, str) and y != 0:
            raise BadType("new_nib: after a point comes a heading by its name: new_nib((1, 2), heading=90).")
        x, y = arguments.point(x, None if isinstance(x, Iterable) else y, "new_nib")
        heading = normal(arguments.angle(heading, "new_nib", "heading"))
        style = Style(line_width=LINE_WIDTH / self._pixels_per_unit)
        pose = Pose(x, y, heading)
        nib = Nib(self._trail, len(self._nibs), pose, style, self, self._dice, default_pointer())
        self._nibs.append(nib)
        return nib

    def clear(self) -> None:
        """Take away the marks; the nibs stay where they are.

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

    def check(self) -> list[Finding]:
        """What may be wrong with the drawing: shapes that do not close, lines nobody sees, and the like.

        Returns
        -------
        list of Finding
            Empty when nothing is. `ovlo check --rules` explains the rules; run by `ovlo check`, findings also
            have the lines of the program.

        Examples
        --------
        A triangle turned by the angle inside it:

        >>> for _ in range(3):
        ...     nib.forward(90)
        ...     nib.left(60)
        >>> [finding.rule for finding in sheet.check()]
        ['turns-miss-360']
        """
        unsaved.is_used(self)
        return outlets().check(self)

    def excerpt(self, x: float, y: float, width: float, height: float, whole: bool = True) -> Motif:
        """The marks inside a rectangle, as a motif whose origin is the rectangle's centre.

        A mark is a stroke, an area or a text. The sheet is unchanged.

        Parameters
        ----------
        x, y : float
            The lower left corner, in sheet units from the centre of the sheet.
        width, height : float
            Above 0.
        whole : bool
            Take only marks that lie wholly inside (line widths left out); otherwise cut them at the border,
            and take a text when its anchor is inside.

        Returns
        -------
        Motif
            It ends at its origin.

        Raises
        ------
        BadValue, BadType
            When the rectangle has no size, or a number will not do.

        Examples
        --------
        >>> nib.circle(20)
        >>> nib.travel_to(200, 0)
        >>> nib.circle(50)
        >>> sheet.excerpt(-30, -30, 60, 60).box
        (-20.0, -20.0, 20.0, 20.0)
        """
        unsaved.is_used(self)
        x, y = arguments.real(x, "excerpt", "x"), arguments.real(y, "excerpt", "y")
        width = arguments.positive(width, "excerpt", "width")
        height = arguments.positive(height, "excerpt", "height")
        whole = arguments.truth(whole, "excerpt", "whole")
        box = x, y, x + width, y + height
        return excerpt(self._columns, box, whole, outlets().text_box)

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
        unsaved.is_used(self)
        outlets().save(self, path, scale=scale, fit=fit, overlay=overlay, text=text, dpi=dpi)

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
        unsaved.is_used(self)
        how = {name: value for name, value in locals().items() if name not in ("self", "path")}
        outlets().save_for_plotter(self, path, how)

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
        unsaved.is_used(self)
        if current_host() is None:
            outlets().show(self, seconds, **flags)

    def __reduce__(self) -> tuple[object, ...]:
        """A sheet is copied and sent to other processes as finished arrays."""
        return restored, (Sheet, About.of(self), self._columns, self._origins)

    def _repr_svg_(self) -> str:
        return outlets().framed(self)

    def _repr_png_(self) -> bytes:
        return outlets().as_bytes(self, ".png")
