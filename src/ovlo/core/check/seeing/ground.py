"""What lies beneath each mark, and what is on top at the end: the marks painted on a raster, level by level.

ground = Ground(sheet, painting, letters)
ground.alike_areas, ground.top

SampledLines and words are looked at in points along them, before the areas above them are painted. They are
not painted themselves, but it is kept where they are seen.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from typing import TYPE_CHECKING, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ovlo.core.check.seeing.contrast import ALIKE, FAINT, UNLIKE, laid_over, unlikeness_of
from ovlo.core.check.seeing.levels import Levels
from ovlo.core.check.seeing.raster import spans
from ovlo.core.check.seeing.samples import PIXELS, SPACING, Points, SampledLines
from ovlo.core.paint.measures import Letters
from ovlo.core.paint.order import Mark, Painting
from ovlo.core.paint.outlines import ranges
from ovlo.core.trail.columns import Columns, Text
from ovlo.core.values.arrays import Floats, Ints
from ovlo.core.values.colour import Colour

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

Pixels = NDArray[np.int32] | Ints

GROUND = 0.98
"""An area that covers so much of the sheet is a ground, whatever its colour."""

NOBODY = np.iinfo(np.int64).max

MANY = 1000
"""Points of a path of which only the different cells are kept."""

LOT = 4_000_000
"""Pixels that are painted at once."""


class AlikeArea(NamedTuple):
    """An area that cannot be told from what lies beneath, and how unlike that is, with a pixel of it.

    `below` are the positions of the areas beneath, and -1 for the paper.
    """

    number: int
    beneath: Colour
    unlike: float
    pixel: int
    below: NDArray[np.int32]


class Fills(NamedTuple):
    """All areas in the order they are painted: where in that order, their border's number, their paint."""

    positions: Ints
    borders: Ints
    paints: NDArray[np.float32]
    marks: list[Mark]


