"""PDF: a trail as a vector page, text as text, written by Matplotlib's PDF backend used directly.

    b"".join(render(columns, page))    # b'%PDF…'

The page has the size of the picture in real units.
"""

from __future__ import annotations

import importlib.util
import io
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from functools import lru_cache
from threading import Lock
from types import ModuleType
from typing import TYPE_CHECKING, Any

import numpy as np

from ovlo.core.paint.cutting import without_fine_dashes
from ovlo.core.paint.mitres import MITER_LIMIT
from ovlo.core.paint.order import painted
from ovlo.core.paint.outlines import CUBIC, Outline, ranges
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns, Text
from ovlo.core.values.arrays import Box
from ovlo.core.values.degrees import direction
from ovlo.core.values.units import MM_PER_INCH
from ovlo.core.values.version import VERSION
from ovlo.render import lettering
from ovlo.render.formats.pdf_paths import Brush, letter_operators, path_operators
from ovlo.render.formats.png import FLATNESS
from ovlo.render.numbers import number
from ovlo.render.page import Page
from ovlo.render.paper.paper_sheet import PaperSheet

if TYPE_CHECKING:
    from matplotlib.backends.backend_pdf import PdfFile

POINTS_PER_PIXEL = 72 / 96

LARGEST_LETTERS = 10_000
"""Points; larger letters are drawn as paths, since FreeType takes no such size."""


def render(columns: Columns, page: Page) -> list[bytes]:
    """The picture as PDF."""
    width, height = (
        side * page.pixels_per_unit * POINTS_PER_PIXEL / 72 for side in (page.width, page.height)
    )
    written = io.BytesIO()
    with _file(written, page.title, page.details) as file:
        file.newPage(width, height)
        sheet = _PdfSheet(file, page, width, height)
        sheet.paint(columns)
        sheet.finish()
    return [written.getvalue()]


def render_paper_sheets(papers: list[PaperSheet], title: str, details: str) -> bytes:
    """Sheets of paper as the pages of one PDF."""
    written = io.BytesIO()
    with _file(written, title, details) as file:
        for tile in papers:
            width, height = tile.width / MM_PER_INCH, tile.height / MM_PER_INCH
            file.newPage(width, height)
            for one in tile.prints:
                sheet = _PdfSheet(file, one.page, width, height, one.at, one.room)
                sheet.paint(one.columns)
                sheet.finish()
    return written.getvalue()


@contextmanager
def _file(written: io.BytesIO, title: str, details: str) -> Iterator[PdfFile]:
    """A PDF to which pages are written."""
    lettering.need_fonts()
    # Without a date the file is the same every time.
    about = {"Title": title, "Subject": details or None, "Creator": f"Ovlo {VERSION}", "CreationDate": None}
    file = _backend().PdfFile(written, metadata=about)
    try:
        yield file
        file.finalize()
    finally:
        file.close()


NAME = "matplotlib.backends.backend_pdf_of_ovlo"
"""Of the copy; a part of Matplotlib's package, since it imports what stands beside it."""

_LOADING = Lock()


@lru_cache(maxsize=1)
def _backend() -> Any:
    """Matplotlib's PDF backend with settings of its own.

    It reads its settings where Matplotlib keeps those of the whole process, so a second copy of the module is
    loaded, which sees ours there: nothing of the host's is set, not even for a moment in another thread.
    """
    import matplotlib

    with _LOADING:  # lru_cache may call it in two threads at once
        if NAME not in sys.modules:
            found = importlib.util.find_spec("matplotlib.backends.backend_pdf")
            assert found is not None
            assert found.origin is not None
            spec = importlib.util.spec_from_file_location(NAME, found.origin)
            assert spec is not None
            assert spec.loader is not None
            backend: Any = importlib.util.module_from_spec(spec)
            sys.modules[NAME] = backend
            spec.loader.exec_module(backend)
            backend.mpl = _settings(matplotlib)
    return sys.modules[NAME]


def _settings(matplotlib: ModuleType) -> ModuleType:
    """Matplotlib with other settings."""
    settings = matplotlib.RcParams(matplotlib.rcParamsDefault)
    # Fonts of type 42 keep their letters as text.
    settings.update({"pdf.fonttype": 42, "path.simplify": False})
    other = ModuleType("matplotlib")
    vars(other).update(vars(matplotlib), rcParams=settings)
    return other


