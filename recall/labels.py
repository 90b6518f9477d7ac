"""Labelled programs, and what a check finds in them.

The programs in `recall/wrong` say themselves what is wrong with them, at the end of the line that is:

    nib.left(60)  # wrong (turns-miss-360): nib.left(120)

Any of the rules in brackets may find it, and the corrected line follows. A line `#+ code` is only in the
corrected program. Corrected, each is a right program, like those in `recall/right`.
"""

from __future__ import annotations

import re
from pathlib import Path
from typing import NamedTuple

from ovlo.core.values.finding import Finding
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program

PROGRAMS = Path(__file__).parent
MARK = re.compile(r"^(?P<indent> *)(?P<code>.*?)  # wrong \((?P<rules>[\w, -]+)\): (?P<corrected>.*)$")
ADDED = re.compile(r"^( *)#\+ (.*)$")


class Answer(NamedTuple):
    """What a check finds in a wrong program."""

    name: str
    is_found: bool
    is_pointed: bool
    others: list[Finding]


def findings(path: Path, may_fail: bool = False) -> list[Finding]:
    """What a check says of a program."""
    seed = 7 if "dice" in path.read_text() else None
    outcome = run_program(load(str(path)), {}, seed, Limits(100_000, 20), True)
    if outcome.sheet is None or (outcome.trouble and not may_fail):
        raise RuntimeError(f"{path}: {outcome.trouble or 'nothing was drawn'}")
    return outcome.sheet.check()


def marks(text: str) -> dict[int, set[str]]:
    """The lines of a program that are wrong, with the rules that may say so."""
    found = enumerate(map(MARK.match, text.splitlines()), 1)
    return {line: set(mark["rules"].split(", ")) for line, mark in found if mark}


def corrected(text: str) -> str:
    """The program that was meant."""
    lines = [MARK.sub(r"\g<indent>\g<corrected>", line) for line in text.splitlines()]
    return "\n".join(ADDED.sub(r"\1\2", line) for line in lines) + "\n"


def without_marks(marked: str) -> str:
    """The wrong program as somebody would have written it."""
    lines = (line for line in marked.splitlines() if not ADDED.match(line))
    return "\n".join(MARK.sub(r"\g<indent>\g<code>", line) for line in lines) + "\n"


def answer(path: Path) -> Answer:
    """What a check finds in a wrong program, and whether at the right line."""
    wrong = marks(path.read_text())
    rules = set().union(*wrong.values())
    found = findings(path, may_fail=True)
    right = [one for one in found if one.rule in rules]
    # The turn's own line makes no step: the line before it is as near as a picture can point.
    lines = {near for line in wrong for near in (line - 2, line - 1, line, line + 1, line + 2)}
    is_pointed = any(lines & {*one.lines, *one.callers} for one in right)
    return Answer(path.stem, bool(right), is_pointed, [one for one in found if one not in right])
