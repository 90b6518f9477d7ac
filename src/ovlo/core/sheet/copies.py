"""Sheets taken apart and put together again: for copies, other processes, and pictures that must not be lost.

sheet = restored(Sheet, SheetState.of(other), other._columns, other._origins)
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, NamedTuple

from ovlo.core.trail.columns import Columns
from ovlo.core.trail.origins import Origins

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet


class SheetState(NamedTuple):
    """All of a sheet but what is drawn on it."""

    made: tuple[Any, ...]
    dice: object
    title: str
    description: str
    parameters: dict[str, object]
    nibs: list[tuple[Any, ...]]
    added: dict[str, Any]
    """Attributes that a class of the program's own has added."""

    @classmethod
    def of(cls, sheet: Sheet) -> SheetState:
        """What there is to say about a sheet."""
        made = sheet._width, sheet._height, sheet._paper, sheet._unit, sheet._dice.seed
        nibs = [nib._state() for nib in sheet._nibs]
        words = sheet._title, sheet._description
        added = {name: value for name, value in vars(sheet).items() if not name.startswith("_")}
        return cls(made, sheet._dice._state(), *words, sheet._parameters, nibs, added)


def restored(kind: type[Sheet], about: SheetState, columns: Columns, origins: Origins | None) -> Sheet:
    """The sheet that was taken apart."""
    sheet = kind.__new__(kind)
    base = next(one for one in kind.__mro__ if one.__module__.startswith("ovlo."))
    base.__init__(sheet, *about.made)  # type: ignore[misc]  # a subclass may take other arguments
    vars(sheet).update(about.added)
    sheet._dice._restore(about.dice)
    sheet._title, sheet._description = about.title, about.description
    sheet._parameters = about.parameters
    for _ in about.nibs:
        sheet.new_nib()
    sheet._trail.restore(columns, origins)
    for nib, state in zip(sheet.nibs, about.nibs, strict=True):
        nib._restore(state)
    return sheet
