"""Variations side by side: the combinations of some values, and a picture of each.

ranges = {"sides": range_of("3..8", parameter, "--values")}
for number, cell in draw_cells("kite.py", {}, combinations(ranges), seed=7, limits=Limits(), workers=2): ...
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Iterator
from contextlib import AbstractContextManager, suppress
from pathlib import Path
from typing import Any, NamedTuple

from ovlo.core.sheet.host import Host
from ovlo.core.values import arguments
from ovlo.core.values.colour import Colour
from ovlo.core.values.dice import fresh_seed
from ovlo.core.values.errors import BadValue
from ovlo.program.drawing import Drawing
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.parameters import KINDS, Parameter, shown, typed
from ovlo.program.processes.spool import clear_leftovers, kept, private_folder, spooled
from ovlo.program.processes.workers import Going, Lost, done
from ovlo.program.running import Keeping, Limits, run, run_program
from ovlo.program.variations import Variations
from ovlo.render.additions.contact import Cell, cell_picture
from ovlo.render.additions.overlays import checked_overlays

MOST_CELLS = 500
MOST_ACROSS = 10

SEED = Parameter("seed", KINDS[int])

AnyDrawing = Drawing[Any, Any]
Ranges = dict[str, list[Any]]


def range_of(text: str, parameter: Parameter, call: str) -> list[Any]:
    """The values that `3..8`, `0..1..0.25` or `20,40,80` stands for."""
    if ".." in text and parameter.kind is not KINDS[str]:
        return [parameter.read(shown(value), call) for value in _steps(text, parameter, call)]
    values = [part for part in text.split(",") if part.strip()]
    if not values:
        raise BadValue(f"{call}: {parameter.name}={text} is empty; give values as in 3..8 or 20,40,80.")
    read = [parameter.read(value, call) for value in values]
    # A colour is shown as it was written.
    return [value.strip() for value in values] if parameter.kind is KINDS[Colour] else read


def _steps(text: str, parameter: Parameter, call: str) -> list[float]:
    name = parameter.name
    try:
        numbers = [float(part) for part in text.split("..")]
    except ValueError:
        numbers = []
    if len(numbers) not in (2, 3) or not all(map(math.isfinite, numbers)):
        raise BadValue(
            f"{call}: {name}={text} is not a range; write LOW..HIGH or LOW..HIGH..STEP, "
            "as in 3..8 or 0..1..0.25."
        )
    low, high, step = numbers if len(numbers) == 3 else (*numbers, parameter.step or 1.0)
    if step <= 0:
        raise BadValue(f"{call}: {name}={text} would never end; the step must be above 0.")
    if high < low:
        raise BadValue(f"{call}: {name}={text} is empty; put the lower end first.")
    count = math.floor((high - low) / step + 1e-9) + 1
    _check_count(count, call)
    # Twelve digits, so that 0.1 steps do not end in …0000004.
    values = [float(f"{low + i * step:.12g}") for i in range(count)]
    return [int(value) if value.is_integer() else value for value in values]


def listed(values: object) -> list[Any]:
    """A list of values, or the one value given."""
    if isinstance(values, str) or not isinstance(values, Iterable):
        return [values]
    try:
        return list(itertools.islice(values, MOST_CELLS + 1))
    except TypeError:  # an array of no dimensions calls itself iterable
        return [values]


def check_ranges(drawing: AnyDrawing, ranges: Ranges, call: str) -> None:
    """Refuse unknown parameters, values that will not do, and too many combinations."""
    for name, values in ranges.items():
        parameter = varied_parameter(drawing, name, call)
        if not values:
            raise BadValue(f"{call}: {name} is an empty list; give at least one value.")
        for value in values[:MOST_CELLS]:
            parameter.check(value, call)
    if not ranges:
        raise BadValue(
            f"{call}: give at least one parameter several values, as in "
            + ("--values sides=3..5." if call == "--values" else "sides=[3, 4, 5].")
        )
    _check_count(math.prod(len(values) for values in ranges.values()), call)


def varied_parameter(drawing: AnyDrawing, name: str, call: str) -> Parameter:
    """A drawing's parameter, or the seed, by name."""
    if name == SEED.name:
        return SEED
    parameters = typed(drawing._parameters)
    if name in drawing._parameters and name not in parameters:
        raise BadValue(f"{call}: {name} cannot vary, since its values cannot be typed in.")
    if name not in parameters:
        near = arguments.near(name, [*parameters, SEED.name])
        known = ", ".join([*parameters, SEED.name])
        raise BadValue(f"{call}: there is no parameter {name!r}{near}; the parameters are {known}.")
    return drawing._parameters[name]


def _check_count(count: int, call: str) -> None:
    if count > MOST_CELLS:
        raise BadValue(
            f"{call}: {count:,} pictures are too many; a contact sheet holds at most {MOST_CELLS}."
        )


