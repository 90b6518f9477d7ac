"""Sheets taken apart and put together again: for copies, other processes, and pictures that must not be lost.

sheet = restored(Sheet, SheetState.of(other), other._columns, other._origins)
"""

from __future__ import annotations

from collections.abc import Callable
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

    @classmethod
    def of(cls, sheet: Sheet) -> SheetState:
        """What there is to say about a sheet."""
        made = sheet._width, sheet._height, sheet._paper, sheet._unit, sheet._dice.seed
        nibs = [nib._state() for nib in sheet._nibs]
        words = sheet._title, sheet._description
        return cls(made, sheet._dice._state(), *words, sheet._parameters, nibs)


def restored(
    new_sheet: Callable[..., Sheet], about: SheetState, columns: Columns, origins: Origins | None
) -> Sheet:
    """The sheet that was taken apart."""
    sheet = new_sheet(*about.made)
    sheet._dice._restore(about.dice)
    sheet._title, sheet._description = about.title, about.description
    sheet._parameters = about.parameters
    for _ in about.nibs:
        sheet.new_nib()
    sheet._trail.restore(columns, origins)
    for nib, state in zip(sheet.nibs, about.nibs, strict=True):
        nib._restore(state)
    return sheet
