"""Contact sheets: many small pictures side by side, each with a caption.

    contact_sheet([Cell("sides=3", columns, sheet…), …], "kite, varied")

A contact sheet is a sheet like any other, so every format can hold one.
"""

from __future__ import annotations

import textwrap
from dataclasses import dataclass, field, replace
from functools import cached_property
from math import ceil, sqrt

from ovlo.core.paint.measures import MarkBoxes, widest_line
from ovlo.core.sheet.host import unhosted
from ovlo.core.sheet.joining import joined
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.similarity import Similarity
from ovlo.core.values.arrays import Box
from ovlo.core.values.colour import WHITE, Colour
from ovlo.render import lettering
from ovlo.render.additions.overlays import overlays_of
from ovlo.render.page import Page

WIDTH = 1240
"""CSS pixels that a contact sheet aims at."""

NARROWEST, WIDEST = 120, 300
GAP, CAPTION, TITLE = 16, 22, 44
MARGIN = 0.06
SWATCH = 16
SMALLEST, TINY, LINE = 8.0, 6.0, 1.35
"""Of captions on one line, and on several, and how far apart these are, as a share of their size."""

BOLD = 1.15
"""How much wider bold words are."""

CHARACTER = 0.6
"""About how wide a character is, as a share of its size."""

FRAME, WORDS, TROUBLE = "#c8ccd4", "#333a46", "#a8201a"


@dataclass(frozen=True)
class Cell:
    """One picture of a contact sheet.

    Attributes
    ----------
    caption : str
    columns : Columns or None
        What was drawn, also up to a failure.
    size : (width, height)
        Of its sheet, in its unit.
    paper : Colour
    trouble : str
        What went wrong, in a sentence; "" when nothing did.
    used_dice : bool
        Whether chance had a part in it.
    swatches : tuple of Colour
        The colours its caption names.
    notices : tuple of str
        What else there is to tell of its run.
    values : dict of str to str
        What it was drawn with, as text.
    sheet : Sheet or None
        The whole of it, where that is kept.
    """

    caption: str
    columns: Columns | None
    size: tuple[float, float] = (4.0, 3.0)
    paper: Colour = WHITE
    trouble: str = ""
    used_dice: bool = False
    swatches: tuple[Colour, ...] = ()
    notices: tuple[str, ...] = ()
    values: dict[str, str] = field(default_factory=dict)
    sheet: Sheet | None = None

    @cached_property
    def box(self) -> Box | None:
        """The box of its marks, lines included; who makes a cell asks for it, so that it comes with it."""
        if self.columns is None:
            return None
        box = MarkBoxes.of(self.columns, lettering.box).whole
        if box is None:
            return None
        line = widest_line(self.columns) / 2
        return box[0] - line, box[1] - line, box[2] + line, box[3] + line


@dataclass(frozen=True)
class Grid:
    """How cells are laid out; lengths in CSS pixels.

    Attributes
    ----------
    across : int
        How many are in a row.
    side, height : float
        Of a cell.
    view : box or None
        The part of the plane that each shows; None for its own marks.
    caption : float
        The height of the captions.
    """

    across: int
    side: float
    height: float
    view: Box | None
    caption: float

    @property
    def row(self) -> float:
        """From one row to the next."""
        return self.height + self.caption + GAP

    def lower_than(self, room: float) -> Grid:
        """The same with cells so low that a row fits into a room."""
        return replace(self, height=min(self.height, room - self.caption))


def grid_of(cells: list[Cell], fit_each: bool, across: int | None, side: float | None = None) -> Grid:
    """A grid for cells, by default about 4:3 as a whole; `side` is the width of a cell."""
    common = _around([box for box in (cell.box for cell in cells) if box is not None])
    width, height = cells[0].size
    if common is not None and not fit_each:
        width, height = common[2] - common[0], common[3] - common[1]
    # Neither a line nor a point is the shape of a cell.
    shape = min(max(height / width if width > 0 else 1.0, 0.4), 1.6)
    across = across or min(len(cells), max(1, ceil(sqrt(len(cells) * 4 / 3 * shape))))
    side = side or min(max((WIDTH - GAP) / across - GAP, NARROWEST), WIDEST)
    lines = max(len(_caption_lines(cell, side)[0]) for cell in cells)
    caption = CAPTION + (lines - 1) * LINE * SMALLEST
    return Grid(across, side, side * shape, None if fit_each else common, caption)


def contact_sheet(cells: list[Cell], title: str, fit_each: bool = False, across: int | None = None) -> Sheet:
    """All cells on one sheet, `across` of them in a row (by default so that it is about 4:3)."""
    grid = grid_of(cells, fit_each, across)
    # Not one of the program's own sheets.
    with unhosted():
        sheet = Sheet(
            round(grid.across * (grid.side + GAP) + GAP),
            round(TITLE + ceil(len(cells) / grid.across) * grid.row),
        )
    sheet.title = title
    nib = sheet.new_nib()
    left, top = -sheet.width / 2 + GAP, sheet.height / 2
    entitle(nib, title, left, top - TITLE / 2)
    lay_cells(nib, cells, grid, left, top - TITLE)
    return sheet