class Ground:
    """The raster, and what was found out while it was painted.

    Attributes
    ----------
    fills : Fills
    lines : SampledLines
    alike_areas : list of AlikeArea
    alike_pieces : dict
        Pieces of strokes that cannot be told from what lies beneath, with its colour.
    alike_texts : list of (Text, Colour, bool)
        Texts that can hardly be told from what lies beneath, with its colour; and whether not at all.
    top : int array of shape (pixels,)
        The position of the opaque area that was painted last, or -1.
    """

    def __init__(self, sheet: Sheet, painting: Painting, letters: Letters) -> None:
        self._columns: Columns = sheet._columns
        self._painting = painting
        self._letters = letters
        self.scale = PIXELS / max(sheet.width, sheet.height)
        self._corner = np.array([-sheet.width / 2, -sheet.height / 2])
        size = [max(1, round(side * self.scale)) for side in (sheet.height, sheet.width)]
        self.shape: tuple[int, int] = size[0], size[1]
        self.fills = _fills(painting, self._columns)
        self.lines = SampledLines(painting.strokes, self._columns, self.to_pixels, self.scale)
        paper = np.array(sheet.paper._rgb) if sheet.paper.opacity == 1 else np.full(3, np.nan)
        self.top = np.full(size[0] * size[1], -1, np.int32)
        # A pixel has the colour of the opaque area on top, or one that was mixed.
        self._opaque = np.tile(paper.astype(np.float32), (len(painting.marks) + 1, 1))
        self._opaque[self.fills.positions + 1] = self.fills.paints[:, :3]
        self._is_mixed = np.zeros(len(self.top), bool)
        self._mixed = np.empty((0, 3), np.float32)
        # By which path of strokes a line is first seen there, in coarse cells since points along two lines
        # that cross are not the same: what is laid over a line is seen too.
        self._inked_by = np.full(len(self.top), NOBODY, np.int64)
        self._middles = _middles(self.shape)
        self._is_middle = self._middles == np.arange(len(self.top))
        self._inks = np.array(
            [(*style.ink._rgb, style.ink.opacity) for style in self._columns.styles], np.float32
        )
        self.alike_areas: list[AlikeArea] = []
        self.alike_pieces: dict[int, Colour] = {}
        self.alike_texts: list[tuple[Text, Colour, bool]] = []
        border = painting.borders
        is_evenodd = np.zeros(len(border), bool)
        is_evenodd[self.fills.borders] = [mark.fill_rule == "evenodd" for mark in self.fills.marks]
        self._spans = spans(
            self.to_pixels(border.vertices), border.codes, border.firsts, is_evenodd, self.shape
        )
        self._bounds = np.searchsorted(self._spans.areas, np.arange(len(border) + 1))
        counts = np.append(0, np.cumsum(self._spans.ends - self._spans.begins))
        self._sizes = np.diff(counts[self._bounds])
        self._paint()

    def to_pixels(self, points: Floats) -> Floats:
        """Points of the sheet in pixels of the raster, whose first row is the lowest."""
        pixels: Floats = (points - self._corner) * self.scale
        return pixels

    def colours(self, pixels: Pixels) -> NDArray[np.float32]:
        """The colours of pixels so far, without lines and words; NaN where nothing is known of the paper."""
        found: NDArray[np.float32] = self._opaque[self.top[pixels] + 1]
        is_mixed = self._is_mixed[pixels]
        if is_mixed.any():
            found[is_mixed] = self._mixed[pixels[is_mixed]]
        return found

    def numbers(self, points: Points) -> tuple[Ints, Ints]:
        """The pixels of points that are on the raster, and which points those are."""
        height, width = self.shape
        x, y = points.x, points.y
        on = np.flatnonzero((x >= 0) & (x < width) & (y >= 0) & (y < height))
        return y[on] * width + x[on], on

    # ── painting ──────────────────────────────────────────────────────────────────────────────────────────

    def _paint(self) -> None:
        """Paint the areas, and look at lines and words, from the lowest level up."""
        levels_of_areas, levels_of_paths, texts = self._levels()
        areas, paths = np.argsort(levels_of_areas, kind="stable"), np.argsort(levels_of_paths, kind="stable")
        highest = int(max(levels_of_areas.max(initial=0), levels_of_paths.max(initial=0)))
        of_areas = np.searchsorted(levels_of_areas[areas], np.arange(highest + 2))
        of_paths = np.searchsorted(levels_of_paths[paths], np.arange(highest + 2))
        for level in range(highest + 1):
            self._paint_areas(areas[of_areas[level] : of_areas[level + 1]])
            pieces = self.lines.pieces_of(np.sort(paths[of_paths[level] : of_paths[level + 1]]))
            for lot in self.lines.lots(pieces):
                self._look_at_lines(lot)
            for text in texts.get(level, ()):
                self._look_at_text(text)

    def _levels(self) -> tuple[Ints, Ints, dict[int, list[Text]]]:
        """The level of each area and of each path of strokes, and the texts of each level."""
        of_areas = np.zeros(len(self.fills.borders), np.int64)
        of_paths = np.zeros(len(self._painting.strokes), np.int64)
        of_texts: dict[int, list[Text]] = {}
        if not len(of_areas):
            return of_areas, of_paths, {0: [m for m in self._painting.marks if isinstance(m, Text)]}
        levels = Levels(self.shape)
        low, high = self._pixel_boxes()
        cells_of_paths = self._cells_in_order(levels)
        path, cells = next(cells_of_paths)
        number = 0
        for mark in self._painting.marks:
            if isinstance(mark, Text):
                at = levels.cells(self.pixels_of_text(mark))
                of_texts.setdefault(levels.of_line(at), []).append(mark)
                continue
            if mark.fill is not None:
                of_areas[number] = levels.of_area(low[number], high[number])
                number += 1
            if mark.style is not None:
                while path < mark.number:
                    path, cells = next(cells_of_paths, (len(of_paths), cells[:0]))
                if path == mark.number:
                    of_paths[path] = levels.of_line(cells)
        return of_areas, of_paths, of_texts

    def _pixel_boxes(self) -> tuple[list[tuple[int, int]], list[tuple[int, int]]]:
        """The corners of the areas' boxes, on the raster."""
        corners = (self.to_pixels(one)[self.fills.borders] for one in self._painting.borders.path_boxes())
        top = np.array(self.shape[::-1]) - 1
        low, high = (np.clip(np.floor(one), 0, top).astype(int).tolist() for one in corners)
        return low, high

    def _cells_in_order(self, levels: Levels) -> Iterator[tuple[int, Ints]]:
        """The paths of strokes in ascending order, with the cells that each is looked at in."""
        path = -1
        cells: list[Ints] = []
        for lot in self.lines.lots(np.arange(len(self.lines.path_of_piece))):
            points = self.lines.points(lot, SPACING)
            pixels, on = self.numbers(points)
            paths = self.lines.path_of_piece[points.piece[on]]
            firsts = np.flatnonzero(np.diff(paths, prepend=-1))
            of_lot = levels.cells(pixels)
            for first, stop in pairwise([*firsts.tolist(), len(paths)]):
                if paths[first] != path:
                    yield path, np.concatenate([*cells, of_lot[:0]])
                    path, cells = int(paths[first]), []
                cells.append(np.unique(of_lot[first:stop]) if stop - first > MANY else of_lot[first:stop])
        yield path, np.concatenate(cells) if cells else np.empty(0, np.int64)

    def pixels_of(self, areas: Ints) -> Iterator[tuple[NDArray[np.int32], Ints, Ints]]:
        """The pixels inside areas of the fills, in lots: the pixels, the areas, and how many each has."""
        borders = self.fills.borders[areas]
        sizes = np.cumsum(self._sizes[borders])
        cuts = np.searchsorted(sizes, np.arange(LOT, sizes[-1], LOT)) if len(areas) else areas
        for lot in np.split(areas, cuts):
            border = self.fills.borders[lot]
            lot, border = lot[self._sizes[border] > 0], border[self._sizes[border] > 0]
            if len(lot):
                first, count = self._bounds[border], self._bounds[border + 1] - self._bounds[border]
                pixels, _ = self._spans.chosen(ranges(first, count)).pixels(self.shape[1])
                yield pixels, lot, self._sizes[border]

    def _paint_areas(self, areas: Ints) -> None:
        """Paint areas that do not touch one another."""
        is_opaque = self.fills.paints[areas, 3] == 1
        for pixels, some, sizes in self.pixels_of(areas[is_opaque]):
            self._compare(pixels, some, sizes)
            self.top[pixels] = np.repeat(self.fills.positions[some].astype(np.int32), sizes)
            if len(self._mixed):
                self._is_mixed[pixels] = False
            self._inked_by[pixels[self._is_middle[pixels]]] = NOBODY
        for pixels, some, sizes in self.pixels_of(areas[~is_opaque]):
            self._compare(pixels, some, sizes)
            if not len(self._mixed):
                self._mixed = np.zeros((len(self.top), 3), np.float32)
            paints = self.fills.paints[np.repeat(some, sizes)]
            self._mixed[pixels] = laid_over(self.colours(pixels), paints)
            self._is_mixed[pixels] = True

    def _compare(self, pixels: NDArray[np.int32], areas: Ints, sizes: Ints) -> None:
        """Keep the areas that cannot be told from what lies beneath."""
        stops = np.cumsum(sizes)
        firsts = stops - sizes
        # Most areas are told from their first pixel on.
        beneath = self.colours(pixels[firsts])
        apart = np.abs(laid_over(beneath, self.fills.paints[areas]) - beneath).max(axis=1)
        for k in np.flatnonzero(apart <= UNLIKE).tolist():
            mine = pixels[firsts[k] : stops[k]]
            beneath = self.colours(mine)
            laid = laid_over(beneath, self.fills.paints[areas[k : k + 1]])
            unlike = float(unlikeness_of(beneath, laid, np.zeros(1, int))[0])
            # A ground is meant whatever its colour; what is laid over a line is seen by that.
            is_ground = len(mine) >= GROUND * len(self.top)
            if unlike < ALIKE and not is_ground and (self._inked_by[self._middles[mine]] == NOBODY).all():
                colour, below = Colour(*beneath[0].tolist()), np.unique(self.top[mine])
                self.alike_areas.append(
                    AlikeArea(int(areas[k]), colour, unlike, int(mine[len(mine) // 2]), below)
                )

    def _look_at_lines(self, pieces: Ints) -> None:
        """Find pieces of strokes that cannot be told from what is painted so far."""
        points = self.lines.points(pieces, SPACING)
        pixels, on = self.numbers(points)
        piece = points.piece[on]
        if not len(piece):
            return
        beneath = self.colours(pixels)
        laid = laid_over(beneath, self._inks[self.lines.style_of_piece[piece]])
        is_seen = np.abs(laid - beneath).max(axis=1) > UNLIKE
        firsts = np.flatnonzero(np.diff(piece, prepend=-1))
        is_alike = unlikeness_of(beneath, laid, firsts) < ALIKE
        path = self.lines.path_of_piece[piece]
        cells = self._middles[pixels]
        np.minimum.at(self._inked_by, cells[is_seen], path[is_seen])
        # What cuts a line is seen by that.
        is_alike &= ~np.logical_or.reduceat(self._inked_by[cells] < path, firsts)
        for number, colour in zip(
            piece[firsts[is_alike]].tolist(), beneath[firsts[is_alike]].tolist(), strict=True
        ):
            self.alike_pieces[number] = Colour(*colour)

    def _points_of(self, text: Text) -> Points:
        vertices = self.to_pixels(self._letters(text)[0])
        x, y = np.floor(np.clip(vertices, -1, PIXELS + 1)).astype(np.int64).reshape(-1, 2).T
        return Points(x, y, np.zeros(len(x), np.int64))

    def pixels_of_text(self, text: Text) -> Ints:
        """Pixels at the outlines of a text's letters."""
        return self.numbers(self._points_of(text))[0]

    def _look_at_text(self, text: Text) -> None:
        """Find out whether a text can be told from what is painted so far."""
        pixels = self.pixels_of_text(text)
        beneath = self.colours(pixels)
        laid = laid_over(beneath, np.array([(*text.ink._rgb, text.ink.opacity)], np.float32))
        if len(pixels) and (unlike := unlikeness_of(beneath, laid, np.zeros(1, int))[0]) < FAINT:
            self.alike_texts.append((text, Colour(*beneath[0].tolist()), bool(unlike < ALIKE)))


def _fills(painting: Painting, columns: Columns) -> Fills:
    """The areas in the order they are painted; one with its own outline counts among the strokes there."""
    area_of_steps = columns.of_steps("area")
    border_of_area = {area: border for border, area in enumerate(painting.borders.keys.tolist())}
    positions, borders, paints, marks = [], [], [], []
    for position, mark in enumerate(painting.marks):
        if isinstance(mark, Text) or mark.fill is None:
            continue
        border = mark.number
        if mark.style is not None:
            border = border_of_area[int(area_of_steps[painting.strokes.steps[mark.number]])]
        positions.append(position)
        borders.append(border)
        paints.append((*mark.fill._rgb, mark.fill.opacity))
        marks.append(mark)
    return Fills(
        np.array(positions, np.int64),
        np.array(borders, np.int64),
        np.reshape(paints, (-1, 4)).astype(np.float32),
        marks,
    )


def _middles(shape: tuple[int, int]) -> NDArray[np.int32]:
    """For each pixel the middle one of the cell of four by four that it is in."""
    rows, columns = (np.minimum(np.arange(size) // 4 * 4 + 2, size - 1) for size in shape)
    return (rows[:, None] * shape[1] + columns).ravel().astype(np.int32)
