"""How the command line words a plot: what it takes, pen by pen, and what is not as in the picture.

lines = written(report)
"""

from __future__ import annotations

from dataclasses import replace

from ovlo.cli.speech import wording
from ovlo.render.plotter.report import PenReport, PlotReport
from ovlo.render.plotter.simulation import Simulated

NAMED = 4
"""Inks that are named for a pen that stands in for them."""

MANY = 8
"""More pens than most people have."""


def written(report: PlotReport) -> list[str]:
    """What a plot takes, pen by pen, and what is not as in the picture."""
    rows = [_row(pen) for pen in report.pens]
    if len(rows) > 1:
        rows.append(_sum(report.pens))
    head = ("pen", "lifts", "lifts before", "drawn", "travel", "travel before", "time")
    home = f"; the way home is {report.way_home:,.0f} mm" if rows else ""
    return [
        *wording.table([head, *rows]),
        f"{wording.counted(report.marks, 'mark')} of the picture became "
        f"{wording.counted(report.strokes, 'stroke')}{home}.",
        *_notes(report),
    ]


def read(drawn: Simulated) -> list[str]:
    """What a machine makes of a file, pen by pen, and what would go wrong."""
    rows = []
    for pen in sorted({move.pen for move in drawn.moves if move.is_down}):
        mine = replace(drawn, moves=[move for move in drawn.moves if move.pen == pen])
        strokes = sum(move.is_down for move in mine.moves)
        lengths = _metres(mine.length(is_down=True)), _metres(mine.length(is_down=False))
        rows.append((f"pen {pen}", f"{strokes:,}", *lengths, _time(mine.seconds)))
    table = wording.table([("pen", "strokes", "drawn", "travel", "time"), *rows])
    return [*(table if rows else ["Nothing is drawn."]), *drawn.warnings]


def _row(pen: PenReport) -> tuple[str, ...]:
    return (
        pen.name,
        f"{pen.lifts:,}",
        f"{pen.lifts_before:,}",
        _metres(pen.drawn),
        _metres(pen.travel),
        _metres(pen.travel_before),
        _time(pen.seconds),
    )


def _sum(pens: list[PenReport]) -> tuple[str, ...]:
    whole = pens[0]._replace(
        name=wording.counted(len(pens), "pen"),
        lifts=sum(pen.lifts for pen in pens),
        lifts_before=sum(pen.lifts_before for pen in pens),
        drawn=sum(pen.drawn for pen in pens),
        travel=sum(pen.travel for pen in pens),
        travel_before=sum(pen.travel_before for pen in pens),
        seconds=sum(pen.seconds for pen in pens),
    )
    return _row(whole)


def _notes(report: PlotReport) -> list[str]:
    """What is not as in the picture."""
    found = []
    for name, inks in report.replaced.items():
        worst = sorted(inks, key=lambda ink: -inks[ink])
        more = f" and {len(inks) - NAMED} more" if len(inks) > NAMED else ""
        far = f", by up to {inks[worst[0]]:.0f} CIEDE2000"
        found.append(f"{name} replaces {', '.join(worst[:NAMED])}{more}{far}.")
    if report.wide_lines:
        lines = wording.counted(report.wide_lines, "line")
        found.append(f"{lines} {_are(report.wide_lines)} wider than the pen and filled by several strokes.")
    if report.fine_lines:
        lines = wording.counted(report.fine_lines, "line")
        found.append(f"{lines} {_are(report.fine_lines)} finer than the pen, which draws a wider line.")
    if len(report.pens) > MANY:
        found.append(f"{len(report.pens)} pens are many; --pen-tray draws with those at hand.")
    if report.cut_marks:
        marks = wording.counted(report.cut_marks, "mark")
        found.append(
            f"{marks} {_do(report.cut_marks)} not fit on the page and {_are(report.cut_marks)} cut; "
            f"--fit makes everything fit."
        )
    if report.paper_marks:
        marks = wording.counted(report.paper_marks, "mark")
        found.append(f"{marks} in the colour of the paper {_are(report.paper_marks)} not drawn.")
    if report.narrow_areas:
        areas = wording.counted(report.narrow_areas, "piece")
        found.append(f"{areas} of areas {_are(report.narrow_areas)} narrower than the pen and not filled.")
    if report.small_words:
        texts = wording.counted(report.small_words, "text")
        found.append(
            f"{texts} {_are(report.small_words)} so small that the outlines of the letters run together; "
            "--text stroke writes single lines."
        )
    return [*found, *report.warnings]


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
