"""`ovlo check`: what may be wrong with a drawing, with the source lines and a fix for each.

ovlo check kite.py --set sides=7 --skip off-sheet
ovlo check FOLDER -o report.html
"""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import asdict
from functools import partial
from pathlib import Path
from typing import NamedTuple

import click

from ovlo import outlets
from ovlo.cli import folder
from ovlo.cli.folder import Checked, CheckJob
from ovlo.cli.options import limit_options, seed_option, set_option
from ovlo.cli.run import Run
from ovlo.cli.speech import wording
from ovlo.cli.speech.findings import counts, described, summary, wrapped
from ovlo.cli.speech.saying import say, tell_trouble
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadUse
from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.running import Limits
from ovlo.program.source.rules import ALL_RULES as RULES
from ovlo.program.texts import Source
from ovlo.render.files import check_folder, checked_path, write


def _explain_rules(context: click.Context, option: click.Parameter, is_given: bool) -> None:
    if not is_given:
        return
    for name, rule in RULES.items():
        say(f"{name} ({rule.severity})")
        say(wrapped(rule.about))
    say("\nTo turn a rule off for one line, end that line with a comment: # ovlo: skip not-closed")
    context.exit()


@click.command()
@click.argument("programs", metavar="FILE[:NAME]|FOLDER...", nargs=-1, required=True)
@set_option
@seed_option
@click.option("--json", "as_json", is_flag=True, help="Print the findings as JSON.")
@click.option("--strict", is_flag=True, help="Exit with status 1 for hints too, not only for problems.")
@click.option("--skip", "skipped", multiple=True, metavar="RULE", help="Turn off a rule; repeatable.")
@click.option(
    "--output",
    "-o",
    "report",
    metavar="OUT",
    help="Also save a report with every picture, as .html.",
)
@click.option("--fix", "is_fix", is_flag=True, help="Write fixes that prove right into the file.")
@click.option("--diff", "is_diff", is_flag=True, help="Show what --fix would write, and write nothing.")
@click.option("--reference", metavar="FILE[:NAME]", default="", help="Compare every picture with this one's.")
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
    report: str | None,
    reference: str,
    is_fix: bool,
    is_diff: bool,
    limits: Limits,
) -> None:
    """Find out why a picture is not what you intended.

    The exit status is 1 if a program has a problem. To turn a rule off for one line of a program, end that
    line with a comment: # ovlo: skip not-closed

    Of many files, or of a FOLDER, every drawing is checked, for at most 2 seconds and 200,000 steps each
    unless --time-limit and --step-limit say otherwise.
    """
    for name in skipped:
        if name not in RULES:
            raise BadUse(f"--skip: there is no rule {name!r}{arguments.near(name, RULES)}; see --rules.")
    reporting = Reporting(skipped, as_json, strict)
    targets = [one for program in programs for one in _targets(program)]
    if is_fix or is_diff:
        for target in targets:
            _fix(Run(target, settings, seed, limits), skipped, is_diff)
        if is_diff:
            return
    if len(targets) == 1 and not report and not reference and targets[0] == programs[0]:
        run = Run(targets[0], settings, seed, limits)
        is_well = run.conclude(partial(_conclude, reporting, run), traced=True)
    else:
        path = _report_path(report)
        if reference:
            load(reference)
        jobs = [
            CheckJob(one, settings, seed, folder.usual(limits), skipped, reference, path is not None)
            for one in targets
        ]
        is_well = _check_many(jobs, reporting, path)
    if not is_well:
        raise SystemExit(1)


class Reporting(NamedTuple):
    """What is to be reported, and how."""

    skipped: tuple[str, ...]
    as_json: bool
    strict: bool


