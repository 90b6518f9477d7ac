"""How the command line words a plot: what it takes, pen by pen, and what is not as in the picture.

report(plotted, machine)
"""

from __future__ import annotations

from ovlo.cli.speech import wording
from ovlo.core.plot.plot import Plotted, Run
from ovlo.render.plotter.machine import Machine

NAMED = 4
"""Inks that are named for a pen that stands in for them."""

LEAST_UNLIKE = 1
"""By CIEDE2000, of an ink that is not the pen's."""


def report(plotted: Plotted, machine: Machine) -> list[str]:
    """What a plot takes, pen by pen, and what is not as in the picture."""
    rows = [_row(run, machine.seconds(run)) for run in plotted.runs]
    if len(rows) > 1:
        rows.append(_sum(plotted, machine))
    head = ("pen", "lifts", "lifts before", "drawn", "travel", "travel before", "time")
    return [*wording.table([head, *rows]), *notes(plotted)]


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


def _sum(plotted: Plotted, machine: Machine) -> tuple[str, ...]:
    runs = plotted.runs
    return (
        wording.counted(len(runs), "pen"),
        f"{sum(run.lifts for run in runs):,}",
        f"{sum(run.lifts_before for run in runs):,}",
        _metres(sum(run.drawn for run in runs)),
        _metres(sum(run.travel for run in runs)),
        _metres(sum(run.travel_before for run in runs)),
        _time(sum(machine.seconds(run) for run in runs)),
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
        far = f", by up to {inks[worst[0]]:.0f} CIEDE2000"
        found.append(f"{name} replaces {', '.join(worst[:NAMED])}{more}{far}.")
    if plotted.cut_marks:
        marks = wording.counted(plotted.cut_marks, "mark")
        found.append(
            f"{marks} {_do(plotted.cut_marks)} not fit on the page and {_are(plotted.cut_marks)} cut; "
            f"--fit makes everything fit."
        )
    if plotted.paper_marks:
        marks = wording.counted(plotted.paper_marks, "mark")
        found.append(f"{marks} in the colour of the paper {_are(plotted.paper_marks)} not drawn.")
    if plotted.narrow_areas:
        areas = wording.counted(plotted.narrow_areas, "piece")
        found.append(f"{areas} of areas {_are(plotted.narrow_areas)} narrower than the pen and not filled.")
    return found


def _do(count: int) -> str:
    return "does" if count == 1 else "do"


def _are(count: int) -> str:
    return "is" if count == 1 else "are"


def _metres(millimetres: float) -> str:
    return f"{millimetres / 1000:,.2f} m"


def _time(seconds: float) -> str:
    minutes = round(seconds / 60)
    if seconds < 90:
        return f"{seconds:.0f} s"
    return f"{minutes} min" if minutes < 90 else f"{minutes // 60} h {minutes % 60} min"
