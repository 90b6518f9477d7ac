"""`ovlo compare`: do two programs draw the same picture?

ovlo compare kites.py:walked kites.py:by_corners -o diff.png
"""

from __future__ import annotations

from functools import partial
from math import isinf
from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli.options import limit_options, output_option, pairs_option, seed_option, targets
from ovlo.cli.run import Run
from ovlo.cli.speech.saying import say
from ovlo.core.compare.compare import Comparison
from ovlo.core.compare.compare import compare as compare_columns
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.dice import fresh_seed
from ovlo.core.values.errors import BadUse, ProgramFailed
from ovlo.program.outcome import Outcome
from ovlo.program.running import Limits
from ovlo.render.additions.difference import difference_sheet


@click.command()
@click.argument("first", metavar="A")
@click.argument("second", metavar="B")
@output_option("File that shows both pictures laid over each other: .svg, .png or .pdf; repeatable.")
@pairs_option("--set-a", "settings_a", "Set a parameter of A; repeatable.")
@pairs_option("--set-b", "settings_b", "Set a parameter of B; repeatable.")
@seed_option
@limit_options
def compare(
    first: str,
    second: str,
    settings_a: dict[str, str],
    settings_b: dict[str, str],
    seed: int | None,
    outputs: tuple[str, ...],
    limits: Limits,
) -> None:
    """Check whether two programs draw the same picture, and how they differ.

    A and B are each FILE[:NAME]. The order, direction and splitting of lines do not matter. The exit status
    is 0 if the pictures are the same, even if one is moved, turned, scaled or mirrored, and 1 if they differ,
    even in colour only.
    """
    common = fresh_seed() if seed is None else seed
    runs = Run(first, settings_a, common, limits), Run(second, settings_b, common, limits)
    paths = [run.program.path for run in runs]
    files = targets(outputs, "", outlets.check_target, *paths) if outputs else []
    a, b = (_drawn(run) for run in runs)
    if a.unit != b.unit:
        raise BadUse(f"A is drawn in {a.unit}, but B in {b.unit}; give both sheets the same unit.")
    found = compare_columns(a._columns, b._columns, outlets.compare_inputs(b))
    verdict = verdict_on(found, a.unit)
    if files:
        sheet = difference_sheet(a, b, Path(first).name, Path(second).name, verdict)
        for file in files:
            outlets.save(sheet, file.path)
    for words in (verdict, *found.words):
        say(words)
    for file in files:
        say(f"{file.name}: {sheet.width:.4g} × {sheet.height:.4g} px")
    if not found.is_same:
        raise SystemExit(1)


def _drawn(run: Run) -> Sheet:
    """What a program draws; one that fails is not compared."""
    conclusion = partial(_refuse, str(run.program.path))
    return conclusion(run.outcome(conclusion))


def _refuse(path: str, outcome: Outcome) -> Sheet:
    if outcome.trouble or outcome.sheet is None:
        raise ProgramFailed(outcome.trouble or f"{path} makes no sheet.")
    return outcome.sheet


def verdict_on(found: Comparison, unit: str) -> str:
    """What came out, in a sentence."""
    if found.by is None:
        one = found.difference
        if one is None:
            return "Different."
        if isinf(one.distance):
            return f"Different: only {one.is_only_in} has {one.what}s."
        other = "B" if one.is_only_in == "A" else "A"
        # Inside an area one is still some way from its border, which is what is compared.
        ours, theirs = ("border", "border of an area") if one.what == "area" else ("line", "line")
        place = f"({one.place.real:.4g}, {one.place.imag:.4g})"
        return (
            f"Different: the largest distance is {one.distance:.4g} {unit}, from a {ours} in "
            f"{one.is_only_in} at {place} to the nearest {theirs} of {other}."
        )
    by, ways = found.by, []
    if found.difference is not None and not found.words:
        distance = found.difference.distance
        return f"The same to the eye: the largest distance is {distance:.2g} {unit}, too small to see."
    if abs(by.turn) > 1e-4:
        ways.append(f"turned by {by.turn:.2f}°")
    if abs(by.scale - 1) > 1e-6:
        ways.append(f"scaled by {by.scale:.6g}")
    if abs(complex(by.x, by.y)) > 1e-6 * found.size:
        ways.append(f"moved by ({_short(by.x)}, {_short(by.y)})")
    if by.is_mirrored:
        ways.insert(0, "mirrored in the x axis")
    same = "The same shape" if found.words else "The same"
    return f"{same}: B is A {', '.join(ways)}." if ways else f"{same}."


def _short(value: float) -> str:
    return f"{round(value, 4) + 0.0:.6g}"
