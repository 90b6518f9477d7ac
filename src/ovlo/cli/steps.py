"""`ovlo steps`: a drawing as a table of its steps, or as the tree of calls that made them.

ovlo steps kite.py --csv > steps.csv
ovlo steps kite.py --calls
"""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable
from functools import partial

import click
import numpy as np

from ovlo.cli.run import Run, runs_program
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import say, tell_trouble
from ovlo.core.sheet.only import kept_places
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.sheet.step_table import CallTotal, Step
from ovlo.core.values import arguments
from ovlo.program.outcome import Outcome

SCRIPT = "<module>"


@click.command()
@runs_program
@click.option("--calls", "as_calls", is_flag=True, help="Print the tree of function calls instead.")
@click.option("--csv", "as_csv", is_flag=True, help="Print comma-separated values, with all digits.")
@click.option("--only", metavar="FUNCTION", default="", help="List only the steps of one function.")
def steps(run: Run, only: str, as_calls: bool, as_csv: bool) -> bool:
    """List the steps of a drawing, each with its line of the program."""
    return run.conclude(partial(_conclude, only, as_calls, as_csv, run.seed), traced=True)


def _conclude(only: str, as_calls: bool, as_csv: bool, seed: int | None, outcome: Outcome) -> bool:
    """Print the steps, or the calls; whether all went well."""
    tell_trouble(outcome, seed)
    sheet = outcome.sheet
    if sheet is None:
        return not outcome.trouble
    if as_calls:
        say("\n".join(_tree(_within(sheet, only), sheet.unit, as_csv)))
        return not outcome.trouble
    steps = _chosen(sheet, only)
    if as_csv:
        text = io.StringIO()
        writer = csv.writer(text, lineterminator="\n")
        writer.writerow(Step._fields)
        writer.writerows(steps)
        say(text.getvalue().removesuffix("\n"))
    else:
        say("\n".join([_aligned(HEADS), *(_aligned(_cells(step)) for step in steps)]))
        say(f"{wording.steps(sheet)}, {wording.length(sheet)} drawn")
    return not outcome.trouble


def _chosen(sheet: Sheet, only: str) -> list[Step]:
    steps, origins = sheet.steps(), sheet._origins
    if not only or origins is None:
        return steps
    places = np.append(kept_places(origins, only, "--only"), False)
    is_kept = places[origins.steps]
    texts = iter(sheet._columns.texts)
    return [
        step
        for step in steps
        if (places[next(texts).origin] if step.kind == "text" else is_kept[step.number])
    ]


HEADS = ("step", "kind", "from", "to", "heading", "turn", "length", "ink", "line", "function")
WIDTHS = (7, 12, 20, 20, 9, 9, 10, 10, 6, 0)


def _cells(step: Step) -> tuple[str, ...]:
    """A row of the table."""
    is_text, has_length = step.kind == "text", step.kind not in ("jump", "text")
    return (
        f"{step.number}",
        step.kind
        if step.sweep is None
        else f"{step.kind.removesuffix('arc')} arc {step.sweep:.6g}°".lstrip(),
        f"({_short(step.from_x)}, {_short(step.from_y)})",
        arguments.brief(step.words) if is_text else f"({_short(step.to_x)}, {_short(step.to_y)})",
        f"{_short(step.heading)}°",
        f"{_short(step.turn)}°" if abs(step.turn) >= 0.005 else "",
        _short(step.length) if has_length else "",
        step.ink,
        "" if step.line is None else str(step.line),
        "" if step.function == SCRIPT else step.function,
    )


def _short(value: float) -> str:
    """A number with two decimals at most, and never -0."""
    return f"{round(value, 2) + 0.0:.10g}"


def _aligned(cells: Iterable[str]) -> str:
    return "".join(f"{cell:<{width}} " for cell, width in zip(cells, WIDTHS, strict=True)).rstrip()


def _within(sheet: Sheet, only: str) -> list[CallTotal]:
    """The rows of a function and of what it calls, or all."""
    rows, origins = sheet.calls(), sheet._origins
    if not only or origins is None:
        return rows
    kept_places(origins, only, "--only")
    found: list[CallTotal] = []
    inside = -1
    for row in rows:
        inside = -1 if row.depth <= inside else inside
        if inside < 0 and row.function == only:
            inside = row.depth
        if inside >= 0:
            found.append(row)
    return found


def _tree(rows: list[CallTotal], unit: str, as_csv: bool) -> list[str]:
    if as_csv:
        return [",".join(CallTotal._fields), *(",".join(map(str, row)) for row in rows)]
    top = min((row.depth for row in rows), default=0)
    names = [
        "  " * (row.depth - top) + ("the script" if row.function == SCRIPT else row.function) for row in rows
    ]
    width = max(map(len, [*names, "function"]))
    lines = [f"{'function':{width}}  {'calls':>7}  {'steps':>9}  {'drawn':>14}"]
    lines += [
        f"{name:{width}}  {row.times:>7,}  {row.steps:>9,}  {row.drawn:>11,.1f} {unit}"
        for name, row in zip(names, rows, strict=True)
    ]
    return lines
