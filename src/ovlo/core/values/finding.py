"""What a check says: a rule, the steps it speaks of, a sentence, and a mend.

for finding in sheet.check():
    print(finding)
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

from ovlo.core.values.sealed import unchanging

PROBLEM, HINT = "problem", "hint"


@unchanging
@dataclass(frozen=True, slots=True)
class Finding:
    """One result of a check.

    Attributes
    ----------
    rule : str
        Such as "not-closed"; `ovlo check --rules` explains each.
    severity : "problem" or "hint"
    message : str
        What is there, in one sentence.
    mend : str
        What would make it right, with numbers.
    place : (float, float) or None
        Where on the sheet, in sheet units; None for what stands in the source alone.
    steps : tuple of int
        The steps of the trail it speaks of; of many, the first and the last.
    lines : tuple of int
        The lines of the program those steps came from, if that was recorded.
    callers : tuple of int
        The lines that lead there: that called the functions those lines are in, and for a turn or an ink
        those whose steps show it.
    file : str
        The file of the lines, or "".
    count : int
        How many such places these lines have.
    """

    rule: str
    severity: str
    message: str
    mend: str
    place: tuple[float, float] | None
    steps: tuple[int, ...] = ()
    lines: tuple[int, ...] = ()
    callers: tuple[int, ...] = ()
    file: str = ""
    count: int = 1

    def __str__(self) -> str:
        lines = ", ".join(map(str, self.lines))
        where = f"line {lines}: " if lines else ""
        return f"{where}{self.rule} ({self.severity}): {self.message} {self.mend}"


class Found(NamedTuple):
    """What a rule comes upon. `origins` are numbers of places, for marks that are no steps.

    `is_hint` is set where a problem of this kind may also be meant; `times` is how often the same is there.
    """

    message: str
    mend: str
    place: complex
    steps: tuple[int, ...] = ()
    origins: tuple[int, ...] = ()
    kind: str = ""
    is_hint: bool = False
    times: int = 1


MOST_STEPS = 1000
"""A finding that speaks of more steps names the first and the last."""
