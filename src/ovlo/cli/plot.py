"""`ovlo plot`: what a pen plotter draws of a program's picture.

ovlo plot harbour.py --page-size A3 --landscape --fit --hatch parallel -o harbour.gcode -o preview.png
"""

from __future__ import annotations

from functools import partial

import click

from ovlo import outlets
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
from ovlo.cli.paper import landscape_option, margin_option, page_size_option
from ovlo.cli.speech import wording
from ovlo.cli.speech.plots import report
from ovlo.cli.speech.saying import say, tell_empty, tell_trouble
from ovlo.core.plot.hatching import HATCHES
from ovlo.core.plot.plot import HIDDEN_LINES, STROKE_ORDERS
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.processes.rescue import guarded
from ovlo.program.running import Limits, run_program
from ovlo.render.plotter.machine import FEED
from ovlo.render.plotter.making import PlotHow, PlotOrder, checked_order


@click.command()
@program_argument
@output_option(
    "File to save: .svg (in millimetres), .gcode, .hpgl, or .png for a preview; repeatable. "
    "Without it, an SVG named after the program."
)
@set_option
@seed_option
@page_size_option
@landscape_option
@margin_option
@click.option(
    "--fit", is_flag=True, help="Fill the page with all marks; otherwise the sheet is drawn at its own size."
)
@click.option(
    "--hidden-lines",
    type=click.Choice(HIDDEN_LINES),
    default=HIDDEN_LINES[0],
    show_default=True,
    help="Whether to draw lines that later areas cover.",
)
@click.option(
    "--hatch", type=click.Choice(HATCHES), default=HATCHES[0], show_default=True, help="How to fill areas."
)
@click.option(
    "--hatch-spacing", metavar="LENGTH", help="Distance between hatch lines. [default: the width of the pen]"
)
@click.option(
    "--hatch-angle",
    type=float,
    default=45.0,
    show_default=True,
    help="Direction of the hatch lines, in degrees anticlockwise from east.",
)
@click.option(
    "--pen-tray",
    metavar="FILE",
    help="TOML file that lists your pens and describes your machine. [default: one pen for each ink and "
    "width]",
)
@click.option(
    "--tolerance",
    metavar="LENGTH",
    help="Largest permitted deviation from the drawn line. [default: a tenth of the finest pen's width]",
)
@click.option(
    "--stroke-order",
    type=click.Choice(STROKE_ORDERS),
    default=STROKE_ORDERS[0],
    show_default=True,
    help="Order of strokes: shortest travel, or as drawn.",
)
@click.option(
    "--feed", type=float, default=FEED, show_default=True, help="Drawing speed, in millimetres per minute."
)
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
    """Convert a picture to pen-plotter or cutter output.

    Lines that later areas cover are removed, areas are hatched, each ink gets its own pen, and lines are
    drawn once, in an order that keeps travel short.
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
        tell_empty(files)
        return False
    if made := wording.made_with(outcome.sheet):
        say(made)
    if outcome.trouble:
        say("The plot so far:")
    for line in report(plotted, order.machine):
        say(line)
    for file in files:
        say(f"{file.name}: {plotted.placing.width:.4g} × {plotted.placing.height:.4g} mm")
    return not outcome.trouble
