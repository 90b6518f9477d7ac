"""What a comparison of two pictures came to, for those who ask for it.

comparison = sheet.compare(other)
print(comparison.turn, comparison)
"""

from __future__ import annotations

from dataclasses import dataclass, field
from math import isinf
from os import PathLike
from typing import TYPE_CHECKING

from ovlo.core.compare.compare import Difference, Relation
from ovlo.core.sheet.door import outlets
from ovlo.core.values.pose import point_in_words
from ovlo.core.values.sealed import Answering, unchanging

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet


@unchanging
@dataclass(frozen=True, eq=False, slots=True)
class Comparison(Answering):
    """How a picture, B, relates to another, A; `sheet.compare(other)` makes one.

    It is true if the pictures are the same, even if B is moved, turned, scaled or mirrored. As a string it
    says what `ovlo compare` says.

    Examples
    --------
    >>> from ovlo import Sheet
    >>> sheet, other = Sheet(), Sheet()
    >>> sheet.new_nib().polygon(3, radius=40)
    >>> other.new_nib(heading=30).polygon(3, radius=80)
    >>> comparison = sheet.compare(other)
    >>> comparison.is_same, round(comparison.turn), round(comparison.scale)
    (True, 30, 2)
    >>> print(comparison)
    The same: B is A turned by 30.00°, scaled by 2.
    """

    _relation: Relation = field(repr=False)
    _pictures: tuple[Sheet, Sheet] = field(repr=False)
    _names: tuple[str, str] = field(repr=False)

    def __bool__(self) -> bool:
        return self.is_same

    def __repr__(self) -> str:
        return f"<Comparison: {str(self).splitlines()[0]}>"

    def __str__(self) -> str:
        return "\n".join([_verdict(self._relation, self._pictures[0].unit), *self.differences])

    @property
    def is_same(self) -> bool:
        """Whether the pictures are the same, perhaps turned, scaled, moved or mirrored, colours included."""
        return self._relation.is_same

    @property
    def is_same_shape(self) -> bool:
        """Whether the lines, areas and texts are the same, perhaps turned, scaled, moved or mirrored."""
        return self._relation.is_same_shape

    @property
    def is_in_place(self) -> bool:
        """Whether B stands where A does."""
        return self._relation.is_in_place

    @property
    def turn(self) -> float | None:
        """By how many degrees B is turned, anticlockwise; None if the shapes differ."""
        return None if self._relation.by is None else self._relation.by.turn

    @property
    def scale(self) -> float | None:
        """How many times as large B is; None if the shapes differ."""
        return None if self._relation.by is None else self._relation.by.scale

    @property
    def mirrored(self) -> bool | None:
        """Whether B is A mirrored in the x axis before it is turned; None if the shapes differ."""
        return None if self._relation.by is None else self._relation.by.is_mirrored

    @property
    def offset(self) -> tuple[float, float] | None:
        """By how far B is moved, in sheet units, once it is turned and scaled; None if the shapes differ."""
        by = self._relation.by
        return None if by is None else (by.x, by.y)

    @property
    def distance(self) -> float:
        """The largest distance between a line of one picture and the other, in sheet units.

        It is infinite if only one has lines, and 0 if the shapes are the same.
        """
        return 0.0 if self._relation.difference is None else self._relation.difference.distance

    @property
    def differences(self) -> tuple[str, ...]:
        """What differs in pictures of the same shape: texts, colours, widths, what lies on top; sentences."""
        return self._relation.words

    def save(self, path: str | PathLike[str]) -> None:
        """Write a picture of A and B laid over each other; see `Sheet.save`.

        Examples
        --------
        >>> from ovlo import Sheet
        >>> sheet, other = Sheet(), Sheet()
        >>> sheet.new_nib().circle(40)
        >>> other.new_nib().circle(41)
        >>> sheet.compare(other).save("difference.png")
        """
        outlets.save(self._sheet(), path)

    def _sheet(self) -> Sheet:
        """A and B laid over each other."""
        verdict = _verdict(self._relation, self._pictures[0].unit)
        return outlets.difference(self._pictures, self._names, verdict)


def _verdict(found: Relation, unit: str) -> str:
    """What came out, in a sentence."""
    if found.by is None:
        return _difference(found.difference, unit)
    by, ways = found.by, []
    if found.is_same_to_the_eye:
        return "The same to the eye, though drawn with other marks."
    if found.difference is not None and not found.words:
        distance = found.difference.distance
        return f"The same to the eye: the largest distance is {distance:.2g} {unit}, too small to see."
    is_left_right = by.is_mirrored and abs(abs(by.turn) - 180) <= 1e-4
    if abs(by.turn) > 1e-4 and not is_left_right:
        ways.append(f"turned by {by.turn:.2f}°")
    if abs(by.scale - 1) > 1e-6:
        ways.append(f"scaled by {by.scale:.6g}")
    if abs(complex(by.x, by.y)) > 1e-6 * found.size:
        ways.append(f"moved by ({_short(by.x)}, {_short(by.y)})")
    if by.is_mirrored:
        ways.insert(0, "mirrored left to right" if is_left_right else "mirrored in the x axis")
    same = "The same shape" if found.words else "The same"
    return f"{same}: B is A {', '.join(ways)}." if ways else f"{same}."


def _difference(one: Difference | None, unit: str) -> str:
    """Where two pictures of different shapes differ most, in a sentence."""
    if one is None:
        return "Different."
    if isinf(one.distance):
        return f"Different: only {one.is_only_in} has {one.what}s."
    other = "B" if one.is_only_in == "A" else "A"
    # Inside an area one is still some way from its border, which is what is compared.
    ours, theirs = ("border", "border of an area") if one.what == "area" else ("line", "line")
    place = point_in_words(one.place.real, one.place.imag)
    return (
        f"Different: the largest distance is {one.distance:.4g} {unit}, from a {ours} in "
        f"{one.is_only_in} at {place} to the nearest {theirs} of {other}."
    )


def _short(value: float) -> str:
    return f"{round(value, 4) + 0.0:.6g}"
