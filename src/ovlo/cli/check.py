"""`ovlo check`: what may be wrong with a drawing, with the source lines and a fix for each.

ovlo check kite.py --set sides=7 --skip off-sheet
"""

from __future__ import annotations

import json
import linecache
import textwrap
from dataclasses import asdict
from functools import partial
from pathlib import Path
from typing import NamedTuple

import click

from ovlo import outlets
from ovlo.cli.options import limit_options, seed_option, set_option
from ovlo.cli.run import Run
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import say, tell_trouble
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadUse, OvloError
from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.program.outcome import Outcome
from ovlo.program.running import Limits
from ovlo.program.source.rules import ALL_RULES as RULES

WIDTH = 96


def _explain_rules(context: click.Context, option: click.Parameter, is_given: bool) -> None:
    if not is_given:
        return
    for name, rule in RULES.items():
        say(f"{name} ({rule.severity})")
        say(_wrapped(rule.about))
    say("\nTo turn a rule off for one line, end that line with a comment: # ovlo: skip not-closed")
    context.exit()


@click.command()
@click.argument("programs", metavar="FILE[:NAME]...", nargs=-1, required=True)
@set_option
@seed_option
@click.option("--json", "as_json", is_flag=True, help="Print the findings as JSON.")
@click.option("--strict", is_flag=True, help="Exit with status 1 for hints too, not only for problems.")
@click.option("--skip", "skipped", multiple=True, metavar="RULE", help="Turn off a rule; repeatable.")
@click.option(
    "--rules",
    is_flag=True,
    is_eager=True,
    expose_value=False,
    callback=_explain_rules,
    help="Explain every rule with its thresholds, and exit.",
)
@limit_options
def check(
    programs: tuple[str, ...],
    settings: dict[str, str],
    seed: int | None,
    as_json: bool,
    strict: bool,
    skipped: tuple[str, ...],
    limits: Limits,
) -> None:
    """Find out why a picture is not what you intended.

    The exit status is 1 if a program has a problem. To turn a rule off for one line of a program, end that
    line with a comment: # ovlo: skip not-closed
    """
    for name in skipped:
        if name not in RULES:
            raise BadUse(f"--skip: there is no rule {name!r}{arguments.near(name, RULES)}; see --rules.")
    task = Task([Run(one, settings, seed, limits) for one in programs], skipped, as_json, strict)
    if not _go_on(task, []):
        raise SystemExit(1)


class Task(NamedTuple):
    """What is to be checked, and how."""

    runs: list[Run]
    skipped: tuple[str, ...]
    as_json: bool
    strict: bool

    @property
    def is_many(self) -> bool:
        """Whether there are several programs."""
        return len(self.runs) > 1


class Result(NamedTuple):
    """What came of checking one program."""

    found: list[Finding]
    has_failed: bool

    def is_bad(self, strict: bool = False) -> bool:
        """Whether it failed, or has a problem, or with `strict` a hint."""
        return self.has_failed or any(strict or one.severity == PROBLEM for one in self.found)


def _go_on(task: Task, results: list[Result]) -> bool:
    """Check the programs that have no result yet, and print the end; whether all is well."""
    while len(results) < len(task.runs):
        run = task.runs[len(results)]
        if task.is_many and not task.as_json:
            say(f"── {run.target}")
        results = [*results, _checked(run, task, results)]
    if task.as_json:
        found = [asdict(one) for result in results for one in result.found]
        say(json.dumps(found, indent=2, ensure_ascii=False))
    elif task.is_many:
        say(_total(results))
    return not any(result.is_bad(task.strict) for result in results)


def _take_over(task: Task, results: list[Result], outcome: Outcome) -> bool:
    """Go on after a program that could not be stopped."""
    return _go_on(task, [*results, _concluded(task, task.runs[len(results)], outcome)])


def _checked(run: Run, task: Task, results: list[Result]) -> Result:
    """Run and check one program; one of many that cannot be run is only told."""
    try:
        return _concluded(task, run, run.outcome(partial(_take_over, task, results), traced=True))
    except OvloError as error:
        if not task.is_many:
            raise
        say(str(error), err=True)
        return Result([], has_failed=True)


def _concluded(task: Task, run: Run, outcome: Outcome) -> Result:
    """Find and print what is wrong with what a program drew."""
    tell_trouble(outcome, run.seed)
    found = [] if outcome.sheet is None else outlets.check(outcome.sheet, task.skipped, outcome.stopped_at)
    if not task.as_json:
        if outcome.sheet is not None and (made := wording.made_with(outcome.sheet)):
            say(made)
        for one in found:
            say(_described(one, run.program.path))
        say(_summary(found, outcome.trouble))
    return Result(found, bool(outcome.trouble))


def _total(results: list[Result]) -> str:
    bad = sum(result.is_bad() for result in results)
    hinted = sum(bool(result.found) and not result.is_bad() for result in results)
    clean = len(results) - bad - hinted
    return (
        f"{wording.counted(len(results), 'file')}: {clean} without findings, {hinted} with hints only, "
        f"{bad} with problems."
    )


def _described(finding: Finding, path: Path) -> str:
    """A finding for people: what, where, the source lines, and the fix."""
    times = f", {finding.count} times" if finding.count > 1 else ""
    where = "" if finding.place is None else " at ({:.4g}, {:.4g})".format(*finding.place)
    head = f"\n{finding.severity}: {finding.rule}{where}{times}"
    if finding.file and Path(finding.file) != path:
        head += f", in {finding.file}"
    lines = sorted({*finding.callers, *finding.lines})
    width = len(str(max(lines, default=0)))
    source = [
        f"  {'>' if line in finding.lines else ' '} {line:{width}} | {_source(finding.file, line)}"
        for line in lines
    ]
    return "\n".join([head, *source, _wrapped(finding.message), _wrapped(f"Fix: {finding.fix}")])


def _source(file: str, line: int) -> str:
    return linecache.getline(file, line).rstrip()


def _wrapped(text: str) -> str:
    return textwrap.fill(text, WIDTH, initial_indent="  ", subsequent_indent="  ", break_on_hyphens=False)


def _summary(found: list[Finding], trouble: str) -> str:
    if not found:
        return "Nothing else was found up to that point." if trouble else "No findings."
    problems = sum(one.severity == PROBLEM for one in found)
    hints = len(found) - problems
    counts = [wording.counted(n, noun) for n, noun in ((problems, "problem"), (hints, "hint")) if n]
    return f"\n{' and '.join(counts)}. `ovlo check --rules` explains the rules."
