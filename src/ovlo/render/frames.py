"""Pictures of a drawing as it grows: each frame only adds what is new.

    frames = Frames(columns, page)
    frames.advance(40)
    frames.pixels

An area appears when its block ends, under the lines drawn inside it: what was there before the block is kept
for its region, so only that region is painted again.
"""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

import numpy as np

from ovlo.core.paint.order import Mark, Painting, painted
from ovlo.core.paint.stretch import Parts
from ovlo.core.trail.columns import Columns, Text
from ovlo.core.values.arrays import Bytes
from ovlo.render import lettering
from ovlo.render.boxes import NOTHING, PixelBox, clipped, is_empty, part_of, united
from ovlo.render.chords import Chords
from ovlo.render.formats.png import FLATNESS, Canvas
from ovlo.render.page import Page


class _Block(NamedTuple):
    """An area whose block is open: what was in its region before."""

    area: int
    begin: int
    end: int
    region: PixelBox
    before: Bytes | None
    """None once that holds no longer, since an area begun earlier by another nib has appeared beneath."""


class Frames:
    """A drawing, painted up to some step.

    Attributes
    ----------
    steps : int
        How many steps are painted.
    """

    def __init__(self, columns: Columns, page: Page) -> None:
        self._page = page
        self._canvas = Canvas(page)
        self._empty = self._canvas.pixels.copy()
        self.steps = 0
        self._open: list[_Block] = []
        self._settled = -1, self._empty
        """What is beneath the line that grows, and where that begins."""
        self.columns = columns
        self._tolerance = FLATNESS / page.pixels_per_unit
        self._parts, self._chords = Parts(columns), columns.once(Chords, self._tolerance)
        self._opened = columns.areas["step"]

    @property
    def pixels(self) -> Bytes:
        """The frame, shape (height, width, 4)."""
        return self._canvas.pixels

    @property
    def whole(self) -> PixelBox:
        """All pixels."""
        height, width = self.pixels.shape[:2]
        return 0, 0, width, height

    def restart(self) -> None:
        """Back to the empty page."""
        self.pixels[:] = self._empty
        self.steps = 0
        self._open.clear()
        self._settled = -1, self._empty

    def ahead(self, share: float) -> tuple[PixelBox, Bytes] | None:
        """The frame with a share of the next step's line: where it differs, and its pixels there."""
        if share <= 0 or self.steps >= len(self.columns):
            return None
        page = self._page
        flat = self._chords.beginning(self.steps, share)
        if flat is None and (part := self._parts.beginning(self.steps, share)) is not None:
            flat = painted(part).flattened(self._tolerance)
        if flat is None:
            return None
        box = self._reached(flat)
        if is_empty(box):
            return None
        left, top, right, bottom = box
        unit, height = 1 / page.pixels_per_unit, self.pixels.shape[0]
        width, depth = (right - left) * unit, (bottom - top) * unit
        cut = replace(
            page,
            left=page.left + left * unit,
            bottom=page.raster_bottom + (height - bottom) * unit,
            width=width,
            height=depth,
            shown_width=width * page.scale,
            shown_height=depth * page.scale,
        )
        canvas = Canvas(cut)
        canvas.pixels[:] = part_of(self.pixels, box)
        canvas.paint(flat)
        return box, canvas.pixels

    def jump(self, steps: int) -> PixelBox:
        """Paint the drawing after so many steps, whichever was shown; returns the pixels that changed."""
        if steps < self.steps or steps == len(self.columns):
            # The last frame is painted whole, so that it is the saved picture to the last pixel.
            self.restart()
            if steps == len(self.columns):
                self._canvas.is_fine = True
                self._paint(0, steps)
                self._canvas.is_fine = False
                self.steps = steps
            else:
                self.advance(steps)
            return self.whole
        return self.advance(steps)

    def advance(self, to: int) -> PixelBox:
        """Paint further steps; returns the box of the pixels that changed."""
        changed = NOTHING
        ends = self._parts.area_ends
        while self.steps < to:
            # Areas that begin and end before `to` are painted with the rest; others are stops on the way.
            stays_open = np.flatnonzero((self._opened >= self.steps) & (self._opened < to) & (ends > to))
            opens = [int(self._opened[i]) for i in stays_open.tolist() if i not in self._numbers()][:1]
            closes = [block.end for block in self._open if block.end <= to]
            stop = min([to, *opens, *closes])
            begin = self._growing_line(stop)
            if begin is not None and begin > self.steps:
                stop = begin
            changed = united(changed, self._paint_on(stop))
            self.steps = stop
            for block in [block for block in reversed(self._open) if block.end == stop]:
                changed = united(changed, self._close(block))
            for area in stays_open.tolist():
                if int(self._opened[area]) == stop < to and area not in self._numbers():
                    self._keep(area)
        return changed

    def _paint_on(self, stop: int) -> PixelBox:
        """Paint the next steps, with the line that grows there painted anew from where it begins."""
        begin = self._growing_line(self.steps)
        if begin is not None and begin == self._settled[0]:
            self.pixels[:] = self._settled[1]
            return self._paint(begin, stop)
        grows = self._growing_line(stop) == self.steps
        self._settled = (self.steps, self.pixels.copy()) if grows else (-1, self._empty)
        return self._paint(self.steps, stop)

    def _growing_line(self, step: int) -> int | None:
        """Where a line begins that goes on at a step and is to be painted whole, or None.

        Painted in parts, dashes would begin anew, and translucent parts would overlap where they meet.
        """
        runs = self.columns.runs
        number = int(np.searchsorted(runs["start"], step, "right")) - 1
        start = int(runs["start"][number])
        if start == step or step >= len(self.columns):
            return None
        style = self.columns.styles[runs["style"][number]]
        return start if style.line_dash or style.ink.opacity < 1 else None

    def _numbers(self) -> set[int]:
        return {block.area for block in self._open}

    def _keep(self, area: int) -> None:
        """Keep what is in an area's region before its block."""
        begin, end = int(self._opened[area]), int(self._parts.area_ends[area])
        inside = self._parts.between(begin, min(end, len(self.columns)))
        region = self._reached(painted(inside).flattened(self._tolerance))
        self._open.append(_Block(area, begin, end, region, part_of(self.pixels, region).copy()))

    def _close(self, block: _Block) -> PixelBox:
        """Paint an area beneath what was drawn in its block."""
        self._open.remove(block)
        self._settled = -1, self._empty
        region = part_of(self.pixels, block.region)
        if block.before is None:
            region[:] = part_of(self._empty, block.region)
            self._paint(0, block.end, block.region)
        else:
            region[:] = block.before
            self._paint(block.begin, block.end, block.region)
        # What was kept for blocks that began later, and are open still, is without this area.
        self._open = [one._replace(before=None) if one.area > block.area else one for one in self._open]
        return block.region

    def _paint(self, first: int, stop: int, clip: PixelBox | None = None) -> PixelBox:
        """Paint some steps; returns the box of the pixels that may have changed."""
        if stop < first or (stop == first and stop < len(self.columns)):
            return NOTHING
        flat = self._marks(first, stop)
        if not flat.marks:
            return NOTHING
        self._canvas.clip = clip
        self._canvas.paint(flat)
        self._canvas.clip = None
        return self._reached(flat)

    def _marks(self, first: int, stop: int) -> Painting:
        """The marks of some steps, their arcs as chords."""
        if self._parts.has_only_lines(first, stop):
            return self._chords.between(first, stop)
        return painted(self._parts.between(first, stop)).flattened(self._tolerance)

    def _reached(self, flat: Painting) -> PixelBox:
        """The pixels that marks may reach; arcs must be chords."""
        texts = [mark for mark in flat.marks if isinstance(mark, Text)]
        styles = [mark.style for mark in flat.marks if isinstance(mark, Mark) and mark.style is not None]
        corners = [corner for text in texts for corner in lettering.box(text)]
        points = np.vstack([flat.strokes.vertices, flat.borders.vertices, *corners])
        if not len(points):
            return NOTHING
        (left, bottom), (right, top) = points.min(axis=0).tolist(), points.max(axis=0).tolist()
        # A mitre may reach ten times half the width of its line.
        widest = max((style.line_width for style in styles), default=0.0)
        room = 5 * widest * self._page.pixels_per_unit + 2
        return self.to_pixels((left, bottom, right, top), room)

    def to_pixels(self, box: PixelBox, room: float = 0) -> PixelBox:
        """The pixels of a box in sheet units, with room around it, as far as they are on the page."""
        scale, height = self._page.pixels_per_unit, self.pixels.shape[0]
        left, right = ((x - self._page.left) * scale for x in (box[0], box[2]))
        top, bottom = (height - (y - self._page.raster_bottom) * scale for y in (box[3], box[1]))
        return clipped((left - room, top - room, right + room, bottom + room), self.whole)
