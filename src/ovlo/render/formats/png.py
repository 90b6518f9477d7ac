"""PNG: a trail as pixels, rasterised by Agg.

b"".join(render(columns, page))    # b'\\x89PNG…'
"""

from __future__ import annotations

import io
from collections.abc import Iterator
from itertools import pairwise

import numpy as np

from ovlo.core.paint.cutting import cut, without_fine_dashes
from ovlo.core.paint.mitres import mitres
from ovlo.core.paint.order import Mark, Painting, painted
from ovlo.core.paint.outlines import CLOSE, LINE, MOVE, Outline
from ovlo.core.paint.regions import without_overlaps
from ovlo.core.trail.columns import Columns, Style, Text
from ovlo.core.values.arrays import Bools, Bytes, Floats
from ovlo.core.values.colour import BLACK, TRANSPARENT, Colour
from ovlo.core.values.errors import BadValue
from ovlo.render import lettering
from ovlo.render.formats.agg import Agg, Face, Manner, Path, matrix, new_agg, rgba
from ovlo.render.page import Page

Codes = Bytes

LARGEST_SIDE = 20_000
LARGEST_AREA = 80_000_000

CELLS = 30_000_000
"""Agg gives up on a path that touches some 130 million pixels; beyond this we split it."""

FLATNESS = 0.05
"""Pixels that a chord may be from its arc."""

FINEST = 0.02
"""Pixels by which a mitre must stand out to be seen."""

SMALL = 1000
"""Vertices of a path that may be drawn together with others."""

SIMPLE = 1000
"""Vertices a line may have before points that change nothing visible are left out."""

UNSEEN = 0.0, 0.0, 0.0, 1e-9
"""A paint that leaves no trace in eight bits. With it, Agg draws lines whose middle is off the page, too."""

FARTHEST = 100
"""Times the page's size that a line may be away from the page, for Agg to cut it."""

MANY, LONG, FEW = 2000, 400, 3
"""A line of so many points, whose parts touch so many pixels on both sides, is drawn so many parts at a time.
Where such parts meet or cross, the pixels at their edges are a little darker than in one piece."""

FINE = 4
"""Parts of a pixel's side in which lines that lie on themselves are painted, to be put together again."""

FEWEST = 6
"""Vertices of a line that may lie on itself."""

FEWEST_ALONE = 24
"""Vertices of a line that is looked at for that beside others."""

FINE_CELLS = 2_000_000
"""A line that touches more is painted in whole pixels: finer ones would take longer than anybody waits."""

STRIP = 8_000_000
"""Fine pixels that are painted at once."""

LYING_ON = 0.12
"""If so much of a line's area is missing in the picture, it lies on itself, and not only where some cross."""

MOST_LOOKED_AT = 4_000_000
"""Pixels of a picture in which it is looked for that."""

LOT = 2_000_000
"""How much of a split path is drawn at once: sorting small lots is faster than sorting large ones."""


def render(columns: Columns, page: Page) -> list[bytes]:
    """The picture as PNG."""
    from PIL import Image
    from PIL.PngImagePlugin import PngInfo

    pixels = rasterise(columns, page)
    image = Image.fromarray(pixels)
    if page.paper.opacity == 1:
        image = image.convert("RGB")
    about = PngInfo()
    about.add_itxt("Title", page.title)
    if page.details:
        about.add_itxt("Description", page.details)
    written = io.BytesIO()
    density = 96 * page.scale
    image.save(written, "png", pnginfo=about, dpi=(density, density))
    return [written.getvalue()]


def rasterise(columns: Columns, page: Page, is_fine: bool = True) -> Bytes:
    """The picture as pixels, shape (height, width, 4): red, green, blue, opacity."""
    canvas = Canvas(page, is_fine)
    canvas.paint(painted(columns).flattened(FLATNESS / page.pixels_per_unit))
    return canvas.pixels


