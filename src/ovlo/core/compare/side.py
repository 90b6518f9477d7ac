"""A trail as a picture to be compared: its lines, the borders of what is painted, and its texts.

Picture.of(columns).lines
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from ovlo.core.compare.line_set import Lines
from ovlo.core.compare.nearest import SearchableLines
from ovlo.core.paint.outlines import CLOSE, MOVE, Outline, borders, strokes
from ovlo.core.paint.regions import without_overlaps
from ovlo.core.trail.columns import FILL_RULES, Columns, Text

SAME = 1e-6
"""Distances below this share of a picture's size are rounding."""

POINTS = 20_000
"""About so many points are compared, besides the ends of all lines."""


@dataclass(frozen=True, eq=False)
class Picture:
    """What is compared of a trail: its lines, the borders of its areas, and its texts."""

    columns: Columns
    lines: Lines
    areas: Lines
    texts: tuple[Text, ...]
    raw: tuple[Lines, Lines] = field(repr=False)

    @classmethod
    def of(cls, columns: Columns) -> Picture:
        """The picture of a trail."""
        drawn, bordered = strokes(columns), borders(columns)
        vertices = np.vstack([drawn.vertices, bordered.vertices])
        size = float(np.hypot(*np.ptp(vertices, axis=0))) if len(vertices) else 1.0
        tolerance = 0.1 * SAME * (size or 1.0)
        lines, areas = (
            Lines.of(outline, tolerance) for outline in (drawn, _regions(columns, bordered, tolerance))
        )
        merged = lines.merged(size or 1.0), areas.merged(size or 1.0)
        return cls(columns, *merged, columns.texts, (lines, areas))

    @cached_property
    def all_lines(self) -> Lines:
        """Lines and borders together."""
        return self.lines.joined(self.areas)

    @property
    def has_marks(self) -> bool:
        """Whether there is anything to be seen."""
        return bool(len(self.all_lines) or self.texts)

    @cached_property
    def size(self) -> float:
        """The diagonal of the box of all lines and texts."""
        low, high = self.all_lines.box
        places = [complex(text.x, text.y) for text in self.texts]
        if not len(self.all_lines) and places:
            low = high = places[0]
        left, bottom = min([low.real, *(z.real for z in places)]), min([low.imag, *(z.imag for z in places)])
        right, top = max([high.real, *(z.real for z in places)]), max([high.imag, *(z.imag for z in places)])
        return abs(complex(right - left, top - bottom)) or 1.0

    @cached_property
    def layers(self) -> tuple[SearchableLines, SearchableLines]:
        """Lines and borders, each ready to be searched."""
        spacing = max(float(self.all_lines.lengths.sum()) / POINTS, 1e-9 * self.size)
        return SearchableLines(self.lines, spacing), SearchableLines(self.areas, spacing)


def _regions(columns: Columns, outline: Outline, tolerance: float) -> Outline:
    """The borders of what is painted: an area that overlaps itself becomes the region its rule fills."""
    import shapely

    flat = outline.flattened(tolerance)
    vertices, codes, arcs = [], [], []
    keys: list[int] = []
    sizes: list[int] = []
    for number in range(len(outline)):
        points, kinds = flat.path(number)
        key = int(outline.keys[number])
        is_plain = (kinds == MOVE).sum() == 1 and len(points) > 2 and shapely.Polygon(points).is_valid
        first, stop = outline.firsts[number : number + 2].tolist()
        if is_plain:
            mine = outline.arcs[(outline.arcs["step"] >= first) & (outline.arcs["step"] < stop)].copy()
            mine["step"] += sum(sizes) - first
            arcs.append(mine)
            points, kinds = outline.path(number)
            if kinds[-1] != CLOSE and (points[-1] != points[0]).any():
                points, kinds = np.vstack([points, points[:1]]), np.append(kinds, np.uint8(CLOSE))
        else:
            points, kinds = without_overlaps(points, kinds, FILL_RULES[columns.areas["fill_rule"][key]])
        if len(points):
            vertices.append(points)
            codes.append(kinds)
            keys.append(key)
            sizes.append(len(points))
    return replace(
        outline,
        vertices=np.vstack([np.empty((0, 2)), *vertices]),
        codes=np.concatenate([np.empty(0, np.uint8), *codes]),
        keys=np.array(keys, np.int64),
        firsts=np.append(0, np.cumsum(sizes)).astype(np.int64),
        arcs=np.concatenate([outline.arcs[:0], *arcs]),
        vertex_steps=np.full(sum(sizes), -1),
    )
