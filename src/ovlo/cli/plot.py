"""`ovlo plot`: what a pen plotter draws of a program's picture.

ovlo plot harbour.py --page-size A3 --landscape --fit --hatch lines -o harbour.gcode -o preview.png
"""

from __future__ import annotations

from functools import partial

import click

from ovlo import outlets
from ovlo.cli import wording
from ovlo.cli.options import (
    Target,
    limit_options,
    output_option,
    pairs,
    program_argument,
    seed_option,
    set_option,
    targets,
)
from ovlo.cli.saying import say, tell_trouble
from ovlo.core.plot.hatching import HATCHES
from ovlo.core.plot.plot import HIDDEN, ORDERS, Plotted, Run
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.processes.rescue import guarded
from ovlo.program.running import Limits, run_program
from ovlo.render.plotter.machine import FEED, ON_LIFT, ON_LOWER
from ovlo.render.plotter.making import MARGIN, PlotHow, PlotOrder, checked_order

NAMED = 4
"""Inks that are named for a pen that stands in for them."""

LEAST_UNLIKE = 1
"""By CIEDE2000, of an ink that is not the pen's."""


@click.command()
@program_argument
@output_option(
    "Where to save the plot: .svg in millimetres, .gcode or .hpgl, or .png for a preview; repeatable. "
    "Without it, an SVG named after the program."
)
@set_option
@seed_option
@click.option("--page-size", metavar="NAME", help="Such as A4, letter or 200x300mm; else that of the sheet.")
@click.option("--landscape", is_flag=True, help="Turn the page.")
@click.option("--margin", metavar="LENGTH", help=f"What stays empty on each side. [default: {MARGIN:g}mm]")
@click.option("--fit", is_flag=True, help="Fill the page with all marks; else the sheet has its own size.")
@click.option(
    "--hidden",
    type=click.Choice(HIDDEN),
    default=HIDDEN[0],
    show_default=True,
    help="What later areas cover.",
)
@click.option(
    "--hatch", type=click.Choice(HATCHES), default=HATCHES[0], show_default=True, help="How areas are filled."
)
@click.option("--hatch-gap", metavar="LENGTH", help="Between two lines. [default: the width of the pen]")
@click.option("--hatch-angle", type=float, default=45.0, show_default=True, help="Of the lines, in degrees.")
@click.option(
    "--pen-tray", metavar="FILE", help="The pens at hand, a TOML file; else one for each ink and width."
)
@click.option(
    "--precision", metavar="LENGTH", help="How far a line may be off. [default: a tenth of the pen]"
)
@click.option(
    "--order",
    type=click.Choice(ORDERS),
    default=ORDERS[0],
    show_default=True,
    help="With little travel, or yours.",
)
@click.option(
    "--feed", type=float, default=FEED, show_default=True, help="How fast a pen draws, mm a minute."
)
@click.option("--on-lift", metavar="CODE", help=f"G-code that lifts the pen. [default: {ON_LIFT}]")
@click.option("--on-lower", metavar="CODE", help=f"G-code that lowers it. [default: {ON_LOWER}]")
@limit_options
def plot(
    program: str,
    outputs: tuple[str, ...],
    settings: tuple[str, ...],
    seed: int | None,
    step_limit: int,
    time_limit: float | None,
    **how: object,
) -> None:
    """Write what a pen plotter or a cutter draws of a picture.

    What later areas hide is left out, areas are filled by lines, each ink has its pen, lines are drawn once
    and in an order with little travel.
    """
    loaded = load(program)
    default = f"{loaded.name or loaded.path.stem}-plot.svg"
    files = targets(outputs, default, outlets.check_plot_target, loaded.path)
    order = checked_order(PlotHow(**how), "plot", _option)  # type: ignore[typeddict-item]
    given, bounds = pairs(settings, "--set"), Limits(step_limit, time_limit)
    conclusion = partial(_conclude, files, order, seed)
    keeping = partial(guarded, conclusion)
    if not conclusion(run_program(loaded, given, seed, bounds, False, keeping)):
        raise SystemExit(1)


def _option(name: str) -> str:
    """How a value is named on the command line."""
    return f"--{name.replace('_', '-')}"


