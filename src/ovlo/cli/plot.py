"""`ovlo plot`: what a pen plotter draws of a program's picture.

ovlo plot harbour.py --page-size A3 --landscape --fit --hatch parallel -o harbour.gcode -o preview.png
"""

from __future__ import annotations

from functools import partial
from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli.options import Target, choice_option, program_or_none, spelt, targets
from ovlo.cli.paper import landscape_option, margin_option, plot_size_option
from ovlo.cli.run import Run, saves_files
from ovlo.cli.speech.plots import read, written
from ovlo.cli.speech.saying import say
from ovlo.core.plot.hatching import HATCHES
from ovlo.core.plot.plot import DRY_FRAMES, HIDDEN_LINES, PEN_ORDERS, PLOT_TEXTS, STROKE_ORDERS
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import BadUse
from ovlo.render.files import checked_path
from ovlo.render.plotter.making import PlotHow, PlotOrder, checked_order


@click.command()
@saves_files(
    "File to save: .svg (in millimetres), .gcode, .hpgl, or .png or .html for a preview; repeatable. "
    "Without it, an SVG named after the program.",
    program_or_none,
)
@plot_size_option
@landscape_option
@margin_option
@click.option(
    "--fit", is_flag=True, help="Fill the page with all marks; otherwise the sheet is drawn at its own size."
)
@choice_option("--hidden-lines", HIDDEN_LINES, "Whether to draw lines that later areas cover.")
@choice_option("--hatch", HATCHES, "How to fill areas.")
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
    help="TOML file that lists your pens and describes your machine. [default: one pen for each ink]",
)
@click.option(
    "--tolerance",
    metavar="LENGTH",
    help="Largest permitted deviation from the drawn line. [default: a tenth of the finest pen's width]",
)
@choice_option("--text", PLOT_TEXTS, "Words as filled outlines, or in letters of single strokes.")
@choice_option("--stroke-order", STROKE_ORDERS, "Order of strokes: shortest travel, or as drawn.")
@choice_option(
    "--pen-order",
    PEN_ORDERS,
    "Order of pens that need not lie on one another: light inks first, or as drawn.",
)
@click.option(
    "--pen-width",
    metavar="LENGTH",
    help="Width of every pen, without a tray. [default: the width of most lines of its ink]",
)
@choice_option("--dry-frame", DRY_FRAMES, "Go around the drawing or the page first, with the pen lifted.")
@click.option("--registration-marks", is_flag=True, help="Let every pen draw a cross in each corner.")
@click.option("--file-per-pen", is_flag=True, help="Save a file for each pen, such as kite-1-black.gcode.")
@click.option(
    "--read",
    "source",
    metavar="PLOT",
    help="Instead of a program, read a .gcode, .hpgl or .svg file and show what a machine makes of it.",
)
def plot(run: Run, source: str | None, **how: object) -> bool:
    """Convert a picture to pen-plotter or cutter output.

    Lines that later areas cover are removed, areas are hatched, each ink gets its own pen, and lines are
    drawn once, in an order that keeps travel short.
    """
    order = checked_order(PlotHow(**how), "plot", spelt)  # type: ignore[typeddict-item]
    if source is not None:
        return _read(source, run, order)
    if not run.target:
        raise BadUse("plot: name a program, or a plot with --read.")
    files = run.files("-plot.svg", outlets.check_plot_target)
    return run.save(files, partial(_write, files, order), noun="plot")


def _read(source: str, run: Run, order: PlotOrder) -> bool:
    """Show what a machine makes of a file."""
    if run.target:
        raise BadUse(f"plot: --read shows a plot and runs no program; leave out {run.target}.")
    path = checked_path(source, "--read")
    files = targets(run.outputs, f"{path.stem}.png", outlets.check_preview_target, path)
    for line in read(outlets.read_plot(path, [file.path for file in files], order)):
        say(line)
    for file in files:
        say(file.name)
    return True


def _write(files: list[Target], order: PlotOrder, sheet: Sheet) -> list[str]:
    """Write the plot; the report, and a line about each file."""
    report, paths = outlets.write_plots(sheet, [file.path for file in files], order)
    size = f"{report.width:.4g} × {report.height:.4g} mm"
    pens = len(paths) // len(files)  # files for each that was asked for
    names = [Path(files[i // pens].name).with_name(path.name) for i, path in enumerate(paths)]
    lines = [f"{name}: {size}" for name in names]
    return [*written(report), *lines]
