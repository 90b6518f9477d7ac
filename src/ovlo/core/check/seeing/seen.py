"""Rules about what can be seen: ink like what lies beneath it, and marks that later areas cover.

seen = Seen(sheet, painting, letters)
list(seen.no_contrast()), list(seen.covered_marks())
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from functools import cached_property
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from ovlo.core.check.seeing.contrast import ALIKE, FAINT, other_colour
from ovlo.core.check.seeing.ground import AlikeArea, Ground
from ovlo.core.check.seeing.raster import spans
from ovlo.core.check.seeing.samples import PIXELS, SPACING
from ovlo.core.paint.contours import AXES
from ovlo.core.paint.measures import Letters
from ovlo.core.paint.order import Mark, Painting
from ovlo.core.paint.outlines import Outline
from ovlo.core.trail.columns import Columns, Text
from ovlo.core.values.arrays import Bools, Complexes, Floats, Ints
from ovlo.core.values.colour import Colour, difference
from ovlo.core.values.finding import HINT, PROBLEM_OR_HINT, Match, rule

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet


SHADE = 0.2
"""An area that differs by this much from the area it lies on was given a colour of its own."""

CLOSER = 4
"""So many times the resolution is looked at before an area is called covered, if not too many lie over it."""

MOST_OVER = 64


class Seen:
    """What of a sheet's marks can be seen."""

    def __init__(self, sheet: Sheet, painting: Painting, letters: Letters) -> None:
        self._columns: Columns = sheet._columns
        self._origins = sheet._origins
        self._painting = painting
        self._ground = Ground(sheet, painting, letters)

    # ── no-contrast ───────────────────────────────────────────────────────────────────────────────────────

    @rule(
        "no-contrast",
        PROBLEM_OR_HINT,
        "Reported when every part of a line, area or text differs from the paper or area beneath it by less "
        f"than {ALIKE:g} CIEDE2000, and so do most marks from the same line of the program; as a hint, for "
        f"words that differ by less than {FAINT:g}. Not "
        "reported for areas with a visible outline, backgrounds, marks that cut through a line, layers that "
        "add up, and shades (areas over others from the same line).",
    )
    def no_contrast(self) -> Iterator[Match]:
        """Marks whose colour cannot be told from what lies beneath."""
        lines, ground = self._painting.strokes, self._ground
        alike = np.zeros(len(lines.piece_steps), bool)
        alike[list(ground.alike_pieces)] = True
        told = np.zeros(len(alike), bool)
        for one in self._mostly_alike_areas():
            area = self._area(one.number)
            mine = self._pieces_of(area)
            if not alike[mine].all():
                continue  # its outline shows where it is
            told[mine] = True
            fill = ground.fills.marks[one.number].fill
            assert fill is not None
            what = "This area and its outline" if len(mine) else "This area"
            yield Match(
                f"{what} cannot be distinguished from what lies beneath it: {fill.css} on {one.beneath.hex}.",
                other_colour(one.beneath, "the area", "fill"),
                self._middle(one.number),
                self._steps_of(area),
                (self._origin(one.number),),
                "area",
            )
        for piece in np.flatnonzero(alike & ~told & self._are_mostly(alike, lines)).tolist():
            ink = self._columns.styles[ground.lines.style_of_piece[piece]].ink
            beneath = ground.alike_pieces[piece]
            yield Match(
                f"This line cannot be distinguished from what lies beneath it: {ink.css} on {beneath.hex}.",
                other_colour(beneath, "the nib", "ink"),
                self._middle_of_line(piece),
                (int(lines.piece_steps[piece]),),
                (),
                "line",
            )
        words = Counter(text.words for text in self._columns.texts)
        for text, beneath, is_lost in ground.alike_texts:
            if not is_lost and words[text.words] > 1:
                continue  # the shadow of others
            yield Match(
                f"The text {text.words!r} {'cannot' if is_lost else 'can hardly'} be distinguished from what "
                f"lies beneath it: {text.ink.css} on {beneath.hex}.",
                other_colour(beneath, "the nib", "ink"),
                complex(text.x, text.y),
                (),
                (text.origin,),
                "text",
                is_hint=not is_lost,
            )

    def _mostly_alike_areas(self) -> Iterator[AlikeArea]:
        """Areas that are not seen, if most of what comes from the same place in the program is not."""
        of_kind = Counter(self._columns.areas["origin"][self._painting.borders.keys].tolist())
        unseen = [
            one for one in self._ground.alike_areas if not self._is_shade(one) and not self._adds_up(one)
        ]
        unseen.sort(key=lambda one: one.number)
        hidden = Counter(self._origin(one.number) for one in unseen)
        for one in unseen:
            if 2 * hidden[self._origin(one.number)] > of_kind[self._origin(one.number)]:
                yield one

    def _is_shade(self, one: AlikeArea) -> bool:
        """Whether an area is one step of many shades: laid over one that came from the same place.

        Where that is not known, any other colour over an area is taken for a shade.
        """
        if one.unlike < SHADE:
            return False
        fills, origin = self._ground.fills, self._origin(one.number)
        below = np.searchsorted(fills.positions, one.below[one.below >= 0]).tolist()
        return bool(below) and (origin < 0 or any(self._origin(number) == origin for number in below))

    def _adds_up(self, one: AlikeArea) -> bool:
        """Whether a translucent area is one of many layers, which are seen together."""
        last = self._ground.colours(np.array([one.pixel]))[0]
        return (
            self._ground.fills.paints[one.number, 3] < 1
            and not np.isnan(last).any()
            and difference(one.beneath, Colour(*last.tolist())) >= ALIKE
        )

    def _are_mostly(self, alike: Bools, lines: Outline) -> Bools:
        """Which lines are of a kind, by place in the program or style, most of which are not seen."""
        kinds: NDArray[Any] = self._ground.lines.style_of_piece
        if self._origins is not None and len(lines.piece_steps):
            kinds = self._origins.steps[lines.piece_steps]
        if not len(alike):
            return alike
        _, kind = np.unique(kinds, return_inverse=True)
        share = np.bincount(kind, alike) / np.bincount(kind)
        return np.asarray(share[kind] > 0.5)

    # ── covered ───────────────────────────────────────────────────────────────────────────────────────────

    def marks(self) -> list[Match]:
        """All marks, with where they came from."""
        found = [
            Match("", "", 0j, (step,), (), "line") for step in self._painting.strokes.piece_steps.tolist()
        ]
        found += [Match("", "", 0j, (), (text.origin,), "text") for text in self._columns.texts]
        rows = self._columns.areas[self._painting.borders.keys]
        found += [Match("", "", 0j, (), (origin,), "area") for origin in rows["origin"].tolist()]
        return found

    @rule(
        "covered",
        HINT,
        "Reported when a line, area or text lies wholly under later opaque areas, as seen on a raster of "
        f"{PIXELS} pixels. Reported only if most of what that line of the program draws is "
        f"hidden; for "
        "a random scatter, only if all of it is.",
    )
    def covered_marks(self) -> Iterator[Match]:
        """Marks of which nothing is seen under later opaque areas."""
        ground = self._ground
        if ground.top.max(initial=-1) < 0:
            return
        lines = self._painting.strokes
        hidden = self._hidden_pieces()
        told = np.zeros(len(hidden), bool)
        outlines = self._area_of_pieces
        is_outline_seen = np.bincount(outlines[(outlines >= 0) & ~hidden], minlength=len(self._columns.areas))
        for number, over in self._hidden_areas():
            area = self._area(number)
            if is_outline_seen[area]:
                continue
            told[self._pieces_of(area)] = True
            middle, origins = self._middle(number), (self._origin(number),)
            yield self._covered("This area", over, middle, self._steps_of(area), origins, "area")
        for position, mark in enumerate(self._painting.marks) if self._columns.texts else ():
            if isinstance(mark, Text):
                above = ground.top[ground.pixels_of_text(mark)]
                if len(above) and (above > position).all():
                    place, origins = complex(mark.x, mark.y), (mark.origin,)
                    words = f"The words {mark.words!r}"
                    yield self._covered(words, int(above[0]), place, (), origins, "text")
        for piece in np.flatnonzero(hidden & ~told).tolist():
            middle = self._middle_of_line(piece)
            x, y = np.floor(ground.to_pixels(np.array([middle.real, middle.imag]))).astype(int)
            height, width = ground.shape
            over = int(ground.top[min(max(y, 0), height - 1) * width + min(max(x, 0), width - 1)])
            steps = (int(lines.piece_steps[piece]),)
            yield self._covered("This line", over, middle, steps, (), "line")

    def _covered(
        self, what: str, by: int, place: complex, steps: tuple[int, ...], origins: tuple[int, ...], kind: str
    ) -> Match:
        mark = self._painting.marks[by] if by >= 0 else None
        paint = mark.fill if isinstance(mark, Mark) else None
        area = f"the {paint.css} area" if paint is not None else "an area"
        return Match(
            f"{what} is hidden: {area} painted later covers all of it.",
            "Draw it after that area, or give the area an opacity below 1; if nobody is to see it, "
            "leave it out.",
            place,
            steps,
            origins,
            kind,
        )

    def _hidden_areas(self) -> Iterator[tuple[int, int]]:
        """Areas of which nothing is seen, with the position of one that covers a part of each."""
        ground = self._ground
        positions = ground.fills.positions
        seen = np.isin(positions, np.unique(ground.top))
        around = _least_around(ground.top.reshape(ground.shape)).ravel()
        for pixels, areas, sizes in ground.pixels_of(np.flatnonzero(~seen)):
            firsts = np.cumsum(sizes) - sizes
            above = ground.top[pixels]
            hidden = np.flatnonzero(np.minimum.reduceat(above, firsts) > positions[areas])
            # With all pixels around hidden as well, no sliver is seen.
            is_sure = np.minimum.reduceat(around[pixels], firsts) > positions[areas]
            for k in hidden.tolist():
                if is_sure[k] or self._is_hidden_closely(int(areas[k])):
                    yield int(areas[k]), int(above[firsts[k]])

    def _is_hidden_closely(self, number: int) -> bool:
        """Whether an area is covered at a finer resolution too; what many lie over is not looked at again."""
        low, high = self._boxes
        after = np.arange(number + 1, len(low))
        over = after[((low[after] < high[number]) & (high[after] > low[number])).all(axis=1)]
        over = over[self._ground.fills.paints[over, 3] == 1]
        if len(over) > MOST_OVER:
            return True
        corner = np.floor(low[number])
        height, width = (np.ceil(high[number] - corner) * CLOSER).astype(int)[::-1].tolist()
        fills, some = self._ground.fills, [number, *over.tolist()]
        paths = [self._painting.borders.path(int(fills.borders[one])) for one in some]
        vertices = (self._ground.to_pixels(np.concatenate([path[0] for path in paths])) - corner) * CLOSER
        inside = spans(
            vertices,
            np.concatenate([path[1] for path in paths]),
            np.append(0, np.cumsum([len(path[0]) for path in paths])),
            np.array([fills.marks[one].fill_rule == "evenodd" for one in some]),
            (height, width),
        )
        pixels, counts = inside.pixels(width)
        first = int(counts[inside.areas == 0].sum())
        left = np.zeros(height * width, bool)
        left[pixels[:first]] = True
        left[pixels[first:]] = False
        return not left.any()

    @cached_property
    def _boxes(self) -> tuple[Floats, Floats]:
        """The corners of the areas' boxes in pixels, in the order of the fills."""
        low, high = (self._ground.to_pixels(one) for one in self._painting.borders.path_boxes())
        borders = self._ground.fills.borders
        return low[borders], high[borders]

    def _hidden_pieces(self) -> Bools:
        """Which pieces of strokes are covered wherever they are looked at."""
        lines = self._ground.lines
        hidden = self._covered_pieces(np.arange(len(lines.path_of_piece)))
        # Before it is said, look again more closely.
        return self._covered_pieces(np.flatnonzero(hidden), CLOSER)

    def _covered_pieces(self, pieces: Ints, closer: int = 1) -> Bools:
        ground, lines = self._ground, self._ground.lines
        found = np.zeros(len(lines.path_of_piece), bool)
        for lot in lines.lots(pieces, closer):
            points = lines.points(lot, SPACING / closer)
            pixels, on = ground.numbers(points)
            piece = points.piece[on]
            if len(piece):
                covered = ground.top[pixels] > self._positions[lines.path_of_piece[piece]]
                firsts = np.flatnonzero(np.diff(piece, prepend=-1))
                found[piece[firsts]] = np.logical_and.reduceat(covered, firsts)
        return found

    # ── where marks are, and where they came from ─────────────────────────────────────────────────────────

    @cached_property
    def _positions(self) -> Ints:
        """Where in the order of painting each path of strokes is."""
        positions = np.full(len(self._painting.strokes), -1)
        for position, mark in enumerate(self._painting.marks):
            if isinstance(mark, Mark) and mark.style is not None:
                positions[mark.number] = position
        return positions

    def _area(self, number: int) -> int:
        """The area of a fill, as a row of the columns."""
        return int(self._painting.borders.keys[self._ground.fills.borders[number]])

    def _origin(self, number: int) -> int:
        return int(self._columns.areas["origin"][self._area(number)])

    def _middle(self, number: int) -> complex:
        return complex(self._middles[self._ground.fills.borders[number]])

    @cached_property
    def _middles(self) -> Complexes:
        """The mean of the vertices of each border."""
        borders = self._painting.borders
        sums = np.add.reduceat(borders.vertices, borders.firsts[:-1])
        means = sums / np.diff(borders.firsts)[:, None]
        found: Complexes = means @ AXES
        return found

    def _middle_of_line(self, piece: int) -> complex:
        lines = self._painting.strokes
        first = int(self._moves[piece])
        return complex(*lines.vertices[first : first + 2].mean(axis=0))

    @cached_property
    def _moves(self) -> Ints:
        return self._painting.strokes.moves

    @cached_property
    def _area_of_steps(self) -> Ints:
        return self._columns.of_steps("area")

    def _steps_of(self, area: int) -> tuple[int, ...]:
        """The steps that border an area."""
        return tuple(_rows(self._steps_by_area, area).tolist())

    def _pieces_of(self, area: int) -> Ints:
        """The pieces of strokes that outline an area."""
        return _rows(self._pieces_by_area, area)

    @cached_property
    def _steps_by_area(self) -> tuple[Ints, list[int]]:
        return _grouped(self._area_of_steps, len(self._columns.areas))

    @cached_property
    def _pieces_by_area(self) -> tuple[Ints, list[int]]:
        return _grouped(self._area_of_pieces, len(self._columns.areas))

    @cached_property
    def _area_of_pieces(self) -> Ints:
        steps = self._painting.strokes.piece_steps
        return self._area_of_steps[steps] if len(steps) else np.empty(0, np.int64)


def _least_around(raster: NDArray[np.int32]) -> NDArray[np.int32]:
    """For each pixel the least of it and its eight neighbours."""
    for axis in range(2):
        raster = np.moveaxis(raster, axis, 0)
        least = raster.copy()
        np.minimum(least[1:], raster[:-1], out=least[1:])
        np.minimum(least[:-1], raster[1:], out=least[:-1])
        raster = np.moveaxis(least, 0, axis)
    return raster


def _grouped(keys: Ints, count: int) -> tuple[Ints, list[int]]:
    """Rows in the order of their keys, and where those of each key from 0 on begin there."""
    order = np.argsort(keys, kind="stable")
    return order, np.searchsorted(keys[order], np.arange(count + 1)).tolist()


def _rows(grouped: tuple[Ints, list[int]], key: int) -> Ints:
    order, bounds = grouped
    return order[bounds[key] : bounds[key + 1]]