class Canvas:
    """Pixels to paint on with marks in sheet units.

    Attributes
    ----------
    pixels : uint8 array of shape (height, width, 4)
        Red, green, blue, opacity; not multiplied by it.
    """

    def __init__(self, page: Page, is_fine: bool = False) -> None:
        check_size(page)
        self._page = page
        self._agg = self._new_agg()
        self._to_pixels = matrix(page.left, page.raster_bottom, page.pixels_per_unit)
        self.pixels: Bytes = np.asarray(self._agg)
        self.pixels[:] = [round(channel * 255) for channel in rgba(page.paper)]
        self.clip: tuple[int, int, int, int] | None = None
        """Columns and rows of pixels, left, top, right and bottom, beyond which nothing is painted."""
        self.is_fine = is_fine
        """Whether lines that lie on themselves are painted as what they cover together."""
        self._looks_left = 0

    def paint(self, painting: Painting) -> None:
        """Paint all marks; neighbours that differ in colour and width alone are handed over together."""
        batch = Batch()
        self._looks_left = MOST_LOOKED_AT if self.is_fine else 0
        beyond = self._beyond(painting.strokes)
        for mark in painting.marks:
            if isinstance(mark, Text):
                batch = self._flush(batch)
                self._letter(mark)
                continue
            outline = painting.outline_of(mark)
            vertices, codes = outline.path(mark.number)
            if mark.fill is not None and mark.fill_rule == "evenodd":
                batch = self._flush(batch)
                self._fill(*without_overlaps(vertices, codes, mark.fill_rule), mark.fill)
                mark = mark._replace(fill=None)
                if mark.style is None:
                    continue
            style = mark.style
            may_lie = self._looks_left > 0 and mark.fill is None and len(vertices) >= FEWEST_ALONE
            if may_lie and style is not None and not (style.line_dash or beyond[mark.number]):
                batch = self._flush(batch)
                self._stroke(vertices, codes, style)
                continue
            if style is None or not (style.line_dash or style.line_join == "miter" or beyond[mark.number]):
                batch = self._put(batch, mark, vertices, codes)
                continue
            if mark.fill is not None:
                batch = self._put(batch, mark._replace(style=None), vertices, codes)
            if self._cuts_itself(style, vertices):
                batch = self._flush(batch)
                self._stroke(vertices, codes, style)
                continue
            style, vertices, codes = self._seen_part(style, vertices, codes, mark.dash_offset)
            if not len(vertices):
                continue
            if beyond[mark.number] or style.line_join == "miter":
                batch = self._flush(batch)
                is_wide = style.line_width * self._page.pixels_per_unit > 2
                self._stroke(vertices, codes, style, UNSEEN if is_wide else None)
            else:
                batch = self._put(batch, mark._replace(fill=None, style=style), vertices, codes)
        self._flush(batch)

    def _put(self, batch: Batch, mark: Mark, vertices: Floats, codes: Codes) -> Batch:
        """Put a mark to a batch, or to a new one if it does not fit there."""
        if not batch.takes(mark) or len(vertices) > SMALL:
            batch = self._flush(batch)
        batch.add(mark, vertices, codes)
        return batch

    def _beyond(self, lines: Outline) -> Bools:
        """Which lines leave the page, if only by their middle, shape (lines,)."""
        page, (low, high) = self._page, lines.path_boxes()
        right, top = page.left + page.width, page.bottom + page.height
        return np.asarray(((low < (page.left, page.bottom)) | (high > (right, top))).any(axis=1))

    def _cuts_itself(self, style: Style, vertices: Floats) -> bool:
        """Whether Agg may cut a line at the page's edge: of many points, thin, not dashed, never far away.

        Agg does it a pixel beyond the page, and leaves out points that change nothing on the way.
        """
        if len(vertices) < MANY or style.line_dash or style.line_join == "miter":
            return False
        farthest = FARTHEST * (self._page.width + self._page.height)
        is_thin = style.line_width * self._page.pixels_per_unit <= 2
        return is_thin and bool((np.abs(vertices) < farthest).all())

    def _seen_part(
        self, style: Style, vertices: Floats, codes: Codes, dash_offset: float
    ) -> tuple[Style, Floats, Codes]:
        """What can be seen of a line that is dashed or leaves the page, which may be very long."""
        page = self._page
        style = without_fine_dashes(style, FLATNESS / page.pixels_per_unit)
        # A mitre may reach ten times half the width of its line.
        room = 5 * style.line_width + 2 / page.pixels_per_unit
        right, top = page.left + page.width, page.bottom + page.height
        box = page.left - room, page.bottom - room, right + room, top + room
        return style._replace(line_dash=()), *cut(vertices, codes, box, style.line_dash, dash_offset)

    def _flush(self, batch: Batch) -> Batch:
        """Draw what is in a batch; returns an empty one."""
        if len(batch.marks) > 1:
            self._draw_batch(batch)
        for mark, vertices, codes in batch.marks if len(batch.marks) == 1 else ():
            if mark.fill is not None:
                self._fill(vertices, codes, mark.fill)
            if mark.style is not None:
                self._stroke(vertices, codes, mark.style)
        return Batch()

    def _draw_batch(self, batch: Batch) -> None:
        """Many small paths in one call, so that none of them costs a round trip through Python."""
        marks, scale = batch.marks, self._page.pixels_per_unit
        styles = [mark.style or Style(line_width=0) for mark, _, _ in marks]
        faces = [rgba(mark.fill or TRANSPARENT) for mark, _, _ in marks]
        # All lines of a batch have one manner; an area without a line says nothing of it.
        manner = next((mark.style for mark, _, _ in marks if mark.style is not None), styles[0])
        self._agg.draw_path_collection(
            self._context(manner, scale),
            self._to_pixels,
            [Path(vertices, codes) for _, vertices, codes in marks],
            np.empty((0, 3, 3)),
            np.empty((0, 2)),
            np.eye(3),
            np.array(faces) if any(mark.fill for mark, _, _ in marks) else np.empty((0, 4)),
            np.array([rgba(style.ink) for style in styles]),
            [style.line_width * scale for style in styles],
            [(0.0, None)],
            [True],
            [None],
            "data",
            hatchcolors=np.empty((0, 4)),
        )

    def _letter(self, text: Text) -> None:
        vertices, codes = lettering.glyphs(text)
        if len(vertices):
            self._fill(vertices, codes, text.ink)

    def _fill(self, vertices: Floats, codes: Codes, paint: Colour) -> None:
        if not len(vertices):
            return
        context = self._context(Style(line_width=0), 1.0)
        self._agg.draw_path(context, Path(vertices, codes), self._to_pixels, rgba(paint))

    def _stroke(self, vertices: Floats, codes: Codes, style: Style, face: Face | None = None) -> None:
        cells = self._cells(vertices, style)
        is_looked_at = self._looks_left > 0 and len(vertices) >= FEWEST and cells.sum() <= FINE_CELLS
        if is_looked_at and (found := self._covered(vertices, codes, style)) is not None:
            corner, covered = found
            self._blend_part(corner, covered, style.ink)
            return
        is_round = style.line_join == style.line_cap == "round"
        if style.ink.opacity == 1 and is_round and len(vertices) > MANY and cells.mean() > LONG:
            # Agg sorts what a path touches, all at once; of long lines, few are sorted faster.
            manner = self._context(style, self._page.pixels_per_unit)
            for lot in _lots(vertices, codes, np.full(len(vertices), LOT // FEW)):
                self._agg.draw_path(manner, Path(*lot), self._to_pixels, face)
            return
        is_mitred = style.line_join == "miter"
        if cells.sum() < CELLS and (style.ink.opacity == 1 or not is_mitred):
            self._draw(self._agg, vertices, codes, style, face)
            if is_mitred:
                self._draw_mitres(self._agg, vertices, codes, style)
            return
        # The lots are added up as coverage, as Agg itself adds what two edges cover of a pixel; then the
        # ink is laid on once. So neither a seam nor doubled translucent ink shows.
        coverage = np.zeros(self.pixels.shape[:2], np.uint8)
        layer = self._new_agg()
        opaque = style._replace(ink=BLACK)
        for lot_vertices, lot_codes in _lots(vertices, codes, cells):
            layer.clear()
            self._draw(layer, lot_vertices, lot_codes, opaque, face)
            coverage += np.minimum(np.asarray(layer)[..., 3], 255 - coverage)
        if is_mitred:
            layer.clear()
            self._draw_mitres(layer, vertices, codes, opaque)
            np.maximum(coverage, np.asarray(layer)[..., 3], out=coverage)
        self._blend(coverage, style.ink)

    def _covered(self, vertices: Floats, codes: Codes, style: Style) -> tuple[tuple[int, int], Bytes] | None:
        """What a line that lies on itself covers of each pixel, and the first row and column of those.

        Agg adds what the parts of a line cover of a pixel, though they cover the same of it. So pixels are
        painted in finer ones, of which most are covered or not, and put together again. None for other lines.
        """
        page, scale = self._page, self._page.pixels_per_unit
        height, width = self.pixels.shape[:2]
        room = style.line_width * (6 if style.line_join == "miter" else 1) + 2 / scale
        low = np.floor((vertices.min(axis=0) - room - (page.left, page.raster_bottom)) * scale).astype(int)
        high = np.ceil((vertices.max(axis=0) + room - (page.left, page.raster_bottom)) * scale).astype(int)
        (left, bottom), (right, top) = np.maximum(low, 0), np.minimum(high, (width, height))
        if left >= right or bottom >= top:
            return None
        self._looks_left -= int((right - left) * (top - bottom))

        def painted_in(first: int, stop: int, fine: int, style: Style) -> Bytes:
            """The opacity of rows of pixels, counted from below, each in so many finer ones."""
            agg = new_agg((right - left) * fine, (stop - first) * fine)
            outer, self._to_pixels = (
                self._to_pixels,
                matrix(page.left + left / scale, page.raster_bottom + first / scale, scale * fine),
            )
            self._draw(agg, vertices, codes, style._replace(ink=BLACK), None, fine)
            if style.line_join == "miter":
                self._draw_mitres(agg, vertices, codes, style._replace(ink=BLACK))
            self._to_pixels = outer
            return np.asarray(agg)[..., 3]

        # Thin lines cover no pixel wholly, so that nothing would be missing.
        wide = style._replace(line_width=max(style.line_width, 2 / scale))
        if not self._lies_on_itself(vertices, codes, wide, painted_in(bottom, top, 1, wide)):
            return None
        rows = max(1, STRIP // (FINE * FINE * (right - left)))
        found = np.empty((top - bottom, right - left), np.uint8)
        for first in range(bottom, top, rows):
            stop = min(first + rows, top)
            fine = painted_in(first, stop, FINE, style).reshape(stop - first, FINE, right - left, FINE)
            found[top - stop : top - first] = np.rint(fine.mean(axis=(1, 3), dtype=np.float32))
        return (height - top, left), found

    def _lies_on_itself(self, vertices: Floats, codes: Codes, style: Style, plain: Bytes) -> bool:
        """Whether a line covers less than it is long and wide."""
        is_line = codes != MOVE
        scale, lengths = self._page.pixels_per_unit, np.hypot(*np.diff(vertices, axis=0).T)
        area = float(lengths[is_line[1:]].sum()) * style.line_width * scale**2
        return area * (1 - LYING_ON) > float(plain.sum(dtype=np.int64)) / 255 + 1

    def _blend_part(self, corner: tuple[int, int], coverage: Bytes, ink: Colour) -> None:
        """Lay ink on a part of the pixels, from a row and a column on."""
        row, column = corner
        height, width = coverage.shape
        outer, self.pixels = self.pixels, self.pixels[row : row + height, column : column + width]
        self._blend(coverage, ink)
        self.pixels = outer

    def _draw_mitres(self, agg: Agg, vertices: Floats, codes: Codes, style: Style) -> None:
        """Draw the points of mitred joins: Agg's own limit for them cannot be set through Matplotlib."""
        points = mitres(vertices, codes, style.line_width, FINEST / self._page.pixels_per_unit)
        if len(points):
            corners = np.tile(np.array([MOVE, LINE, LINE, LINE], np.uint8), len(points))
            context = self._context(Style(line_width=0), 1.0)
            agg.draw_path(context, Path(points.reshape(-1, 2), corners), self._to_pixels, rgba(style.ink))

    def _cells(self, vertices: Floats, style: Style) -> Floats:
        """About how many pixels Agg visits for each vertex: both edges of a line, and its joins."""
        height, width = self.pixels.shape[:2]
        moves: Floats = np.abs(np.diff(vertices, axis=0, prepend=vertices[:1])).sum(axis=1)
        np.minimum(moves * self._page.pixels_per_unit, width + height, out=moves)
        # What lies off the page costs nothing.
        moves += min(1.5 * style.line_width * self._page.pixels_per_unit, width + height)
        return 2 * moves

    def _new_agg(self) -> Agg:
        return new_agg(self._page.pixel_width, self._page.pixel_height)

    def _draw(
        self,
        agg: Agg,
        vertices: Floats,
        codes: Codes,
        style: Style,
        face: Face | None = None,
        fine: int = 1,
    ) -> None:
        # A path without codes is one line through all vertices, which is thinned out before it is drawn:
        # points that move it by less than a ninth of a pixel are left out.
        is_one_line = not (codes[1:] != LINE).any()
        path = Path(vertices, None if is_one_line else codes, is_one_line and len(vertices) > SIMPLE)
        # Mitres are drawn apart, see `_draw_mitres`.
        join = "bevel" if style.line_join == "miter" else style.line_join
        context = self._context(style._replace(line_join=join), self._page.pixels_per_unit * fine)
        agg.draw_path(context, path, self._to_pixels, face)

    def _context(self, style: Style, pixels_per_unit: float) -> Manner:
        if self.clip is None:
            return Manner(style, pixels_per_unit)
        left, top, right, bottom = self.clip
        height = self.pixels.shape[0]
        return Manner(style, pixels_per_unit, (left, height - bottom, right, height - top))

    def _blend(self, coverage: Bytes, ink: Colour) -> None:
        """Lay ink on the pixels it covers (source over, https://www.w3.org/TR/compositing-1/)."""
        source = coverage[..., None] * (ink.opacity / 255)
        below = self.pixels[..., 3:] / 255 * (1 - source)
        opacity = source + below
        mixed = np.multiply(source, ink._rgb) + below * self.pixels[..., :3]
        np.divide(mixed, opacity, out=mixed, where=opacity > 0)
        self.pixels[..., :3] = np.rint(mixed)
        self.pixels[..., 3:] = np.rint(opacity * 255)


def check_size(page: Page) -> None:
    """Refuse a picture with more pixels than we make."""
    width, height = page.pixel_width, page.pixel_height
    if max(width, height) <= LARGEST_SIDE and width * height <= LARGEST_AREA:
        return
    fitting = min(LARGEST_SIDE / max(width, height), (LARGEST_AREA / (float(width) * height)) ** 0.5)
    raise BadValue(
        f"save: a PNG of {width} × {height} pixels is too large; it may have {LARGEST_SIDE} a side and "
        f"{LARGEST_AREA // 1_000_000} million in all. Use a smaller sheet, a scale below "
        f"{page.scale * fitting:.3g}, or save an SVG."
    )


def _lots(vertices: Floats, codes: Codes, cells: Floats) -> Iterator[tuple[Floats, Codes]]:
    """A path in lots, each beginning where the one before ended."""
    lot = np.cumsum(cells) // LOT
    bounds = [0, *(np.flatnonzero(np.diff(lot)) + 1).tolist(), len(vertices)]
    # Where the beginning of a piece is in another lot, the way back is an ordinary line.
    codes = np.where(codes == CLOSE, LINE, codes).astype(np.uint8)
    for first, stop in pairwise(bounds):
        early = max(first - 1, 0)
        lot_codes = codes[early:stop].copy()
        lot_codes[0] = MOVE
        yield vertices[early:stop], lot_codes


class Batch:
    """Marks that one call can draw."""

    def __init__(self) -> None:
        self.marks: list[tuple[Mark, Floats, Bytes]] = []
        self._manner: tuple[object, ...] | None = None
        self._is_large = False

    def takes(self, mark: Mark) -> bool:
        """Whether a mark differs from the others in colour and width alone."""
        return not self._is_large and (
            mark.style is None or self._manner is None or self._manner == mark.style[2:]
        )

    def add(self, mark: Mark, vertices: Floats, codes: Codes) -> None:
        """Add a mark."""
        if mark.style is not None:
            self._manner = mark.style[2:]
        self._is_large = len(vertices) > SMALL
        self.marks.append((mark, vertices, codes))
