"""SVG that draws itself: every line is walked along in its time, by CSS alone.

    render(film)

Any browser plays it; nothing else is needed. A line appears by the offset of a dash as long as itself, an
area and a text when they are there. The picture at the end is that of the plain SVG.
"""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.paint.order import Mark, Painting, painted
from ovlo.core.paint.outlines import MOVE, Outline
from ovlo.core.paint.stretch import Parts
from ovlo.core.paint.timeline import Timeline
from ovlo.core.trail.columns import Style, Text
from ovlo.render.additions.pointer import Pointers
from ovlo.render.formats import svg
from ovlo.render.formats.svg_paths import path_data
from ovlo.render.numbers import number

if TYPE_CHECKING:
    from ovlo.render.formats.animation import Film

STYLE = """<style>
.ovlo-appears,.ovlo-walks{visibility:hidden}
.ovlo-appears{animation:ovlo-appear .001s linear var(--ovlo-at) forwards}
.ovlo-walks{stroke-dasharray:1;animation:ovlo-walk var(--ovlo-for) linear var(--ovlo-at) forwards}
@keyframes ovlo-appear{to{visibility:visible}}
@keyframes ovlo-walk{from{visibility:visible;stroke-dashoffset:1}
99.9%{stroke-dasharray:1}to{visibility:visible;stroke-dashoffset:0;stroke-dasharray:none}}
"""


def render(film: Film) -> bytes:
    """The animation as SVG."""
    places = svg.decimals(film.page)
    parts = [svg.head(film.page, places), *_Moving(film, places).elements()]
    if film.playback.overlay:
        parts += svg.elements(film.overlay, places)
    if film.playback.pointer:
        parts += _pointer(film, places)
    return "".join([*parts, "</svg>\n"]).encode()


class _Moving:
    """The marks of a drawing with the times they appear at."""

    def __init__(self, film: Film, places: int) -> None:
        columns = film.columns
        self._columns, self._places = columns, places
        self._painting: Painting = painted(columns)
        self._timeline = Timeline(columns, film.playback.seconds)
        self._ends = Parts(columns).area_ends
        self._areas = columns.of_steps("area")
        self._pauses = columns.pauses["step"]
        self._pieces = _each_piece(self._painting.strokes)
        self._piece_data = path_data(self._pieces, places)
        self._border_data = path_data(self._painting.borders, places)
        self._stroke_data = path_data(self._painting.strokes, places)
        self._keyframes: list[str] = []

    def elements(self) -> list[str]:
        """The style sheet, and all marks, the lowest first."""
        found: list[str] = []
        for mark in self._painting.marks:
            if isinstance(mark, Text):
                found.append(svg.text_element(mark, self._places, self._shown(mark.step)))
                continue
            if mark.fill is not None:
                found.append(self._area(mark))
            if mark.style is not None:
                found += self._lines(mark)
        return [STYLE, *self._keyframes, "</style>\n", *found]

    def _shown(self, step: int) -> str:
        """What lets a mark appear when so many steps are drawn."""
        time = number(self._timeline.end(min(step, len(self._columns))), 3)
        return f' class="ovlo-appears" style="--ovlo-at:{time}s"'

    def _area(self, mark: Mark) -> str:
        is_twin = mark.style is not None
        outline = self._painting.outline_of(mark)
        data = (self._stroke_data if is_twin else self._border_data)[mark.number]
        step = outline.steps[mark.number]
        area = int(self._areas[step]) if is_twin else int(outline.keys[mark.number])
        return f'<path{self._shown(int(self._ends[area]))} d="{data}"{svg.fill(mark)}/>\n'

    def _lines(self, mark: Mark) -> list[str]:
        """Each piece of a path, walked along in its time."""
        path, style = mark.number, mark.style
        assert style is not None
        first, stop = np.searchsorted(self._pieces.firsts, self._painting.strokes.firsts[path : path + 2])
        look = svg.stroke(style, self._places) + svg.dash_offset(mark, self._places)
        return [
            f'<path{self._walked(piece, style)} d="{self._piece_data[piece]}" fill="none"{look}/>\n'
            for piece in range(int(first), int(stop))
        ]

    def _walked(self, piece: int, style: Style) -> str:
        begin = int(self._pieces.steps[piece])
        vertices, _ = self._pieces.path(piece)
        # An arc that closes its piece has a vertex more than steps.
        end = min(begin + len(vertices) - 1, len(self._columns))
        if style.line_dash or (vertices == vertices[0]).all():
            return self._shown(end)
        start, stop = self._timeline.begin(begin), self._timeline.end(end)
        time = f"--ovlo-at:{number(start, 3)}s;--ovlo-for:{number(max(stop - start, 0.001), 4)}s"
        if name := self._halting(begin, end, start, stop):
            time += f";animation-name:{name}"
        return f' class="ovlo-walks" pathLength="1" style="{time}"'

    def _halting(self, begin: int, end: int, start: float, stop: float) -> str:
        """The name of keyframes for a piece in the middle of which the program pauses; "" for others."""
        halts = self._pauses[(self._pauses > begin) & (self._pauses < end)]
        if not len(halts):
            return ""
        name = f"ovlo-walk-{len(self._keyframes)}"
        stations = []
        for step in np.unique(halts).tolist():
            offset = number(1 - (step - begin) / (end - begin), 4)
            for time in (self._timeline.end(step), self._timeline.begin(step)):
                share = number(100 * (time - start) / (stop - start), 3)
                stations.append(f"{share}%{{stroke-dashoffset:{offset}}}")
        self._keyframes.append(
            f"@keyframes {name}{{from{{visibility:visible;stroke-dashoffset:1}}{''.join(stations)}"
            "to{visibility:visible;stroke-dashoffset:0;stroke-dasharray:none}}\n"
        )
        return name


def _each_piece(outline: Outline) -> Outline:
    """The same with every piece between moves as a path of its own."""
    moves = np.flatnonzero(outline.codes == MOVE)
    path = np.searchsorted(outline.firsts, moves, "right") - 1
    return replace(
        outline,
        firsts=np.append(moves, len(outline.vertices)),
        keys=outline.keys[path],
        steps=outline.piece_steps,
    )


def _pointer(film: Film, places: int) -> list[str]:
    """The pointer of the nib, moved from frame to frame by SMIL."""
    pointers = Pointers(film.sheet, film.page)
    found = [pointers.pose_at(int(place), place - int(place)) for place in film.places]
    shown = [one for one in found if one is not None]
    if len(shown) < len(found) or not shown:
        return []
    pointer = shown[0][0]
    total = sum(film.seconds)
    times = np.cumsum([0.0, *film.seconds[:-1]]) / total
    keys = ";".join(number(time, 5) for time in times.tolist())
    poses = [pose for _, _, pose in shown]
    moves = ";".join(f"{number(x, places)} {number(-y, places)}" for x, y, _ in poses)
    turns = ";".join(number(-heading, 2) for *_, heading in poses)
    how = f'dur="{number(total, 3)}s" keyTimes="{keys}" calcMode="discrete" fill="freeze"'
    name = '<animateTransform attributeName="transform" type'
    return [
        f'<g>{name}="translate" values="{moves}" {how}/>\n',
        f'<g>{name}="rotate" values="{turns}" {how}/>\n',
        *svg.elements(pointer, places + 2),
        "</g></g>\n",
    ]
