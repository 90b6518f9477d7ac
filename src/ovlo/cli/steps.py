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
from ovlo.core.sheet.step_table import CallRow, StepRow, call_rows, step_rows
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.origins import Origins
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
    if sheet is not None and (origins := sheet._origins) is not None:
        columns = sheet._columns
        if as_calls:
            rows = call_rows(columns, origins)
            say("\n".join(_tree(_within(rows, only, origins), sheet.unit, as_csv)))
        else:
            _print_steps(step_rows(columns, origins, _chosen(columns, origins, only)), as_csv)
            if not as_csv:
                say(f"{wording.steps(sheet)}, {wording.length(sheet)} drawn")
    return not outcome.trouble


def _chosen(columns: Columns, origins: Origins, only: str) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
    if not only:
        return np.ones(len(columns), bool)
    places = np.append(kept_places(origins, only, "--only"), False)
    return np.asarray(places[origins.steps])


def _print_steps(rows: Iterable[StepRow], as_csv: bool) -> None:
    if as_csv:
        text = io.StringIO()
        writer = csv.writer(text, lineterminator="\n")
        writer.writerow(StepRow._fields)
        writer.writerows(rows)
        say(text.getvalue().removesuffix("\n"))
        return
    widths = (7, 12, 20, 20, 9, 9, 10, 10, 6, 0)
    heads = ("step", "kind", "from", "to", "heading", "turn", "length", "ink", "line", "function")
    say(_aligned(heads, widths))
    for row in rows:
        say(
            _aligned(
                (
                    f"{row.number}",
                    row.kind,
                    f"({_short(row.from_x)}, {_short(row.from_y)})",
                    f"({_short(row.to_x)}, {_short(row.to_y)})",
                    f"{_short(row.heading)}°",
                    f"{_short(row.turn)}°" if abs(row.turn) >= 0.005 else "",
                    _short(row.length) if row.kind != "jump" else "",
                    row.ink,
                    "" if row.line is None else str(row.line),
                    "" if row.function == SCRIPT else row.function,
                ),
                widths,
            )
        )


def _short(value: float) -> str:
    """A number with two decimals at most, and never -0."""
    return f"{round(value, 2) + 0.0:.10g}"


def _aligned(cells: Iterable[str], widths: Iterable[int]) -> str:
    return "".join(f"{cell:<{width}} " for cell, width in zip(cells, widths, strict=True)).rstrip()


def _within(rows: list[CallRow], only: str, origins: Origins) -> list[CallRow]:
    """The rows of a function and of what it calls, or all."""
    if not only:
        return rows
    kept_places(origins, only, "--only")
    found: list[CallRow] = []
    inside = -1
    for row in rows:
        inside = -1 if row.depth <= inside else inside
        if inside < 0 and row.function == only:
            inside = row.depth
        if inside >= 0:
            found.append(row)
    return found


def _tree(rows: list[CallRow], unit: str, as_csv: bool) -> list[str]:
    if as_csv:
        heads = ",".join(CallRow._fields[:-1])  # without the number by which the call is known
        return [heads, *(",".join(map(str, row[:-1])) for row in rows)]
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
