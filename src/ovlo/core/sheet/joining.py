"""Motifs joined: end to end, in a row, in a column, one over the other.

tail = end_to_end([bow.scaled(0.9**i) for i in range(12)], turn=5)
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import NamedTuple, get_args

from ovlo.core.sheet.host import current_host
from ovlo.core.sheet.motif import Motif
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.similarity import Similarity, check_reach
from ovlo.core.trail.trail import StepCounter, Trail
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Box
from ovlo.core.values.choices import ColumnAlign, RowAlign
from ovlo.core.values.degrees import normal
from ovlo.core.values.errors import BadType, BadValue
from ovlo.core.values.pose import Pose


def end_to_end(motifs: Iterable[Motif], turn: float = 0) -> Motif:
    """Join motifs end to end: each starts where the one before it ended, in its heading plus `turn`.

    Parameters
    ----------
    motifs : iterable of Motif
        One or more.
    turn : float
        Degrees to turn left between one motif and the next.

    Returns
    -------
    Motif
        It ends where the last motif ends.

    Examples
    --------
    >>> side = Motif.record(lambda nib: nib.forward(40))
    >>> end_to_end([side] * 4, turn=90).end
    Pose(x=0.0, y=0.0, heading=270.0)
    """
    pieces = _listed(motifs, "end_to_end")
    turn = arguments.angle(turn, "end_to_end", "turn")
    places, pose = [], Pose()
    for motif in pieces:
        by = Similarity(turn=pose.heading, x=pose.x, y=pose.y)
        places.append(by)
        end = by.pose(motif.end)
        arguments.within_reach(end.x, end.y, "end_to_end")
        pose = Pose(end.x, end.y, normal(end.heading + turn))
    return _laid("end_to_end", pieces, places, end)


def row(motifs: Iterable[Motif], gap: float = 0, align: RowAlign = "bottom") -> Motif:
    """Put motifs in a row from left to right, with a gap between their bounds.

    The first stays where it is. Bounds do not include line widths.

    Parameters
    ----------
    motifs : iterable of Motif
        One or more.
    gap : float
        Sheet units between bounds; a negative gap makes them overlap.
    align : "bottom", "middle", "top" or "origin"
        What to align: an edge or the middle of the bounds, or the origins of the motifs.

    Returns
    -------
    Motif
        It ends where the last motif ends.

    Examples
    --------
    >>> kite = Motif.record(lambda nib: nib.polygon(4, radius=20))
    >>> row([kite, kite, kite], gap=5).bounds
    (-20.0, -20.0, 110.0, 20.0)
    """
    return _in_line("row", motifs, gap, align, get_args(RowAlign), _Axis(0, 2, 1, 3, 1.0))


def column(motifs: Iterable[Motif], gap: float = 0, align: ColumnAlign = "left") -> Motif:
    """Put motifs in a column from top to bottom, with a gap between their bounds.

    The first stays where it is. Bounds do not include line widths.

    Parameters
    ----------
    motifs : iterable of Motif
        One or more.
    gap : float
        Sheet units between bounds; a negative gap makes them overlap.
    align : "left", "middle", "right" or "origin"
        What to align: an edge or the middle of the bounds, or the origins of the motifs.

    Returns
    -------
    Motif
        It ends where the last motif ends.

    Examples
    --------
    >>> kite = Motif.record(lambda nib: nib.polygon(4, radius=20))
    >>> column([kite, kite], gap=5, align="middle").bounds
    (-20.0, -65.0, 20.0, 20.0)
    """
    return _in_line("column", motifs, gap, align, get_args(ColumnAlign), _Axis(3, 1, 0, 2, -1.0))


def layered(motifs: Iterable[Motif]) -> Motif:
    """Layer motifs: all at the same origin, each over the one before it.

    Parameters
    ----------
    motifs : iterable of Motif
        One or more.

    Returns
    -------
    Motif
        It ends where the last motif ends.

    Examples
    --------
    >>> ring = Motif.record(lambda nib: nib.circle(30))
    >>> layered([ring.scaled(i) for i in (3, 2, 1)]).bounds
    (-90.0, -90.0, 90.0, 90.0)
    """
    pieces = _listed(motifs, "layered")
    return _laid("layered", pieces, [Similarity()] * len(pieces), pieces[-1].end)


class _Axis(NamedTuple):
    """Which way motifs are lined up: where a box has its beginning and end on the way, and its two sides."""

    begin: int
    end: int
    low: int
    high: int
    sense: float

    def side(self, box: Box, align: str) -> float:
        """Where a box is to be aligned."""
        low, high = box[self.low], box[self.high]
        if align == "origin":
            return 0.0
        if align == "middle":
            return (low + high) / 2
        return low if align in ("bottom", "left") else high


def _in_line(
    call: str, motifs: Iterable[Motif], gap: float, align: str, allowed: Sequence[str], way: _Axis
) -> Motif:
    """Motifs one after the other, their boxes a gap apart."""
    pieces = _listed(motifs, call)
    gap = way.sense * arguments.real(gap, call, "gap")
    align = arguments.choice(align, call, "align", allowed)
    boxes = [motif.bounds for motif in pieces]
    places, reached = [], boxes[0][way.begin] - gap
    for box in boxes:
        along = reached + gap - box[way.begin]
        aside = way.side(boxes[0], align) - way.side(box, align)
        x, y = (along, aside) if way.begin == 0 else (aside, along)
        places.append(Similarity(x=x, y=y))
        reached = box[way.end] + along
    return _laid(call, pieces, places, places[-1].pose(pieces[-1].end))


def _listed(motifs: Iterable[Motif], call: str) -> Sequence[Motif]:
    pieces = arguments.listed(motifs, call, "motifs", "give a list of motifs")
    if not pieces:
        raise BadValue(f"{call}: motifs is empty; give at least one motif.")
    for piece in pieces:
        if not isinstance(piece, Motif):
            raise BadType(
                f"{call}: {arguments.brief(piece)} is not a motif; Motif.record(…) makes one from a function."
            )
    return pieces


def _laid(call: str, pieces: Sequence[Motif], places: Sequence[Similarity], end: Pose) -> Motif:
    """What a program joins, which its host counts."""
    for piece, by in zip(pieces, places, strict=True):
        check_reach(piece._columns, by.scale, by.x, by.y, call)
    return Motif(joined([piece._columns for piece in pieces], places, current_host()), end)


def joined(
    pieces: Sequence[Columns], places: Sequence[Similarity], watch: StepCounter | None = None
) -> Columns:
    """Finished pieces laid into one trail."""
    trail = Trail(watch)
    for piece, by in zip(pieces, places, strict=True):
        trail.stamp(piece, by[:4], nib=0)
    return trail.columns()