def combinations(ranges: Ranges) -> list[dict[str, Any]]:
    """Every combination, the last range running fastest; of just two, the longer one."""
    order = list(ranges)
    if len(order) == 2:
        order.sort(key=lambda name: len(ranges[name]))
    found = [
        dict(zip(order, values, strict=True))
        for values in itertools.product(*(ranges[name] for name in order))
    ]
    return [{name: values[name] for name in ranges} for values in found]


def grid_width(ranges: Ranges) -> int | None:
    """With two ranges, the longer one goes across; else as it fits."""
    longest = max(len(values) for values in ranges.values())
    return longest if len(ranges) == 2 and longest <= MOST_ACROSS else None


def caption(values: dict[str, Any]) -> str:
    """`sides=3, side=40`."""
    return ", ".join(f"{name}={shown(value)}" for name, value in values.items())


def varied(
    drawing: AnyDrawing, ranges: dict[str, object], fit_each: bool, overlay: str | Iterable[str]
) -> Variations:
    """A picture of every combination, drawn in this process."""
    call = f"{drawing._name}.vary"
    lists = {name: listed(value) for name, value in ranges.items()}
    check_ranges(drawing, lists, call)
    seed, names, choices = fresh_seed(), checked_overlays(overlay, call), combinations(lists)
    cells = [_draw_cell(drawing, values, seed, names) for values in choices]
    return Variations(f"{drawing._name}, varied", choices, cells, fit_each, grid_width(lists))


def _draw_cell(
    drawing: AnyDrawing, values: dict[str, Any], common_seed: int, overlay: tuple[str, ...] = ()
) -> Cell:
    """Draw one combination in this process; a failure is told in the cell."""
    seed = values.get(SEED.name, common_seed)
    own = {name: value for name, value in values.items() if name != SEED.name}
    traced = "findings" in overlay
    outcome = run(lambda: drawing.run(seed=seed, **own), seed, traced=traced, is_drawing=True)
    return _cell(outcome, values, overlay, whole=True)


def draw_cells(
    target: str,
    settings: dict[str, str],
    choices: list[dict[str, Any]],
    seed: int,
    limits: Limits,
    workers: int,
    overlay: tuple[str, ...] = (),
    whole: bool = False,
) -> Iterator[tuple[int, Cell]]:
    """Draw combinations of a program's values in worker processes; each with its number, as it is done.

    With `whole`, cells keep their sheets, with the lines of the program that drew them.

    `settings` and `seed` are what all pictures share, so that they differ by their own values alone. A
    process that dies leaves what its picture was so far.
    """
    clear_leftovers()
    with private_folder() as folder:
        jobs = [
            Job(target, settings, values, seed, limits, overlay, str(folder / str(number)), whole)
            for number, values in enumerate(choices)
        ]
        with suppress(OSError):  # on a full disk nothing is kept of a picture whose process dies
            folder.mkdir(mode=0o700)
        for number, cell in done(_draw_job, jobs, workers, limits.seconds):
            yield number, _lost_cell(jobs[number], cell.reason) if isinstance(cell, Lost) else cell


class Job(NamedTuple):
    """What a worker process is told of a cell."""

    target: str
    settings: dict[str, str]
    values: dict[str, Any]
    seed: int
    limits: Limits
    overlay: tuple[str, ...]
    folder: str
    """Where a long run keeps its picture."""
    whole: bool


def _draw_job(job: Job) -> Iterator[Cell | Going]:
    texts = {name: shown(value) for name, value in job.values.items() if name != SEED.name}
    seed = job.values.get(SEED.name, job.seed)
    traced = job.whole or "findings" in job.overlay
    with suppress(OSError):
        Path(job.folder).mkdir()
    outcome = run_program(load(job.target), job.settings | texts, seed, job.limits, traced, _kept_in(job))
    yield _cell(outcome, job.values, job.overlay, job.whole)


def _kept_in(job: Job) -> Keeping:
    def keeping(host: Host, seconds: float | None, is_drawing: bool) -> AbstractContextManager[object]:
        return spooled(host, Path(job.folder), is_drawing)

    return keeping


def _lost_cell(job: Job, reason: str) -> Cell:
    """The cell of a job whose process did not hand it over, with what the process had kept."""
    sheet, count = kept(Path(job.folder))
    return _cell(Outcome(sheet, count, reason, f"Stopped: {reason}."), job.values, job.overlay, job.whole)


def _cell(outcome: Outcome, values: dict[str, Any], overlay: tuple[str, ...], whole: bool) -> Cell:
    sheet = outcome.sheet
    texts = {name: shown(value) for name, value in values.items()}
    if sheet is None:
        return Cell(caption(values), None, trouble=outcome.brief, notices=outcome.notices, values=texts)
    chosen = (sheet.parameters.get(name) for name in values)
    cell = Cell(
        caption(values),
        cell_picture(sheet, overlay),
        (sheet.width, sheet.height),
        sheet.paper,
        outcome.brief,
        sheet.dice._is_used,
        tuple(value for value in chosen if isinstance(value, Colour)),
        outcome.notices,
        texts,
        sheet if whole else None,
    )
    # Here, in a worker of many; it stays with the cell.
    _ = cell.box
    return cell
