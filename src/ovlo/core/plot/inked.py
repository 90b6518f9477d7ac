"""The marks of a picture as shapes on a page: lines along which a pen goes, and areas.

inked = Inked.of(columns, placing, glyphs, paper, tolerance)
inked.lines.shapes

Each shape knows its place in the painted order, its ink as it looks on the paper, and how wide a pen it asks
for. Dashes are cut, arcs are chords, words are the outlines of their letters and what is inside.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.cutting import cut
from ovlo.core.paint.letters import flat_letters
from ovlo.core.paint.measures import Letters
from ovlo.core.paint.order import Mark, Painting, painted
from ovlo.core.paint.outlines import MOVE, Outline
from ovlo.core.paint.regions import region
from ovlo.core.plot.placing import Placing
from ovlo.core.trail.columns import Columns, Text
from ovlo.core.values.arrays import Bools, Bytes, Floats, Ints
from ovlo.core.values.choices import LineCap, LineJoin, PlotText
from ovlo.core.values.colour import Colour

if TYPE_CHECKING:
    from shapely.geometry.base import BaseGeometry

Codes = Bytes
Shapes = NDArray[np.object_]

FLAT = 0.25
"""How far a chord may be from its arc, as a share of the tolerance."""

LETTER_LINE = 1 / 24
"""How wide a line draws letters, as a share of their size."""

FAR = 1e9


Look = tuple[LineCap, LineJoin]

ROUND: Look = ("round", "round")


@dataclass(frozen=True, eq=False)
class Layer:
    """Some shapes, one row each.

    Attributes
    ----------
    shapes : object array of shape (n,)
        Shapely's lines or areas, in millimetres on the page.
    positions : int array of shape (n,)
        In the painted order.
    inks : float array of shape (n, 3)
        Red, green and blue as they look on the paper, 0 to 255.
    widths : float array of shape (n,)
        Of the line, in millimetres; nan for an area, which says nothing of a pen.
    """

    shapes: Shapes
    positions: Ints
    inks: Floats
    widths: Floats

    def taken(self, rows: NDArray[Any]) -> Layer:
        """Some of the rows."""
        return Layer(self.shapes[rows], self.positions[rows], self.inks[rows], self.widths[rows])

    def reshaped(self, shapes: Shapes, rows: Ints) -> Layer:
        """Other shapes, each of one of the rows."""
        return Layer(shapes, self.positions[rows], self.inks[rows], self.widths[rows])

    def in_parts(self, shapes: Shapes) -> tuple[Layer, Ints]:
        """What the rows have become, each connected part a row, and which row that was.

        What is empty, or is but the border that two shapes share, is no part.
        """
        import shapely

        parts, rows = shapely.get_parts(shapes, return_index=True)
        is_alike = shapely.get_dimensions(parts) == shapely.get_dimensions(self.shapes)[rows]
        kept = ~shapely.is_empty(parts) & is_alike
        return self.reshaped(parts[kept], rows[kept]), rows[kept]


@dataclass(frozen=True, eq=False)
class Inked:
    """The lines and areas of a picture: which lines are opaque (`covers`), which areas hide what lies beneath
    (`hides`), and which of them draw their own border."""

    lines: Layer
    covers: Bools
    areas: Layer
    hides: Bools
    has_border: Bools
    looks: list[Look]
    """The cap and the join of the line of each mark, by its position."""
    words: Ints
    """The positions of texts."""

    @classmethod
    def of(
        cls,
        columns: Columns,
        placing: Placing,
        letters: Letters,
        paper: Colour,
        tolerance: float,
        text: PlotText,
    ) -> Inked:
        """All marks of a trail; `tolerance` is in millimetres."""
        tolerance = FLAT * tolerance / placing.scale
        painting = painted(columns).flattened(tolerance)
        made = _Maker(painting, placing, paper)
        made.strokes()
        made.borders()
        for position, mark in enumerate(painting.marks):
            if isinstance(mark, Text):
                made.words(mark, position, letters, tolerance, text)
        return made.finished()


class _Maker:
    """Gathers shapes, many at once where that can be."""

    def __init__(self, painting: Painting, placing: Placing, paper: Colour) -> None:
        self._painting = painting
        self._placing = placing
        self._paper = paper
        self._lines: list[tuple[Shapes, Ints]] = []
        self._areas: list[tuple[Shapes, Ints]] = []
        self._marks = painting.marks

    def strokes(self) -> None:
        """The drawn lines, each piece between moves one shape."""
        outline = self._painting.strokes
        position_of = np.zeros(len(outline), np.int64)
        is_dashed = np.zeros(len(outline), bool)
        for position, mark in enumerate(self._marks):
            if isinstance(mark, Mark) and mark.style is not None:
                position_of[mark.number] = position
                is_dashed[mark.number] = bool(mark.style.line_dash)
        path_of = np.repeat(np.arange(len(outline)), np.diff(outline.firsts))
        plain = ~is_dashed[path_of]
        self._add_lines(outline.vertices[plain], outline.codes[plain], position_of[path_of[plain]])
        for number in np.flatnonzero(is_dashed).tolist():
            mark = self._marks[position_of[number]]
            assert isinstance(mark, Mark)
            assert mark.style is not None
            vertices, codes = cut(
                *outline.path(number), (-FAR, -FAR, FAR, FAR), mark.style.line_dash, mark.dash_offset
            )
            self._add_lines(vertices, codes, np.full(len(vertices), position_of[number]))

    def _add_lines(self, vertices: Floats, codes: Codes, positions: Ints) -> None:
        import shapely

        begins = codes == MOVE
        pieces = np.cumsum(begins) - 1
        if not len(pieces):
            return
        whole = np.bincount(pieces) > 1
        kept = whole[pieces]
        if not kept.any():
            return
        numbers = (np.cumsum(whole) - 1)[pieces[kept]]
        shapes: Shapes = shapely.linestrings(  # type: ignore[assignment]
            self._placing.on_page(vertices[kept]), indices=numbers
        )
        self._lines.append((shapes, positions[begins & kept]))

    def borders(self) -> None:
        """What is inside the borders of areas."""
        for outline in (self._painting.strokes, self._painting.borders):
            numbers, positions, rules = [], [], []
            for position, mark in enumerate(self._marks):
                if isinstance(mark, Text) or mark.fill is None:
                    continue
                if self._painting.outline_of(mark) is outline:
                    numbers.append(mark.number)
                    positions.append(position)
                    rules.append(mark.fill_rule)
            if numbers:
                shapes = self._regions(outline, numbers, rules)
                self._areas.append((shapes, np.array(positions)))

    def _regions(self, outline: Outline, numbers: list[int], rules: Sequence[str]) -> Shapes:
        """The areas of some paths: whole rings at once, the others one by one."""
        import shapely

        shapes = np.full(len(numbers), shapely.Polygon(), object)
        firsts = outline.firsts
        moves = np.add.reduceat((outline.codes == MOVE).astype(int), firsts[:-1])[numbers]
        sizes = np.diff(firsts)[numbers]
        simple = np.flatnonzero((moves == 1) & (sizes > 3))
        points = self._placing.on_page(outline.vertices)
        if len(simple):
            spans = [np.arange(firsts[n], firsts[n + 1]) for n in np.array(numbers)[simple].tolist()]
            rings = shapely.linearrings(
                points[np.concatenate(spans)],
                indices=np.repeat(np.arange(len(simple)), sizes[simple]),
            )
            shapes[simple] = shapely.polygons(rings)
        # is_valid changes the process's filters of warnings for a moment, which threads share.
        is_valid = shapely.is_valid_reason(shapes[simple]) == "Valid Geometry"
        others = np.setdiff1d(np.arange(len(numbers)), simple[is_valid])
        for i in others.tolist():
            first, stop = firsts[numbers[i]], firsts[numbers[i] + 1]
            shapes[i] = region(points[first:stop], outline.codes[first:stop], rules[i])
        return shapes

    def words(self, text: Text, position: int, letters: Letters, tolerance: float, kind: PlotText) -> None:
        """The letters of a text: what is inside, and its outline; or the lines of which they are."""
        vertices, codes = flat_letters(*letters(text), tolerance)
        if not len(vertices):
            return
        if kind == "stroke":
            self._add_lines(vertices, codes, np.full(len(vertices), position))
            return
        inside = region(self._placing.on_page(vertices), codes, "nonzero")
        rings = _rings(inside)
        self._areas.append((np.array([inside], object), np.array([position])))
        self._lines.append((rings, np.full(len(rings), position)))

    def finished(self) -> Inked:
        """All that was gathered, in the painted order."""
        lines, line_at = _together(self._lines)
        areas, area_at = _together(self._areas)
        marks, widths = self._marks, self._widths()
        inks = [mark.ink if isinstance(mark, Text) else mark.fill for mark in marks]
        drawn = [mark.ink if isinstance(mark, Text) else mark.style and mark.style.ink for mark in marks]
        has_border = np.array([isinstance(m, Text) or _is_opaque(m.style and m.style.ink) for m in marks])
        hides = np.array([_is_opaque(ink) for ink in inks])
        covers = np.array([_is_opaque(ink or None) for ink in drawn])
        return Inked(
            Layer(lines, line_at, self._shown(drawn)[line_at], widths[line_at]),
            covers[line_at] if len(line_at) else np.zeros(0, bool),
            Layer(areas, area_at, self._shown(inks)[area_at], widths[area_at]),
            hides[area_at] if len(area_at) else np.zeros(0, bool),
            has_border[area_at] if len(area_at) else np.zeros(0, bool),
            [ROUND if isinstance(m, Text) or m.style is None else m.style[3:5] for m in marks],
            np.flatnonzero([isinstance(mark, Text) for mark in marks]),
        )

    def _widths(self) -> Floats:
        """How wide a line each mark asks for, in millimetres, nan for an area without one."""
        asked = np.full(len(self._marks), np.nan)
        for position, mark in enumerate(self._marks):
            if isinstance(mark, Text):
                asked[position] = LETTER_LINE * mark.size
            elif mark.style is not None:
                asked[position] = mark.style.line_width
        return asked * self._placing.scale

    def _shown(self, inks: list[Colour | None]) -> Floats:
        """Colours as they look on the paper, shape (marks, 3)."""
        paper = np.array(self._paper._rgb if self._paper.opacity else (255, 255, 255), float)
        given = np.array([tuple(ink) if ink else (0, 0, 0, 0) for ink in inks], float).reshape(-1, 4)
        shown: Floats = paper + given[:, 3:] * (given[:, :3] - paper)
        return shown


def _is_opaque(ink: Colour | None) -> bool:
    return ink is not None and ink.opacity == 1


def _together(parts: list[tuple[Shapes, Ints]]) -> tuple[Shapes, Ints]:
    """Shapes and their positions in the painted order."""
    if not parts:
        return np.empty(0, object), np.empty(0, np.int64)
    shapes = np.concatenate([shapes for shapes, _ in parts])
    positions = np.concatenate([positions for _, positions in parts])
    order = np.argsort(positions, kind="stable")
    return shapes[order], positions[order]


def _rings(area: BaseGeometry) -> Shapes:
    """The rings of an area as lines."""
    import shapely

    rings = shapely.get_rings(shapely.get_parts(area))
    points, numbers = shapely.get_coordinates(rings, return_index=True)
    if not len(points):
        return np.empty(0, object)
    lines: Shapes = shapely.linestrings(points, indices=numbers)  # type: ignore[assignment]
    return lines
