"""The result of a check: a rule, the steps it is about, a sentence, and a fix.

for finding in sheet.check():
    print(finding)
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import wraps
from typing import Any, NamedTuple, TypeVar, cast

from ovlo.core.values.sealed import unchanging

PROBLEM, HINT = "problem", "hint"
PROBLEM_OR_HINT, HINT_OR_PROBLEM = "problem or hint", "hint or problem"


class Edit(NamedTuple):
    """What to write into a program: from a column of a line up to another, 0 being the first, a new text."""

    line: int
    column: int
    end_column: int
    text: str


class Change(NamedTuple):
    """What a fix changes, before it is known where that is written.

    `kind` is "turn" or "length" (the number of a call), "side" (whether it turns left or right), or "times"
    (the number of a loop); `old` is the number as it is.
    """

    kind: str
    new: str
    old: float


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
    edit : Edit or None
        The fix as an edit of the file, where it is one number or name: (line, column, end_column, text).
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
    edit: Edit | None = None
    _change: Change | None = field(default=None, repr=False, compare=False)

    def __str__(self) -> str:
        lines = ", ".join(map(str, self.lines))
        where = f"line {lines}: " if lines else ""
        return f"{where}{self.rule} ({self.severity}): {self.message} {self.fix}"


class Match(NamedTuple):
    """What a rule finds. `origins` are numbers of places, for marks that are no steps.

    `is_hint` marks a problem that may be intended; `times` counts equal ones; the declaration sets `rule`.
    """

    message: str
    fix: str
    place: complex
    steps: tuple[int, ...] = ()
    origins: tuple[int, ...] = ()
    kind: str = ""
    is_hint: bool = False
    times: int = 1
    rule: str = ""
    change: Change | None = None


class Rule(NamedTuple):
    """A rule of a check: its name, how bad a match is, and when it is reported.

    A rule may tell a problem, in doubt a hint, or a hint that is a problem where it leads to one.
    """

    name: str
    severity: str
    about: str

    @property
    def usual_severity(self) -> str:
        """How bad a match mostly is: "problem" or "hint"."""
        return self.severity.partition(" ")[0]


Declared = TypeVar("Declared", bound=Callable[..., Any])


def rule(name: str, severity: str = "", about: str = "") -> Callable[[Declared], Declared]:
    """Declare a function as a rule, or, by the name alone, as a part of one; what it gives carries the name.

    The function gives one thing with a field `rule`, or None, or an iterator of them.
    """

    def declare(function: Declared) -> Declared:
        @wraps(function)
        def look(*args: Any, **kwargs: Any) -> Any:
            found: Any = function(*args, **kwargs)
            if found is None:
                return None
            if hasattr(found, "_replace"):
                return found._replace(rule=name)
            return (one._replace(rule=name) for one in found)

        if about:
            vars(look)["declared_rule"] = Rule(name, severity, about)
        return cast(Declared, look)

    return declare


def rules_in(*places: object) -> list[Callable[..., Any]]:
    """The functions that are declared as rules in some modules and classes, in their order."""
    return [value for place in places for value in vars(place).values() if hasattr(value, "declared_rule")]


def declared(*places: object) -> dict[str, Rule]:
    """The rules that are declared in some modules and classes, by name."""
    rules: list[Rule] = [vars(look)["declared_rule"] for look in rules_in(*places)]
    return {one.name: one for one in rules}


MOST_STEPS = 1000
"""A finding that speaks of more steps names the first and the last."""
