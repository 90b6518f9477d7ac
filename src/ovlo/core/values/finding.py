"""The result of a check: a rule, the steps it is about, a sentence, and a fix.

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
        The name of the rule, such as "not-closed"; `ovlo check --rules` explains every rule.
    severity : "problem" or "hint"
    message : str
        What is wrong, in one sentence.
    fix : str
        What to change, with numbers.
    place : (float, float) or None
        The place on the sheet, in sheet units; None if only the source shows it.
    steps : tuple of int
        The steps of the trail it is about; of many, the first and the last.
    lines : tuple of int
        The lines of the program that made those steps, if lines were recorded.
    callers : tuple of int
        The lines that led there: the calls of the functions that contain those lines and, for a turn or an
        ink, the lines whose steps show it.
    file : str
        The file of the lines, or "".
    count : int
        How many times these lines cause the same finding.
    """

    rule: str
    severity: str
    message: str
    fix: str
    place: tuple[float, float] | None
    steps: tuple[int, ...] = ()
    lines: tuple[int, ...] = ()
    callers: tuple[int, ...] = ()
    file: str = ""
    count: int = 1

    def __str__(self) -> str:
        lines = ", ".join(map(str, self.lines))
        where = f"line {lines}: " if lines else ""
        return f"{where}{self.rule} ({self.severity}): {self.message} {self.fix}"


class Match(NamedTuple):
    """What a rule comes upon. `origins` are numbers of places, for marks that are no steps.

    `is_hint` is set where a problem of this kind may also be meant; `times` is how often the same is there.
    """

    message: str
    fix: str
    place: complex
    steps: tuple[int, ...] = ()
    origins: tuple[int, ...] = ()
    kind: str = ""
    is_hint: bool = False
    times: int = 1


MOST_STEPS = 1000
"""A finding that speaks of more steps names the first and the last."""
