"""`ovlo plot`: what a pen plotter draws of a program's picture.

ovlo plot harbour.py --page-size A3 --landscape --fit --hatch lines -o harbour.gcode -o preview.png
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
from ovlo.core.plot.plot import HIDDEN, ORDERS
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.processes.rescue import guarded
from ovlo.program.running import Limits, run_program
from ovlo.render.plotter.machine import FEED, ON_LIFT, ON_LOWER
from ovlo.render.plotter.making import PlotHow, PlotOrder, checked_order


@click.command()
@program_argument
@output_option(
    "Where to save the plot: .svg in millimetres, .gcode or .hpgl, or .png for a preview; repeatable. "
    "Without it, an SVG named after the program."
)
@set_option
@seed_option
@page_size_option
@landscape_option
@margin_option
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
