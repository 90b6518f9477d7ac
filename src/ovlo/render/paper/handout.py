"""Contact sheets on sheets of paper, as many as are needed.

papers = handout(cells, "kite: sides=3..30", Paper(page_size("A4", "vary"), 12), across=4)
"""

from __future__ import annotations

from math import ceil

from ovlo.core.sheet.host import unhosted
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import BadValue
from ovlo.core.values.units import PIXELS_PER_UNIT
from ovlo.render.additions import contact
from ovlo.render.additions.contact import GAP, Cell
from ovlo.render.paper.paper_sheet import Paper, PaperSheet, whole

TITLE, FOOT = 40.0, 24.0
"""CSS pixels of the title on top, and of the number of the page at the foot."""

PIXELS = PIXELS_PER_UNIT["mm"]

USUAL = 190.0
"""CSS pixels, about, of a cell if nothing is said: 5 cm."""

WORTH = 0.8
"""Times the usual size that cells may have to be all on one page."""

NARROWEST = 40.0
"""CSS pixels of a cell in which anything can be seen."""


def handout(
    cells: list[Cell],
    title: str,
    paper: Paper,
    across: int | None,
    fit_each: bool,
    text: str,
    call: str,
) -> list[PaperSheet]:
    """All cells on sheets of paper, `across` of them in a row.

    Parameters
    ----------
    across : int or None
        None for the largest cells with which all are on one page, if they are 4 cm wide or more; else for as
        many pages as cells of about 5 cm need.

    Raises
    ------
    BadValue
        If the margins leave no room for cells.
    """
    size, margin, _ = paper
    width, height = ((side - 2 * margin) * PIXELS for side in size)
    room = height - TITLE - FOOT
    grid = _grid(cells, fit_each, width, room, across) if across else _largest(cells, fit_each, width, room)
    columns = grid.across
    if min(grid.side, grid.height) < NARROWEST:
        raise BadValue(
            f"{call}: {columns} columns with margins of {margin:g} mm leave no room on a page of "
            f"{size[0]:g} × {size[1]:g} mm; use fewer columns, smaller margins or a larger page."
        )
    number = columns * max(1, int((room + GAP) // grid.row))
    lots = [cells[i : i + number] for i in range(0, len(cells), number)]
    papers = []
    for i, lot in enumerate(lots, 1):
        with unhosted():  # not one of the program's own sheets
            sheet = Sheet(size[0] * PIXELS, size[1] * PIXELS)
        left, top = -width / 2, height / 2
        nib = sheet.new_nib()
        contact.entitle(nib, title, left, top - TITLE / 3, width)
        contact.lay_cells(nib, lot, grid, left, top - TITLE)
        nib.ink = contact.WORDS
        nib.travel_to(0, -height / 2 + FOOT / 4)
        if len(lots) > 1:
            nib.text(f"{i} of {len(lots)}", size=11, align="middle")
        papers.append(PaperSheet(*size, (whole(sheet, text),)))
    return papers


def _grid(
    cells: list[Cell], fit_each: bool, width: float, room: float, columns: int, rows: int = 1
) -> contact.Grid:
    """A grid of columns that fill the width, and of which so many rows fit into a room."""
    grid = contact.grid_of(cells, fit_each, columns, (width + GAP) / columns - GAP)
    return grid.lower_than((room + GAP) / rows - GAP)


def _largest(cells: list[Cell], fit_each: bool, width: float, room: float) -> contact.Grid:
    """The grid with the largest pictures on one page, or the usual one if that makes them much smaller."""
    most = max(1, min(round(width / USUAL), len(cells)))
    usual = _grid(cells, fit_each, width, room, most)
    best, size = usual, WORTH * usual.side
    for columns in range(1, most + 1):
        shape = contact.grid_of(cells, fit_each, columns, USUAL).height / USUAL
        grid = _grid(cells, fit_each, width, room, columns, rows=ceil(len(cells) / columns))
        shown = min(grid.side, grid.height / shape)
        if shown > size:
            best, size = grid, shown
    return best
