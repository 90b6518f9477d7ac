"""A poster on many sheets of paper that are cut and glued together.

papers = poster(columns, page, Paper(page_size("A2", "draw"), tile=page_size("A4", "draw")), "draw")

The first sheet is a plan. Each of the others shows a part of the poster, marks at which it is cut, and which
part it is; neighbours overlap, so that there is something to glue.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from math import ceil
from typing import NamedTuple, TypedDict

from ovlo.core.plot.placing import check_margin
from ovlo.core.sheet.host import unhosted
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Columns
from ovlo.core.values import arguments, units
from ovlo.core.values.arrays import Box
from ovlo.core.values.errors import BadValue
from ovlo.core.values.units import MARGIN, Length
from ovlo.render.page import Page
from ovlo.render.paper.paper_sheet import Paper, PaperSheet, Print, print_of, whole

OVERLAP = 10.0
"""Millimetres that two neighbours share."""

MARK, GREY = 5.0, "#555555"
"""How long a mark to cut at is, in millimetres, and its ink."""

MOST_TILES = 400


class Tiling(NamedTuple):
    """Sheets of paper of one size that cover a poster: how many, and how large a part each shows."""

    columns: int
    rows: int
    tile: tuple[float, float]
    part: tuple[float, float]


def poster(columns: Columns, page: Page, paper: Paper, call: str) -> list[PaperSheet]:
    """The sheets of paper of a poster.

    Raises
    ------
    BadValue
        If the sheets of paper are too small, or as large as the poster, or too many.
    """
    tiling = checked_tiling(paper, call)
    picture = print_of(columns, page, paper, call)
    parts = [(row, column) for row in range(tiling.rows) for column in range(tiling.columns)]
    plan = _plan(picture, paper.size, tiling, page.text)
    return [plan, *(_part(picture, paper.size, tiling, *one, page.text) for one in parts)]


class PaperHow(TypedDict, total=False):
    """The pages of paper that are asked for; see `Sheet.save`."""

    page_size: str | None
    landscape: bool
    margin: Length | None
    tiles: str | None


def checked_paper(
    how: PaperHow, suffixes: Iterable[str], scale: float, call: str, spelt: Callable[[str], str] = str
) -> Paper | None:
    """The pages of paper that are asked for, if any; `spelt` says how whoever asks writes a name.

    Raises
    ------
    BadValue, BadType
        If there is no such page, no room on it, another file than a PDF, or a scale.
    """
    name, margin, tiles = how.get("page_size"), how.get("margin"), how.get("tiles")
    is_landscape = arguments.truth(how.get("landscape", False), call, spelt("landscape"))
    if name is None:
        for option, value in (("landscape", is_landscape), ("margin", margin), ("tiles", tiles)):
            if value is not None and value is not False:
                example = f"add {spelt('page_size')}, such as A4"
                raise BadValue(f"{call}: {spelt(option)} needs a page size: {example}.")
        return None
    if others := [suffix for suffix in suffixes if suffix.lower() != ".pdf"]:
        raise BadValue(f"{call}: only a PDF has pages of paper; save as .pdf instead of {others[0]}.")
    if scale != 1:
        raise BadValue(f"{call}: the page size sets the scale; leave {spelt('scale')} out.")
    size = units.page_size(name, call, is_landscape)
    empty = units.millimetres(MARGIN if margin is None else margin, call, spelt("margin"))
    check_margin(size, empty, call)
    paper = Paper(size, empty, None if tiles is None else units.page_size(tiles, call))
    if paper.tile is not None:
        checked_tiling(paper, call)
    return paper


def checked_tiling(paper: Paper, call: str) -> Tiling:
    """How a poster is cut: the way, upright or across, that takes fewer sheets."""
    assert paper.tile is not None
    ways = [_tiling(paper.size, turned) for turned in (paper.tile, paper.tile[::-1])]
    tiling = min(ways, key=lambda one: one.columns * one.rows)
    if min(paper.tile) <= 2 * MARGIN + OVERLAP:
        least = 2 * MARGIN + OVERLAP
        raise BadValue(
            f"{call}: tiles must be larger than {least:g} mm, to leave room for margins and overlap."
        )
    count = tiling.columns * tiling.rows
    size = f"{paper.size[0]:g} × {paper.size[1]:g} mm"
    if count == 1:
        raise BadValue(f"{call}: one tile is large enough for the whole page of {size}; leave tiles out.")
    if count > MOST_TILES:
        raise BadValue(
            f"{call}: the poster would need {count:,} tiles; the limit is {MOST_TILES}. Use larger tiles."
        )
    return tiling


def _tiling(size: tuple[float, float], tile: tuple[float, float]) -> Tiling:
    """Parts of one size that cover a poster and overlap by just what they must."""
    counts, parts = [], []
    for length, side in zip(size, tile, strict=True):
        most = side - 2 * MARGIN
        count = max(1, ceil((length - OVERLAP) / max(most - OVERLAP, 1e-3) - 1e-9))
        counts.append(count)
        parts.append(min(most, (length + (count - 1) * OVERLAP) / count))
    return Tiling(counts[0], counts[1], tile, (parts[0], parts[1]))


def _corner(tiling: Tiling, size: tuple[float, float], row: int, column: int) -> tuple[float, float]:
    """The lower left corner of a part on the poster; the first row is on top."""
    across, up = (side - OVERLAP for side in tiling.part)
    return column * across, size[1] - tiling.part[1] - row * up


def _part(
    picture: Print, size: tuple[float, float], tiling: Tiling, row: int, column: int, text: str
) -> PaperSheet:
    """One sheet of paper: what is seen of the poster through its window."""
    x, y = _corner(tiling, size, row, column)
    left, bottom = ((tile - part) / 2 for tile, part in zip(tiling.tile, tiling.part, strict=True))
    move = left - x, bottom - y
    window = left, bottom, left + tiling.part[0], bottom + tiling.part[1]
    left, bottom, right, top = picture.room
    moved = left + move[0], bottom + move[1], right + move[0], top + move[1]
    room = (
        max(window[0], moved[0]),
        max(window[1], moved[1]),
        min(window[2], moved[2]),
        min(window[3], moved[3]),
    )
    seen = picture._replace(at=(picture.at[0] + move[0], picture.at[1] + move[1]), room=room)
    marks = _marks(tiling, row, column, window)
    prints = (seen, whole(marks, text)) if room[0] < room[2] and room[1] < room[3] else (whole(marks, text),)
    return PaperSheet(*tiling.tile, prints)


def _marks(tiling: Tiling, row: int, column: int, window: Box) -> Sheet:
    """Where to cut, and which part it is."""
    sheet, nib = _transparent_sheet(tiling.tile)
    left, bottom, right, top = window
    with nib.styled(line_width=0.2, ink=GREY):
        for x in (left, right):
            for y, sense in ((bottom, -1), (top, 1)):
                _line(nib, (x, y + sense), (x, y + sense * MARK))
        for y in (bottom, top):
            for x, sense in ((left, -1), (right, 1)):
                _line(nib, (x + sense, y), (x + sense * MARK, y))
        # To the right and below, the neighbour is glued over what is shared.
        if column + 1 < tiling.columns:
            for y, sense in ((bottom, -1), (top, 1)):
                _line(nib, (right - OVERLAP, y + sense), (right - OVERLAP, y + sense * MARK / 2))
        if row + 1 < tiling.rows:
            for x, sense in ((left, -1), (right, 1)):
                _line(nib, (x + sense, bottom + OVERLAP), (x + sense * MARK / 2, bottom + OVERLAP))
    nib.ink = GREY
    nib.travel_to(*_centred(sheet, ((left + right) / 2, bottom - MARGIN / 2)))
    words = f"row {row + 1} of {tiling.rows}, column {column + 1} of {tiling.columns}"
    nib.text(words, size=3, align="middle", baseline="middle")
    return sheet


def _plan(picture: Print, size: tuple[float, float], tiling: Tiling, text: str) -> PaperSheet:
    """A small picture of the poster with the borders and numbers of its parts."""
    tile = tiling.tile
    head = 14.0
    scale = min((tile[0] - 2 * MARGIN) / size[0], (tile[1] - 2 * MARGIN - head) / size[1], 0.5)
    x, y = (tile[0] - size[0] * scale) / 2, (tile[1] - head - size[1] * scale) / 2
    page = picture.page
    small = page.sized(page.shown_width * scale, page.shown_height * scale)
    left, bottom, right, top = picture.room
    room = x + left * scale, y + bottom * scale, x + right * scale, y + top * scale
    shown = Print(picture.columns, small, (room[0], room[1]), room)
    sheet, nib = _transparent_sheet(tile)
    nib.travel_to(*_centred(sheet, (tile[0] / 2, tile[1] - MARGIN - 4)))
    words = f"{size[0]:g} × {size[1]:g} mm on {tiling.columns * tiling.rows} sheets of paper"
    nib.text(words, size=5, align="middle", baseline="middle")
    for row in range(tiling.rows):
        for column in range(tiling.columns):
            left, bottom = _corner(tiling, size, row, column)
            middle = left + tiling.part[0] / 2, bottom + tiling.part[1] / 2
            nib.travel_to(*_centred(sheet, (x + middle[0] * scale, y + middle[1] * scale)))
            with nib.styled(line_width=0.3, ink=GREY, line_dash=(1.5, 1)):
                nib.rectangle(tiling.part[0] * scale, tiling.part[1] * scale)
            nib.circle(4, fill="white")
            nib.text(f"{row + 1}.{column + 1}", size=3, align="middle", baseline="middle")
    return PaperSheet(*tile, (shown, whole(sheet, text)))


def _transparent_sheet(tile: tuple[float, float]) -> tuple[Sheet, Nib]:
    with unhosted():
        sheet = Sheet(*tile, paper="transparent", unit="mm")
    nib = sheet.new_nib()
    nib.line_width = 0.2
    return sheet, nib


def _line(nib: Nib, start: tuple[float, float], end: tuple[float, float]) -> None:
    nib.travel_to(*_centred(nib.sheet, start))
    nib.line_to(*_centred(nib.sheet, end))


def _centred(sheet: Sheet | None, place: tuple[float, float]) -> tuple[float, float]:
    """A place on a sheet of paper, counted from its sheet's centre."""
    assert sheet is not None
    return place[0] - sheet.width / 2, place[1] - sheet.height / 2
