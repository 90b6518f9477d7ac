"""How the command line words what a drawing came to.

account("kite.svg", sheet)
# kite.svg: 640 × 480 px, 4 lines and 1 jump, 360 px drawn, the nib came back to its start
"""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from ovlo.core.paint.measures import drawn_length
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.sheet.step_table import gaps
from ovlo.core.trail.columns import PenState
from ovlo.program.parameters import shown
from ovlo.render.page import Page, mark_boxes


def made_with(sheet: Sheet) -> str:
    """The values and the seed a picture was made with, or nothing."""
    values = [f"{name}={shown(value)}" for name, value in sheet.parameters.items()]
    if sheet.seed is not None and sheet.dice._is_used:
        values.append(f"seed={sheet.seed}")
    return f"{sheet.title or 'made'} with {', '.join(values)}".lstrip() if values else ""


def beyond(sheet: Sheet) -> str:
    """How many marks leave the sheet, how far, and what would show them all; or nothing."""
    found = mark_boxes(sheet).beyond(sheet.width, sheet.height)
    if not found.count:
        return ""
    far = ", ".join(
        f"{distance:.4g} {sheet.unit} beyond the {edge}" for edge, distance in found.distances.items()
    )
    leave = "leaves" if found.total == 1 else "leave"
    return (
        f"{found.count} of {counted(found.total, 'mark')} {leave} the sheet: {far}. "
        f"--fit zooms by {Page.of(sheet, fit=True).scale:.2g} to show them all."
    )


def account(name: str, sheet: Sheet) -> str:
    """One line about a saved picture."""
    size = f"{sheet.width:g} × {sheet.height:g} {sheet.unit}"
    return f"{name}: {size}, {steps(sheet)}, {length(sheet)} drawn, {coming_back(sheet)}"


def steps(sheet: Sheet) -> str:
    """How many steps were made: drawn ones, borders of areas, jumps; where a nib was put at first is none."""
    counts = _step_counts(sheet)
    total = sum(counts.values())
    if not total:
        return "no steps"
    drawn = counts.pop("drawn")
    others = "".join(f", {counted(count, noun)}" for noun, count in counts.items() if count)
    return f"{counted(total, 'step')} ({drawn:,} drawn{others})"


def _step_counts(sheet: Sheet) -> dict[str, int]:
    columns = sheet._columns
    pens = columns.of_steps("pen")
    is_border = pens == PenState.TRACE
    is_jump = ~columns.is_drawn & ~is_border & (columns.points != columns.starts).any(axis=1)
    return {
        "drawn": int(columns.is_drawn.sum()),
        "border": int(is_border.sum()),
        "jump": int(is_jump.sum()),
    }


def length(sheet: Sheet) -> str:
    """The drawn length with its unit."""
    return f"{drawn_length(sheet._columns):,.1f} {sheet.unit}"


def coming_back(sheet: Sheet) -> str:
    """Whether the nibs are back where they started."""
    ends = gaps(sheet)
    if len(ends) > 1:
        back = ends.count(0.0)
        return f"{back} of {len(ends)} nibs came back to their start"
    if not ends:
        return "no nib"
    if not any(_step_counts(sheet).values()):
        return "no nib moved"
    if ends[0] == 0:
        return "the nib came back to its start"
    return f"the nib ended {ends[0]:.4g} {sheet.unit} from its start"


def table(rows: Sequence[Sequence[str]], left: int = 1) -> list[str]:
    """Rows of equal length as lines, the first so many columns aligned to the left and the rest right."""
    widths = [max(len(cell) for cell in column) for column in zip(*rows, strict=True)]
    return [
        "  ".join(
            cell.ljust(width) if i < left else cell.rjust(width)
            for i, (cell, width) in enumerate(zip(row, widths, strict=True))
        ).rstrip()
        for row in rows
    ]


def counted(count: int, noun: str) -> str:
    """`1 step`, `2 steps`, `1,200 steps`."""
    return f"{count:,} {noun}" if count == 1 else f"{count:,} {noun}s"


LARGE_PAGE = 20_000_000
"""Bytes of a page from which on its size is shown."""


def large_page(name: str, path: Path) -> str:
    """How large a page is that takes a while to open; "" for others."""
    size = path.stat().st_size
    return "" if size <= LARGE_PAGE else f"{name} is {size / 1e6:.0f} MB; a browser takes a while to open it."
