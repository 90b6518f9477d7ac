"""Checking many programs at once, as `ovlo check FOLDER` does: in worker processes, each within limits.

for checked in check_all(jobs): ...
"""

from __future__ import annotations

import os
import sys
from collections.abc import Iterator, Sequence
from contextlib import contextmanager, redirect_stdout
from dataclasses import replace
from functools import lru_cache
from pathlib import Path
from typing import NamedTuple

from ovlo import outlets
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import BadUse, OvloError, ProgramFailed
from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.program.loading import Program, load
from ovlo.program.outcome import Outcome
from ovlo.program.processes.workers import Going, Lost, done
from ovlo.program.running import STEP_LIMIT, Limits, run, run_program
from ovlo.program.source.merging import joined

LOOKING = 60.0
"""Seconds for looking at what a program drew."""

SECONDS, STEPS = 2.0, 200_000
"""What each of many programs may take, unless that is said."""


class CheckJob(NamedTuple):
    """A program to check, and how."""

    target: str
    settings: dict[str, str]
    seed: int | None
    limits: Limits
    skipped: tuple[str, ...]
    reference: str
    """The program whose picture it should draw, or ""."""
    is_pictured: bool


class Checked(NamedTuple):
    """What came of checking one drawing of a program."""

    target: str
    path: str
    found: tuple[Finding, ...] = ()
    trouble: str = ""
    notices: tuple[str, ...] = ()
    sheet: Sheet | None = None
    """If it is to be pictured."""
    verdict: str = ""
    """How it relates to the reference."""
    is_same: bool = True

    def is_bad(self, strict: bool = False) -> bool:
        """Whether it failed, is another picture, or has a problem, or with `strict` a hint."""
        has_problem = any(strict or one.severity == PROBLEM for one in self.found)
        return bool(self.trouble) or not self.is_same or has_problem


def programs_in(folder: Path) -> list[str]:
    """The Python files of a folder and those inside it, but for hidden ones."""
    found = sorted(
        path
        for path in folder.rglob("*.py")
        if not any(part.startswith((".", "__")) for part in path.relative_to(folder).parts)
    )
    if not found:
        raise BadUse(f"{folder} contains no Python file to check.")
    return [str(path) for path in found]


def usual(limits: Limits) -> Limits:
    """The limits of each of many programs."""
    seconds = SECONDS if limits.seconds is None else limits.seconds
    return Limits(STEPS if limits.step_limit == STEP_LIMIT else limits.step_limit, seconds)


def check_all(jobs: Sequence[CheckJob]) -> Iterator[list[Checked]]:
    """Check programs, some at a time; what came of the drawings of each, in the order of the jobs."""
    waiting: dict[int, list[Checked]] = {}
    shown = 0
    workers = min(os.cpu_count() or 1, len(jobs))
    for number, found in done(_check, jobs, workers, jobs[0].limits.seconds):
        if isinstance(found, Lost):
            target = jobs[number].target
            of_source = tuple(_of_source(target))
            found = [Checked(target, target, of_source, trouble=f"{target}: {found.reason}.")]
        waiting[number] = found
        while shown in waiting:
            yield waiting.pop(shown)
            shown += 1


def _of_source(target: str) -> list[Finding]:
    """What the source of a program shows that could not be run to an end."""
    try:
        return joined([], [str(load(target).path)])
    except OvloError:
        return []


def _check(job: CheckJob) -> Iterator[list[Checked] | Going]:
    """Check the drawings of a program; each has its time to be drawn, and then to be looked at."""
    with _alone():
        try:
            program = load(job.target)
            drawings = _drawings(program, job.limits)
        except OvloError as error:
            yield [Checked(job.target, job.target, trouble=str(error))]
            return
        found: list[Checked] = []
        for name in drawings:
            yield Going(job.limits.seconds)
            target = f"{program.path}:{name}" if name else job.target
            checked = Checked(target, str(program.path))
            try:
                outcome = run_program(
                    replace(program, name=name), job.settings, job.seed, job.limits, traced=True
                )
                yield Going(LOOKING)
                found.append(_looked_at(job, checked, outcome))
            except OvloError as error:
                found.append(checked._replace(trouble=str(error)))
        yield found


@contextmanager
def _alone() -> Iterator[None]:
    """A block in which what programs print is dropped, and nobody answers what they ask."""
    before = sys.stdin
    with open(os.devnull, "w") as out, open(os.devnull) as sys.stdin, redirect_stdout(out):
        try:
            yield
        finally:
            sys.stdin = before


def _drawings(program: Program, limits: Limits) -> list[str]:
    """The drawings to check: the one named, or every one of the file; "" for a script."""
    if program.name or not program.declares:
        return [program.name]
    names: list[str] = []
    outcome = run(lambda: names.extend(program.drawings()), limits=limits, is_drawing=True)
    if outcome.trouble:
        raise ProgramFailed(outcome.trouble)
    return names or [""]


def _looked_at(job: CheckJob, checked: Checked, outcome: Outcome) -> Checked:
    """What a check finds in what a program drew."""
    checked = checked._replace(trouble=outcome.trouble, notices=outcome.notices)
    if outcome.sheet is None:
        return checked
    checked = checked._replace(found=tuple(outlets.check(outcome.sheet, job.skipped, outcome.stopped_at)))
    if job.is_pictured:
        checked = checked._replace(sheet=outcome.sheet)
    if job.reference:
        comparison = outlets.compare(_reference(job.reference, job.limits), outcome.sheet)
        checked = checked._replace(verdict=str(comparison), is_same=bool(comparison))
    return checked


@lru_cache(maxsize=1)
def _reference(target: str, limits: Limits) -> Sheet:
    outcome = run_program(load(target), None, 1, limits)
    if outcome.sheet is None or outcome.trouble:
        raise ProgramFailed(f"--reference: {target}: {outcome.brief or 'it makes no sheet'}")
    return outcome.sheet