class _PdfSheet:
    """A page of a PDF file, in inches, to paint on with marks in sheet units.

    `at` is where the lower left corner of the picture is, and `room` the box outside of which nothing is
    seen; both in millimetres.
    """

    def __init__(
        self,
        file: PdfFile,
        page: Page,
        width: float,
        height: float,
        at: tuple[float, float] = (0.0, 0.0),
        room: Box | None = None,
    ) -> None:
        self._renderer = _backend().RendererPdf(file, 72, height, width)
        self._points_per_unit = page.pixels_per_unit * POINTS_PER_PIXEL
        self._corner = tuple(side / MM_PER_INCH * 72 for side in at)
        across, up = (self._points_per_unit * side for side in (page.left, page.bottom))
        self._move = self._corner[0] - across, self._corner[1] - up
        self._clip = None if room is None else [side / MM_PER_INCH * 72 for side in room]
        self._has_outlines = page.text == "outlines"
        self._file = file
        self._laid_out: dict[tuple[object, ...], bytes] = {}
        self._page = page

    def paint(self, columns: Columns) -> None:
        """Paint all marks as one piece of operators."""
        painting = painted(columns)
        data = {
            id(outline): path_operators(with_cubics(outline), self._points_per_unit, self._move)
            for outline in (painting.strokes, painting.borders)
        }
        operators: list[bytes] = []
        brush = Brush(lambda opacities: self._file.alphaState(opacities).pdfRepr())
        if self._page.paper.opacity:
            x, y = (number(side, 3) for side in self._corner)
            width, height = (
                number(side * self._points_per_unit, 3) for side in (self._page.width, self._page.height)
            )
            operators += [brush.filling(self._page.paper), f"{x} {y} {width} {height} re f\n".encode()]
        for mark in painting.marks:
            if isinstance(mark, Text):
                operators += self._letters(mark, brush)
                continue
            path = data[id(painting.outline_of(mark))][mark.number]
            # One after the other: PDF would cut a translucent line out of the area beneath it.
            if mark.fill is not None:
                sign = b" f*\n" if mark.fill_rule == "evenodd" else b" f\n"
                operators += [brush.filling(mark.fill), *path, sign]
            if mark.style is not None:
                style = without_fine_dashes(mark.style, FLATNESS / self._points_per_unit)
                operators += [brush.drawing(style, self._points_per_unit, mark.dash_offset), *path, b" S\n"]
        self._put(operators)

    def _put(self, operators: list[bytes]) -> None:
        """Write operators, after which all is as it was."""
        if not operators:
            return
        clip = b""
        if self._clip is not None:
            left, bottom, right, top = self._clip
            sides = [number(side, 3) for side in (left, bottom, right - left, top - bottom)]
            clip = f"{' '.join(sides)} re W n\n".encode()
        # Piece by piece into what is compressed: a long path is not copied once more.
        for piece in (b"\nq\n", b"%d M\n" % MITER_LIMIT, clip, *operators, b"Q\n"):
            self._file.write(piece)

    def finish(self) -> None:
        """End the page."""
        self._renderer.finalize()

    def _letters(self, text: Text, brush: Brush) -> list[bytes]:
        """The operators of a text: letters of its font, or their shapes."""
        if self._has_outlines or text.size * self._points_per_unit > LARGEST_LETTERS:
            data = letter_operators(*lettering.glyphs(text), self._points_per_unit, self._move)
            return [brush.filling(text.ink), data, b" f\n"] if data else []
        words = self._words(text.words, text.font, text.weight, text.slant, text.size)
        x, y = lettering.beginning(text)
        place = self._points_per_unit * x + self._move[0], self._points_per_unit * y + self._move[1]
        cosine, sine = direction(text.heading)
        turn = " ".join(number(part, 6) for part in (cosine, sine, -sine, cosine))
        put = f"q {turn} {number(place[0], 3)} {number(place[1], 3)} cm\n".encode()
        return [brush.filling(text.ink), put, words, b"Q\n"]

    def _words(self, words: str, font: str, weight: str, slant: str, size: float) -> bytes:
        """Words in their font from the origin on, laid out by Matplotlib when they are met first."""
        key = words, font, weight, slant, size
        if key not in self._laid_out:
            properties = lettering.font_properties(font, weight, slant).copy()
            properties.set_size(size * self._points_per_unit)
            context = self._renderer.new_gc()
            page = self._file.currentstream
            try:
                # What the letters look like is said elsewhere, so nothing is to be said of it here.
                self._file.currentstream = io.BytesIO()
                self._renderer.check_gc(context, context.get_rgb())
                self._file.currentstream = io.BytesIO()
                shown = lettering.shown_words(words, font, weight, slant)
                self._renderer.draw_text(context, 0, 0, shown, properties, 0)
                self._laid_out[key] = self._file.currentstream.getvalue()
            finally:
                self._file.currentstream = page
        return self._laid_out[key]


def with_cubics(outline: Outline) -> Outline:
    """The same with arcs as cubic Bézier curves over 45° at most, off by 4 millionths of the radius.

    For an arc from P to Q over the angle a, with the derivatives P' and Q' by the angle, the control points
    are P + k·P' and Q - k·Q' with k = 4/3·tan(a/4) (Goldapp, Approximation of circular arcs by cubic
    polynomials, 1991).
    """
    if not len(outline.arcs):
        return outline
    # A cubic has the sweep 0, and is one piece.
    pieces = np.maximum(1, np.ceil(np.abs(outline.arcs["sweep"]) / 45 - 1e-9)).astype(np.int64)
    # Three vertices a piece: two control points and the end.
    cut = outline.subdivided(3 * pieces)
    arcs = outline.arcs[np.repeat(np.arange(len(pieces)), pieces)]
    repeats = np.ones(len(outline.vertices), np.int64)
    repeats[outline.arcs["step"]] = 3 * pieces
    first = (np.cumsum(repeats) - repeats)[outline.arcs["step"]]
    number = ranges(np.zeros(len(pieces), np.int64), pieces)
    places = np.repeat(first, pieces) + 3 * number
    step = arcs["sweep"] / np.repeat(pieces, pieces)
    k = 4 / 3 * np.tan(np.radians(step) / 4)
    u, v = curves.half_axes(arcs)
    for offset, angle, sign in ((0, step * number, 1), (1, step * (number + 1), -1)):
        radians = np.radians(angle)[:, None]
        derivative = v * np.cos(radians) - u * np.sin(radians)
        end = cut.vertices[places - 1] if offset == 0 else cut.vertices[places + 2]
        cut.vertices[places + offset] = end + sign * k[:, None] * derivative
    cubic = curves.is_cubic(arcs)
    starts = cut.vertices[places - 1][cubic]
    cut.vertices[places[cubic]], cut.vertices[places[cubic] + 1] = starts + u[cubic], starts + v[cubic]
    cut.codes[np.add.outer(places, [0, 1, 2])] = CUBIC
    return cut
