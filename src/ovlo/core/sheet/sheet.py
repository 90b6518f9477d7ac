"""The sheet: the surface nibs draw on, and what becomes of it.

sheet = Sheet(640, 480, paper="aliceblue")
sheet.new_nib().forward(90)
sheet.save("line.svg")
"""

from __future__ import annotations

import sys
from collections.abc import Iterable
from typing import TYPE_CHECKING

from ovlo.core.sheet import unsaved
from ovlo.core.sheet.copies import About, restored
from ovlo.core.sheet.door import outlets
from ovlo.core.sheet.host import current_host
from ovlo.core.sheet.motif import Motif, default_pointer
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.outgoing import Outgoing
from ovlo.core.trail.columns import Columns, Style
from ovlo.core.trail.origins import Origins
from ovlo.core.trail.reader import TrailReader
from ovlo.core.trail.trail import Trail
from ovlo.core.values import arguments, colour
from ovlo.core.values.degrees import normal
from ovlo.core.values.dice import Dice
from ovlo.core.values.errors import BadType, UnknownName
from ovlo.core.values.pose import Pose
from ovlo.core.values.units import LINE_WIDTH, PIXELS_PER_UNIT, refuse_paper_size

if TYPE_CHECKING:
    from ovlo.core.values.finding import Finding


class Sheet(Outgoing):
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
        from ovlo.core.sheet.excerpt import excerpt  # with all of painting, which few programs need

        return excerpt(self._columns, box, whole, outlets().text_box)

    def __reduce__(self) -> tuple[object, ...]:
        """A sheet is copied and sent to other processes as finished arrays."""
        return restored, (Sheet, About.of(self), self._columns, self._origins)