def entitle(nib: Nib, title: str, x: float, y: float, most: float | None = None) -> None:
    """Write a title, from a place on, no wider than `most`."""
    nib.travel_to(x, y)
    with nib.styled(ink=WORDS):
        size = 16.0
        if most is not None:
            size *= min(1.0, most / max(lettering.words_width(title, size) * BOLD, 1e-9))
        nib.text(title, size=size, weight="bold", baseline="middle")


def lay_cells(nib: Nib, cells: list[Cell], grid: Grid, left: float, top: float) -> None:
    """Lay cells in rows, from an upper left corner on."""
    for i, cell in enumerate(cells):
        row, column = divmod(i, grid.across)
        x = left + grid.side / 2 + column * (grid.side + GAP)
        nib.travel_to(x, top - grid.height / 2 - row * grid.row)
        with nib.styled(ink=WORDS):
            _lay(nib, cell, grid)


def cell_picture(sheet: Sheet, names: tuple[str, ...]) -> Columns:
    """A sheet's marks with overlays as large as they are to be in a cell."""
    if not names:
        return sheet._columns
    page = Page.of(sheet, WIDEST / (sheet.width * sheet._pixels_per_unit))
    return joined([sheet._columns, overlays_of(sheet, page, names)], [Similarity(), Similarity()])


def _around(boxes: list[Box]) -> Box | None:
    if not boxes:
        return None
    lefts, bottoms, rights, tops = zip(*boxes, strict=True)
    return min(lefts), min(bottoms), max(rights), max(tops)


def _lay(nib: Nib, cell: Cell, grid: Grid) -> None:
    """One cell around the nib: its paper, its picture, its caption."""
    x, y = nib.position
    width, height = grid.side, grid.height
    paper = cell.paper if cell.paper.opacity else None
    with nib.styled(ink=FRAME, line_width=1, line_join="miter"):
        nib.rectangle(width, height, fill=paper)
    view = grid.view or cell.box
    if cell.columns is not None and view is not None:
        inside = 1 - 2 * MARGIN
        left, bottom, right, top = view
        scale = min(inside * width / (right - left), inside * height / (top - bottom))
        move = x - scale * (left + right) / 2, y - scale * (bottom + top) / 2
        nib.sheet._trail.stamp(cell.columns, (scale, 0.0, *move), nib=0)
    if cell.trouble:
        _explain(nib, cell.trouble, width, height)
    lines, size = _caption_lines(cell, width)
    for i, line in enumerate(lines):
        nib.travel_to(x, y - height / 2 - CAPTION / 2 - i * LINE * size)
        nib.travel_by(len(cell.swatches) * SWATCH / 2 if i == 0 else 0, 0)
        nib.text(line, size=size, align="middle", baseline="middle")
    if cell.swatches:  # else no letter need be measured, and no font loaded
        nib.travel_to(x + len(cell.swatches) * SWATCH / 2, y - height / 2 - CAPTION / 2)
        nib.travel_by(-lettering.words_width(lines[0], size) / 2, 0)
    for swatch in reversed(cell.swatches):
        nib.travel_by(-SWATCH / 2, 0)
        with nib.styled(ink=FRAME, line_width=1):
            nib.rectangle(0.7 * SWATCH, 0.7 * SWATCH, fill=swatch)
        nib.travel_by(-SWATCH / 2, 0)


def _caption_lines(cell: Cell, width: float) -> tuple[list[str], float]:
    """A caption in lines that fit below a cell, and their size: smaller, and then on several lines."""
    room = width - len(cell.swatches) * SWATCH
    size = min(13.0, room / (CHARACTER * max(len(cell.caption), 1)))
    if size >= SMALLEST:
        return [cell.caption], size
    longest = max(map(len, cell.caption.split()))
    size = min(max(room / (CHARACTER * longest), TINY), SMALLEST)
    return textwrap.wrap(cell.caption, max(4, int(room / (CHARACTER * size) + 1e-9))), size


def _explain(nib: Nib, trouble: str, width: float, height: float) -> None:
    """An error, on a slip at the top of the cell."""
    size = 11.0
    lines = textwrap.wrap(trouble, max(8, int((width - 12) / (CHARACTER * size))))
    lines = lines[: max(1, int((height - 8) / (size * 1.3)))]
    x, y = nib.position
    with nib.returning(), nib.styled(ink=TROUBLE):
        for i, line in enumerate(lines):
            nib.travel_to(x - width / 2 + 6, y + height / 2 - 6 - i * size * 1.3)
            nib.text("".join(c for c in line if c.isprintable()), size=size, baseline="hanging")
