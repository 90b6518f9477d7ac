"""What came of a run of a program.

outcome.sheet, outcome.trouble
"""

from __future__ import annotations

from dataclasses import dataclass

from ovlo.core.sheet.sheet import Sheet

OWN_CHANCE = (
    "Python's random module decided part of this picture, so it cannot be drawn again; nib.dice has random "
    "numbers whose seed is kept."
)
"""What is said where Python's own random numbers had a part in a picture."""


@dataclass(frozen=True)
class Outcome:
    """What came of a run.

    Attributes
    ----------
    sheet : Sheet or None
        The last sheet the program made, as far as it got.
    sheet_count : int
        How many sheets it made.
    trouble : str
        What went wrong, for the user to read; "" when nothing did.
    brief : str
        The same in one sentence.
    notices : tuple of str
        Lines of the program that do nothing, though they were surely meant to.
    stopped_at : tuple of (file, line) or None
        If it went wrong, the lines it was in; None if that is not known.
    """

    sheet: Sheet | None
    sheet_count: int
    trouble: str = ""
    brief: str = ""
    notices: tuple[str, ...] = ()
    stopped_at: tuple[tuple[str, int], ...] | None = ()

    @property
    def has_chance_of_its_own(self) -> bool:
        """Whether Python's own random numbers, without a seed, had a part in it."""
        return OWN_CHANCE in self.notices

    @property
    def is_empty(self) -> bool:
        """Whether nothing was drawn."""
        if self.sheet is None:
            return True
        columns = self.sheet._columns
        return not columns.is_traced.any() and not columns.texts

    @property
    def has_failed_empty(self) -> bool:
        """Whether it went wrong before anything was drawn, so that no picture is to be replaced."""
        return bool(self.trouble) and self.is_empty
