"""Motifs: pieces of a drawing as values, which can be turned, scaled, joined and stamped.

bow = Motif.record(draw_bow, 20)
tail = end_to_end([bow.scaled(0.9**i) for i in range(12)], turn=5)
nib.stamp(tail)
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import lru_cache
from os import PathLike
from typing import IO, TYPE_CHECKING, Concatenate, ParamSpec, overload

from ovlo.core.pen.pointer import pointer_columns
from ovlo.core.sheet.door import outlets
from ovlo.core.sheet.host import current_host
from ovlo.core.sheet.nib import Nib
from ovlo.core.trail.colouring import coloured
from ovlo.core.trail.columns import Columns, Style
from ovlo.core.trail.similarity import Similarity, check_reach, transformed
from ovlo.core.trail.trail import StepCounter, Trail
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Box
from ovlo.core.values.colour import WHITE, Colour
from ovlo.core.values.degrees import normal
from ovlo.core.values.dice import Dice
from ovlo.core.values.errors import BadType
from ovlo.core.values.pose import Pose
from ovlo.core.values.sealed import Answering, unchanging

if TYPE_CHECKING:
    from ovlo.core.compare.comparison import Comparison

P = ParamSpec("P")


@unchanging
@dataclass(frozen=True, eq=False, slots=True)
class Motif(Answering):
    """An immutable piece of drawing; `Motif.record` makes one.

    It starts at its own origin, (0, 0) with heading 0. Transforms act about that origin, return a new motif,
    and move the marks and the end pose together.

    Attributes
    ----------
    end : Pose
        The pose at which its nib ended.

    Examples
    --------
    >>> def bow(nib, size):
    ...     nib.polygon(3, radius=size, turn=180)
    ...     nib.travel(2 * size)
    >>> Motif.record(bow, 10).scaled(2).end
    Pose(x=40.0, y=0.0, heading=0.0)
    """

    _columns: Columns = field(repr=False)
    end: Pose
    _paper: Colour = field(default=WHITE, repr=False)

    @overload
    @classmethod
    def record(
        cls, function: Callable[Concatenate[Nib, P], object], *args: P.args, **kwargs: P.kwargs
    ) -> Motif: ...

    @overload
    @classmethod
    def record(
        cls, function: Callable[..., object], *args: object, dice: Dice | None, **kwargs: object
    ) -> Motif: ...

    @classmethod  # type: ignore[misc]  # no type says that P has no parameter called dice
    def record(
        cls,
        function: Callable[..., object],
        *args: object,
        dice: Dice | None = None,
        **kwargs: object,
    ) -> Motif:
        """Record what a function draws as a motif.

        Parameters
        ----------
        function : callable
            A function that takes a nib first; that nib has no sheet.
        *args, **kwargs
            Further arguments for the function.
        dice : Dice, optional
            The random numbers of the function; without dice, using random numbers is an error.

        Raises
        ------
        BadType
            If the function takes no nib.

        Examples
        --------
        >>> gull = Motif.record(lambda nib: nib.arc_right(20, 110))
        >>> gull.end.heading
        250.0
        """
        arguments.takes_nib(function, "Motif.record")
        if dice is not None and not isinstance(dice, Dice):
            given = arguments.brief(dice)
            raise BadType(f"Motif.record: dice must be a Dice, such as nib.dice or Dice(7), not {given}.")
        return recorded(lambda nib: function(nib, *args, **kwargs), dice, current_host())

    @classmethod
    def from_svg(cls, source: str | PathLike[str] | IO[bytes] | IO[str]) -> Motif:
        """Read the picture in an SVG file as a motif, in the units and with the origin of the file, y up.

        Paths, basic shapes, groups, nested views, transforms and style sheets are read, with colours, line
        widths, dashes, caps, joins and fill rules. A file that Ovlo wrote is read with the same coordinates.

        Parameters
        ----------
        source : path, file object, or the text of an SVG file, which begins with "<"

        Returns
        -------
        Motif
            It ends at its origin.

        Warns
        -----
        PartsSkipped
            Names what is left out, approximated or not recognised, with lines: texts, images, …

        Raises
        ------
        FileError
            If the file cannot be read, is not SVG, is damaged, declares entities or is too large.

        Examples
        --------
        >>> Motif.record(lambda nib: nib.circle(30)).save("ring.svg")
        >>> Motif.from_svg("ring.svg").bounds
        (-30.0, -30.0, 30.0, 30.0)
        """
        return outlets.motif_from_svg(source)

    def _by(self, by: Similarity, call: str, keep_line_width: bool = False) -> Motif:
        check_reach(self._columns, by.scale, by.x, by.y, call)
        end = by.pose(self.end)
        arguments.within_reach(end.x, end.y, call)
        return replace(self, _columns=transformed(self._columns, by, keep_line_width), end=end)

    def turned(self, angle: float) -> Motif:
        """Return a copy turned anticlockwise about its origin, by an angle in degrees.

        Examples
        --------
        >>> Motif.record(lambda nib: nib.forward(40)).turned(90).end
        Pose(x=0.0, y=40.0, heading=90.0)
        """
        return self._by(Similarity(turn=arguments.angle(angle, "turned", "angle")), "turned")

    def scaled(self, factor: float, *, keep_line_width: bool = False) -> Motif:
        """Return a copy scaled about its origin by a factor above 0.

        Line widths are scaled too, unless `keep_line_width` is True.

        Examples
        --------
        >>> Motif.record(lambda nib: nib.forward(40)).scaled(0.5).end
        Pose(x=20.0, y=0.0, heading=0.0)
        """
        keep = arguments.truth(keep_line_width, "scaled", "keep_line_width")
        return self._by(Similarity(scale=arguments.positive(factor, "scaled", "factor")), "scaled", keep)

    def mirrored(self, heading: float = 0) -> Motif:
        """Return a copy mirrored in the line through its origin with this heading; texts stay readable.

        Examples
        --------
        >>> Motif.record(lambda nib: nib.arc_left(20, 90)).mirrored().end
        Pose(x=20.0, y=-20.0, heading=270.0)
        """
        # Mirroring in a line is mirroring in the x axis, then turning by twice the line's heading.
        heading = arguments.angle(heading, "mirrored", "heading")
        return self._by(Similarity(turn=normal(2 * normal(heading)), is_mirrored=True), "mirrored")

    def moved(self, dx: float, dy: float) -> Motif:
        """Return a copy moved relative to its origin.

        Examples
        --------
        >>> Motif.record(lambda nib: nib.forward(40)).moved(0, 5).end
        Pose(x=40.0, y=5.0, heading=0.0)
        """
        dx, dy = arguments.real(dx, "moved", "dx"), arguments.real(dy, "moved", "dy")
        return self._by(Similarity(x=dx, y=dy), "moved")

    def centred(self) -> Motif:
        """Return a copy moved so that the centre of its bounds is at the origin.

        Examples
        --------
        >>> Motif.record(lambda nib: nib.forward(40)).centred().bounds
        (-20.0, 0.0, 20.0, 0.0)
        """
        left, bottom, right, top = self.bounds
        return self.moved(-(left + right) / 2, -(bottom + top) / 2)

    def styled(
        self,
        *,
        ink: str | Colour | None = None,
        line_width: float | None = None,
        fill: str | Colour | None = None,
    ) -> Motif:
        """Return a copy with one ink, line width or fill throughout; what is left out is unchanged.

        `ink` applies to texts too; `fill` applies to existing areas.

        Examples
        --------
        >>> kite = Motif.record(lambda nib: nib.polygon(4, radius=20, fill="red"))
        >>> blue = kite.styled(ink="navy", fill="skyblue")
        """
        columns = coloured(self._columns, ink, fill, "styled")
        if line_width is not None:
            width = arguments.positive(line_width, "styled", "line_width")
            columns = replace(
                columns, styles=tuple(style._replace(line_width=width) for style in columns.styles)
            )
        return replace(self, _columns=columns)

    @property
    def bounds(self) -> Box:
        """The bounding box of its marks: (left, bottom, right, top), exact for arcs and letters, without
        line widths.

        Examples
        --------
        >>> Motif.record(lambda nib: nib.circle(30)).bounds
        (-30.0, -30.0, 30.0, 30.0)
        """
        from ovlo.core.paint.measures import MarkBoxes  # with all of painting, which few programs need

        return MarkBoxes.of(self._columns, outlets.text_box).whole or (0.0, 0.0, 0.0, 0.0)

    def compare(self, other: Motif) -> Comparison:
        """Find out whether another motif shows the same picture; see `Sheet.compare`.

        Examples
        --------
        >>> ring = Motif.record(lambda nib: nib.circle(30))
        >>> bool(ring.compare(ring.moved(5, 0)))
        True
        """
        return outlets.compare(self, other)

    def save(self, path: str | PathLike[str], *, scale: float = 1) -> None:
        """Write it to a file, on a white page just large enough for its marks; see `Sheet.save`.

        Examples
        --------
        >>> Motif.record(lambda nib: nib.circle(30)).save("ring.svg")
        """
        outlets.save_motif(self, path, scale)

    def _repr_svg_(self) -> str:
        return outlets.motif_as_bytes(self, ".svg").decode()

    def _repr_png_(self) -> bytes:
        return outlets.motif_as_bytes(self, ".png")

    def __reduce__(self) -> tuple[object, ...]:
        """The default pointer stays itself in a copy, since it is drawn equally large at every scale."""
        return (default_pointer, ()) if self is default_pointer() else (Motif, (self._columns, self.end))


def recorded(
    draw: Callable[[Nib], object], dice: Dice | None = None, watch: StepCounter | None = None
) -> Motif:
    """What is drawn with a nib that has no sheet; `watch` counts it, if it is a program that draws."""
    trail = Trail(watch)
    nib = Nib(trail, 0, Pose(), Style(), sheet=None, dice=dice, pointer=default_pointer())
    draw(nib)
    return Motif(trail.columns(), nib.pose)


@lru_cache(maxsize=1)
def default_pointer() -> Motif:
    """The default pointer of nibs."""
    return Motif(pointer_columns(), Pose())
