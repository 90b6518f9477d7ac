"""Rules about what can be seen: ink like what lies beneath it, and marks that later areas cover.

    seen = Seen(sheet, painting, letters)
    list(seen.no_contrast()), list(seen.covered_marks())

The areas are painted on a raster one after the other: their colours, and their numbers in the order of
painting. A line or a text is looked at in points along it, before the next area is painted.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator
from functools import cached_property
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from ovlo.core.check.contrast import ALIKE, UNLIKE, other_colour, unlikeness_of
from ovlo.core.check.samples import PIXELS, SPACING, Points
from ovlo.core.paint.order import Mark, Painting
from ovlo.core.paint.outlines import Outline
from ovlo.core.paint.raster import cover
from ovlo.core.trail.columns import Columns, Text
from ovlo.core.values.colour import Colour, difference
from ovlo.core.values.finding import Found

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Letters = Callable[[Text], tuple[Floats, NDArray[np.uint8]]]

GROUND = 0.98
"""An area that covers so much of the sheet is a ground, whatever its colour."""

SHADE = 0.2
"""An area that differs by this much from the area it lies on was given a colour of its own."""


class Seen:
    """What of a sheet's marks can be seen."""

    def __init__(self, sheet: Sheet, painting: Painting, letters: Letters) -> None:
        self._columns: Columns = sheet._columns
        self._origins = sheet._origins
        self._painting = painting
        self._letters = letters
        self._scale = PIXELS / max(sheet.width, sheet.height)
        self._corner = np.array([-sheet.width / 2, -sheet.height / 2])
        size = (max(1, round(side * self._scale)) for side in (sheet.height, sheet.width))
        self._shape: tuple[int, int] = tuple(size)  # type: ignore[assignment]
        paper = np.array(sheet.paper._rgb) if sheet.paper.opacity == 1 else np.full(3, np.nan)
        self._colours = np.full((*self._shape, 3), paper, np.float32)
        self._top = np.full(self._shape, -1, np.int32)
        self._lines = Points(painting.strokes, self._columns, self._to_pixels, self._scale, SPACING)
        self._positions = np.full(len(painting.strokes), -1)
        self._waiting: list[int] = []
        self._is_waited_for = np.zeros(self._shape, bool)
        # What cannot be told from what lies beneath, with the colour of that.
        self._is_inked = np.zeros(self._shape, bool)
        """Where a line is seen: what is laid over it is seen too."""
        self._alike_pieces: dict[int, Colour] = {}
        self._alike_areas: list[tuple[Mark, Colour, tuple[int, int]]] = []
        self._alike_texts: list[tuple[Text, Colour]] = []
        self._paint()

    def _to_pixels(self, points: Floats) -> Floats:
        pixels: Floats = (points - self._corner) * self._scale
        return pixels

    def _paint(self) -> None:
        """Look at every mark, and paint the areas, from the lowest mark up."""
        for position, mark in enumerate(self._painting.marks):
            if isinstance(mark, Text):
                if (beneath := self._beneath_alike(mark)) is not None:
                    self._alike_texts.append((mark, beneath))
                continue
            if mark.fill is not None:
                self._paint_area(position, mark, mark.fill)
            if mark.style is not None:
                self._wait(mark.number)
                self._positions[mark.number] = position
        self._look_at_lines()

    def _wait(self, path: int) -> None:
        """Let a path wait to be looked at until an area comes where it is: many at once go faster."""
        self._waiting.append(path)
        x, y = self._lines.of_path(path)
        on = self._is_on(x, y)
        self._is_waited_for[y[on], x[on]] = True

    def _border(self, mark: Mark) -> tuple[Floats, NDArray[np.uint8]]:
        vertices, codes = self._painting.outline_of(mark).path(mark.number)
        return self._to_pixels(vertices), codes

    def _paint_area(self, position: int, mark: Mark, paint: Colour) -> None:
        window, inside = cover(*self._border(mark), mark.fill_rule, self._shape)
        if not inside.any():
            return
        if self._is_waited_for[window][inside].any():
            self._look_at_lines()
        beneath = self._colours[window][inside]
        laid = beneath + paint.opacity * (np.array(paint._rgb, np.float32) - beneath)
        if paint.opacity == 1:
            laid = np.broadcast_to(np.array(paint._rgb, np.float32), beneath.shape)
        # Most areas are told from the first pixel on.
        is_seen = bool(np.abs(laid[0] - beneath[0]).max() > UNLIKE)
        unlike = np.inf if is_seen else float(unlikeness_of(beneath, laid, np.zeros(1, int))[0])
        # A ground is meant whatever its colour; what is laid over a line is seen by that.
        is_meant = inside.sum() >= GROUND * self._top.size or self._is_inked[window][inside].any()
        if unlike < ALIKE and not is_meant and not self._is_shade(mark, window, inside, unlike):
            rows, columns = np.nonzero(inside)
            middle = len(rows) // 2
            place = window[0].start + int(rows[middle]), window[1].start + int(columns[middle])
            self._alike_areas.append((mark, Colour(*beneath[0].tolist()), place))
        self._colours[window][inside] = laid
        if paint.opacity == 1:
            self._top[window][inside] = position
            self._is_inked[window][inside] = False

    def _is_shade(
        self, mark: Mark, window: tuple[slice, slice], inside: NDArray[np.bool_], unlike: float
    ) -> bool:
        """Whether an area is one step of many shades: laid over one that came from the same place.

        Where that is not known, any other colour over an area is taken for a shade.
        """
        below = np.unique(self._top[window][inside])
        areas = [self._painting.marks[i] for i in below[below >= 0].tolist()]
        origin = self._origin_of(mark)
        if unlike < SHADE:
            return False
        if origin < 0:
            return bool(areas)
        return any(isinstance(area, Mark) and self._origin_of(area) == origin for area in areas)

    def _origin_of(self, mark: Mark) -> int:
        return int(self._columns.areas["origin"][self._area_of(mark)])

    def _look_at_lines(self) -> None:
        """Find pieces of the strokes that wait that cannot be told from what is painted so far."""
        if not self._waiting:
            return
        paths, self._waiting = self._waiting, []
        self._is_waited_for[:] = False
        points = self._lines
        chosen = points.of_paths(np.array(paths))
        x, y, piece = points.x[chosen], points.y[chosen], points.piece[chosen]
        on = self._is_on(x, y)
        x, y, piece = x[on], y[on], piece[on]
        if not len(piece):
            return
        styles = self._columns.styles
        inks = np.array([(*style.ink._rgb, style.ink.opacity) for style in styles], np.float32)
        ink = inks[points.style_of_piece[piece]]
        beneath = self._colours[y, x]
        laid = beneath + ink[:, 3:] * (ink[:, :3] - beneath)
        is_seen = np.abs(laid - beneath).max(axis=1) > UNLIKE
        self._is_inked[y[is_seen], x[is_seen]] = True
        firsts = np.flatnonzero(np.diff(piece, prepend=-1))
        alike = firsts[unlikeness_of(beneath, laid, firsts) < ALIKE]
        for number, colour in zip(piece[alike].tolist(), beneath[alike].tolist(), strict=True):
            self._alike_pieces[number] = Colour(*colour)

    def _is_on(self, x: Ints, y: Ints) -> NDArray[np.bool_]:
        height, width = self._shape
        on: NDArray[np.bool_] = (x >= 0) & (x < width) & (y >= 0) & (y < height)
        return on

    def _points_of(self, text: Text) -> tuple[Ints, Ints]:
        vertices = self._to_pixels(self._letters(text)[0])
        x, y = np.floor(np.clip(vertices, -1, PIXELS + 1)).astype(np.int64).reshape(-1, 2).T
        on = self._is_on(x, y)
        return x[on], y[on]

    def _beneath_alike(self, text: Text) -> Colour | None:
        """What lies beneath a text that cannot be told from it; None where it can."""
        x, y = self._points_of(text)
        beneath = self._colours[y, x]
        laid = beneath + text.ink.opacity * (np.array(text.ink._rgb, np.float32) - beneath)
        is_alike = bool(len(x)) and bool(unlikeness_of(beneath, laid, np.zeros(1, int))[0] < ALIKE)
        return Colour(*beneath[0].tolist()) if is_alike else None

    # ── what there is to say ──────────────────────────────────────────────────────────────────────────────

    def no_contrast(self) -> Iterator[Found]:
        """Marks whose colour cannot be told from what lies beneath."""
        lines = self._painting.strokes
        areas_of_pieces = self._area_of_steps[lines.piece_steps] if len(lines) else np.empty(0, int)
        alike = np.zeros(len(lines.piece_steps), bool)
        alike[list(self._alike_pieces)] = True
        told = np.zeros(len(alike), bool)
        for mark, beneath in self._mostly_alike_areas():
            area = self._area_of(mark)
            mine = areas_of_pieces == area
            if (mine & ~alike).any():
                continue  # its outline shows where it is
            told |= mine
            row = self._columns.areas[area]
            assert mark.fill is not None
            what = "This area and its outline" if mine.any() else "This area"
            yield Found(
                f"{what} cannot be told from what lies beneath: {mark.fill.css} on {beneath.hex}.",
                other_colour(beneath, "the area", "fill"),
                complex(*self._painting.outline_of(mark).path(mark.number)[0].mean(axis=0)),
                self._steps_of(area),
                (int(row["origin"]),),
                "area",
            )
        for piece in np.flatnonzero(alike & ~told & self._are_mostly(alike, lines)).tolist():
            first = int(lines.moves[piece])
            middle = lines.vertices[first : first + 2].mean(axis=0)
            ink = self._columns.styles[self._lines.style_of_piece[piece]].ink
            beneath = self._alike_pieces[piece]
            yield Found(
                f"This line cannot be told from what lies beneath: {ink.css} on {beneath.hex}.",
                other_colour(beneath, "the nib", "ink"),
                complex(*middle),
                (int(lines.piece_steps[piece]),),
                (),
                "line",
            )
        for text, beneath in self._alike_texts:
            yield Found(
                f"The words {text.words!r} cannot be told from what lies beneath: "
                f"{text.ink.css} on {beneath.hex}.",
                other_colour(beneath, "the nib", "ink"),
                complex(text.x, text.y),
                (),
                (text.origin,),
                "text",
            )

    def _mostly_alike_areas(self) -> Iterator[tuple[Mark, Colour]]:
        """Areas that are not seen, if most of what comes from the same place in the program is not."""
        every = self._columns.areas["origin"][self._painting.borders.keys]
        of_kind = Counter(every.tolist())
        unseen = [one[:2] for one in self._alike_areas if not self._adds_up(*one)]
        hidden = Counter(self._origin_of(mark) for mark, _ in unseen)
        for mark, beneath in unseen:
            if 2 * hidden[self._origin_of(mark)] > of_kind[self._origin_of(mark)]:
                yield mark, beneath

    def _adds_up(self, mark: Mark, beneath: Colour, at: tuple[int, int]) -> bool:
        """Whether a translucent area is one of many layers, which are seen together."""
        assert mark.fill is not None
        last = self._colours[at]
        return (
            mark.fill.opacity < 1
            and not np.isnan(last).any()
            and (difference(beneath, Colour(*last.tolist())) >= ALIKE)
        )

    def _are_mostly(self, alike: NDArray[np.bool_], lines: Outline) -> NDArray[np.bool_]:
        """Which lines are of a kind, by place in the program or style, most of which are not seen."""
        kinds: NDArray[Any] = self._lines.style_of_piece
        if self._origins is not None and len(lines.piece_steps):
            kinds = self._origins.steps[lines.piece_steps]
        if not len(alike):
            return alike
        _, kind = np.unique(kinds, return_inverse=True)
        share = np.bincount(kind, alike) / np.bincount(kind)
        return np.asarray(share[kind] > 0.5)

    def marks(self) -> list[Found]:
        """All marks, with where they came from."""
        found = [
            Found("", "", 0j, (step,), (), "line") for step in self._painting.strokes.piece_steps.tolist()
        ]
        found += [Found("", "", 0j, (), (text.origin,), "text") for text in self._columns.texts]
        rows = self._columns.areas[self._painting.borders.keys]
        found += [Found("", "", 0j, (), (origin,), "area") for origin in rows["origin"].tolist()]
        return found

    def covered_marks(self) -> Iterator[Found]:
        """Marks of which nothing is seen under later opaque areas."""
        if self._top.max() < 0:
            return
        lines = self._painting.strokes
        hidden = self._hidden_pieces()
        areas_of_pieces = self._area_of_steps[lines.piece_steps] if len(lines) else np.empty(0, int)
        told = np.zeros(len(hidden), bool)
        seen = set(np.unique(self._top).tolist())
        for position, mark in enumerate(self._painting.marks):
            if isinstance(mark, Text):
                x, y = self._points_of(mark)
                if len(x) and (self._top[y, x] > position).all():
                    cover_by = int(self._top[y[0], x[0]])
                    words = f"The words {mark.words!r}"
                    yield self._covered(words, cover_by, complex(mark.x, mark.y), (), (mark.origin,), "text")
                continue
            if mark.fill is None or position in seen or (cover_by := self._covering(position, mark)) < 0:
                continue
            area = self._area_of(mark)
            mine = areas_of_pieces == area
            if (mine & ~hidden).any():
                continue
            told |= mine
            row = self._columns.areas[area]
            middle = self._painting.outline_of(mark).path(mark.number)[0].mean(axis=0)
            steps, origins = self._steps_of(area), (int(row["origin"]),)
            yield self._covered("This area", cover_by, complex(*middle), steps, origins, "area")
        for piece in np.flatnonzero(hidden & ~told).tolist():
            first = int(lines.moves[piece])
            middle = lines.vertices[first : first + 2].mean(axis=0)
            x, y = np.floor(self._to_pixels(middle)).astype(int)
            height, width = self._shape
            cover_by = int(self._top[min(max(y, 0), height - 1), min(max(x, 0), width - 1)])
            steps = (int(lines.piece_steps[piece]),)
            yield self._covered("This line", cover_by, complex(*middle), steps, (), "line")

    def _covered(
        self, what: str, by: int, place: complex, steps: tuple[int, ...], origins: tuple[int, ...], kind: str
    ) -> Found:
        mark = self._painting.marks[by] if by >= 0 else None
        paint = mark.fill if isinstance(mark, Mark) else None
        area = f"the {paint.css} area" if paint is not None else "an area"
        return Found(
            f"{what} cannot be seen: {area} painted later covers all of it.",
            "Draw it after that area, or give the area an opacity below 1; if nobody is to see it, "
            "leave it out.",
            place,
            steps,
            origins,
            kind,
        )

    def _covering(self, position: int, mark: Mark) -> int:
        """The position of an area that covers a part of an area of which nothing is seen; -1 for others."""
        window, inside = cover(*self._border(mark), mark.fill_rule, self._shape)
        above = self._top[window][inside]
        return int(above[0]) if len(above) and (above > position).all() else -1

    def _hidden_pieces(self) -> NDArray[np.bool_]:
        """Which pieces of strokes are covered wherever they are looked at."""
        lines = self._painting.strokes
        hidden = self._covered_pieces(self._lines)
        paths = np.unique(self._lines.path_of_piece[hidden])
        if len(paths):
            # Before it is said, look again more closely.
            closer = Points(lines, self._columns, self._to_pixels, self._scale, SPACING / 4, paths)
            hidden &= self._covered_pieces(closer)
        return hidden

    def _covered_pieces(self, points: Points) -> NDArray[np.bool_]:
        on = self._is_on(points.x, points.y)
        x, y, piece = points.x[on], points.y[on], points.piece[on]
        covered = self._top[y, x] > self._positions[points.path_of_piece[piece]]
        count = np.bincount(piece, minlength=len(points.path_of_piece))
        found: NDArray[np.bool_] = (np.bincount(piece, covered, len(count)) == count) & (count > 0)
        return found

    @cached_property
    def _area_of_steps(self) -> Ints:
        return self._columns.of_steps("area")

    def _area_of(self, mark: Mark) -> int:
        """The number of the area a mark is; one with its own outline is known by its strokes' step."""
        if mark.style is None:
            return int(self._painting.borders.keys[mark.number])
        step = self._painting.strokes.steps[mark.number]
        return int(self._area_of_steps[step])

    def _steps_of(self, area: int) -> tuple[int, ...]:
        """The steps that border an area."""
        return tuple(np.flatnonzero(self._area_of_steps == area).tolist())