def _fix(run: Run, skipped: tuple[str, ...], is_diff: bool) -> None:
    """Write, or show, the fixes of one program."""
    from ovlo.cli.fixing import fixed  # with what runs it again, which few want

    path = run.program.path
    before = Source.of(path.read_bytes())
    source, done, left = fixed(run, skipped)
    if is_diff:
        say(before.difference(source, str(path)).rstrip())
    elif done:
        write(path, source.to_bytes())
    for one in done:
        assert one.edit is not None
        say(f"{path}, line {one.edit.line}: {'would be ' if is_diff else ''}fixed: {one.rule}. {one.fix}")
    if left:
        say(f"{path}: {left}")


def _targets(program: str) -> list[str]:
    return folder.programs_in(Path(program)) if Path(program).is_dir() else [program]


def _report_path(report: str | None) -> Path | None:
    if report is None:
        return None
    path = checked_path(report, "-o")
    if path.suffix.lower() != ".html":
        raise BadUse(f"-o: a report is an .html file, not {report}.")
    check_folder(path, "-o")
    return path


def _conclude(reporting: Reporting, run: Run, outcome: Outcome) -> bool:
    """Find and print what is wrong with what a program drew; whether all is well."""
    tell_trouble(outcome, run.seed)
    found = (
        [] if outcome.sheet is None else outlets.check(outcome.sheet, reporting.skipped, outcome.stopped_at)
    )
    if reporting.as_json:
        _say_json(found)
    else:
        if outcome.sheet is not None and (made := wording.made_with(outcome.sheet)):
            say(made)
        for one in found:
            say(described(one, run.program.path))
        say(summary(found, outcome.trouble))
    return not outcome.trouble and not any(reporting.strict or one.severity == PROBLEM for one in found)


def _check_many(jobs: list[CheckJob], reporting: Reporting, path: Path | None) -> bool:
    """Check programs, print what was found in their order, and then a table; whether all is well."""
    results: list[Checked] = []
    for some in folder.check_all(jobs):
        results += some
        for one in some if not reporting.as_json else ():
            _say_checked(one)
    if reporting.as_json:
        _say_json([finding for one in results for finding in one.found])
    else:
        say(f"\n{_total(results)}")
    if path is not None:
        from ovlo.page.report import Work, report  # with the page and its pictures, which few want

        entries = [
            Work(one.target, one.path, one.sheet, one.found, one.trouble, one.verdict, one.is_same)
            for one in results
        ]
        title = f"Checked: {wording.counted(len(results), 'drawing')}"
        write(path, report(entries, title))
        say(f"{path}: {wording.counted(len(results), 'drawing')}")
    return not any(one.is_bad(reporting.strict) for one in results)


def _say_checked(one: Checked) -> None:
    """What came of checking one of many, errors included, all on one stream."""
    say(f"── {one.target}")
    if one.trouble:
        say(one.trouble)
    for notice in one.notices:
        say(f"Warning: {notice}")
    for finding in one.found:
        say(described(finding, Path(one.path)))
    if one.found or not one.trouble:
        say(summary(one.found, one.trouble))
    if one.verdict:
        say(f"Compared with the reference: {one.verdict}")


def _say_json(found: Sequence[Finding]) -> None:
    say(json.dumps([_plain(one) for one in found], indent=2, ensure_ascii=False))


def _plain(finding: Finding) -> dict[str, object]:
    """A finding as JSON has it."""
    return {name: value for name, value in asdict(finding).items() if not name.startswith("_")}


def _total(results: Sequence[Checked]) -> str:
    """A table of the drawings, and how many are well."""
    rows = [("drawing", "found")]
    for one in results:
        words = [counts(one.found)] if one.found else []
        words += ["another picture"] if not one.is_same else []
        words += ["did not finish"] if one.trouble else []
        rows.append((one.target, ", ".join(words) or "nothing"))
    bad = sum(one.is_bad() for one in results)
    hinted = sum(bool(one.found) and not one.is_bad() for one in results)
    clean = len(results) - bad - hinted
    return "\n".join(
        [
            *wording.table(rows, left=2),
            f"{wording.counted(len(results), 'drawing')}: {clean} without findings, {hinted} with hints "
            f"only, {bad} with problems.",
        ]
    )