def _conclude(files: list[Target], order: PlotOrder, seed: int | None, outcome: Outcome) -> bool:
    """Save the plot, then say what there is to say; whether all went well."""
    plotted = None
    if outcome.sheet is not None and not outcome.has_failed_empty:
        plotted = outlets.write_plots(outcome.sheet, [file.path for file in files], order)
    tell_trouble(outcome, seed)
    if plotted is None or outcome.sheet is None:
        say("Nothing was drawn before that.")
        return False
    if made := wording.made_with(outcome.sheet):
        say(made)
    if outcome.trouble:
        say("The plot so far:")
    for line in report(plotted, order):
        say(line)
    for file in files:
        say(f"{file.name}: {plotted.placing.width:.4g} × {plotted.placing.height:.4g} mm")
    return not outcome.trouble


def report(plotted: Plotted, order: PlotOrder) -> list[str]:
    """What a plot takes, pen by pen, and what is not as in the picture."""
    rows = [_row(run, order.machine.seconds(run)) for run in plotted.runs]
    if len(rows) > 1:
        rows.append(_sum(plotted, order))
    head = ("pen", "lifts", "lifts before", "drawn", "travel", "travel before", "time")
    table = [head, *rows]
    widths = [max(len(row[i]) for row in table) for i in range(len(head))]
    lines = [
        "  ".join(
            [
                row[0].ljust(widths[0]),
                *(cell.rjust(wide) for cell, wide in zip(row[1:], widths[1:], strict=True)),
            ]
        ).rstrip()
        for row in table
    ]
    return [*lines, *notes(plotted)]


def _row(run: Run, seconds: float) -> tuple[str, ...]:
    return (
        run.pen.name,
        f"{run.lifts:,}",
        f"{run.lifts_before:,}",
        _metres(run.drawn),
        _metres(run.travel),
        _metres(run.travel_before),
        _time(seconds),
    )


def _sum(plotted: Plotted, order: PlotOrder) -> tuple[str, ...]:
    runs = plotted.runs
    return (
        wording.counted(len(runs), "pen"),
        f"{sum(run.lifts for run in runs):,}",
        f"{sum(run.lifts_before for run in runs):,}",
        _metres(sum(run.drawn for run in runs)),
        _metres(sum(run.travel for run in runs)),
        _metres(sum(run.travel_before for run in runs)),
        _time(sum(order.machine.seconds(run) for run in runs)),
    )


def notes(plotted: Plotted) -> list[str]:
    """What is not as in the picture."""
    found = []
    standing_in: dict[str, dict[str, float]] = {}
    for one in plotted.replaced:
        if one.unlike >= LEAST_UNLIKE:
            standing_in.setdefault(one.pen.name, {})[one.ink.hex] = one.unlike
    for name, inks in standing_in.items():
        worst = sorted(inks, key=lambda ink: -inks[ink])
        more = f" and {len(inks) - NAMED} more" if len(inks) > NAMED else ""
        far = f", unlike by up to {inks[worst[0]]:.0f} of CIEDE2000"
        found.append(f"{name} stands in for {', '.join(worst[:NAMED])}{more}{far}.")
    if plotted.cut_marks:
        marks = wording.counted(plotted.cut_marks, "mark")
        found.append(
            f"{marks} would leave the room on the page and {_are(plotted.cut_marks)} cut; --fit fits all."
        )
    if plotted.paper_marks:
        marks = wording.counted(plotted.paper_marks, "mark")
        found.append(f"{marks} in the colour of the paper {_are(plotted.paper_marks)} not drawn.")
    if plotted.narrow_areas:
        areas = wording.counted(plotted.narrow_areas, "piece")
        found.append(f"{areas} of areas {_are(plotted.narrow_areas)} narrower than the pen and not filled.")
    return found


def _are(count: int) -> str:
    return "is" if count == 1 else "are"


def _metres(millimetres: float) -> str:
    return f"{millimetres / 1000:,.2f} m"


def _time(seconds: float) -> str:
    minutes = round(seconds / 60)
    if seconds < 90:
        return f"{seconds:.0f} s"
    return f"{minutes} min" if minutes < 90 else f"{minutes // 60} h {minutes % 60} min"
