"""Matplotlib's compiled rasteriser by itself, without the package around it.

agg = new_agg(640, 480)
agg.draw_path(manner, Path(vertices, codes), transform, face)

The package takes half a second to load, its compiled part a hundredth of that. It is loaded by its file, and
told of lines and colours by objects that have just what it asks for. Where that is not as it was when this
was written, the package's own renderer is used, which is slower to load and draws the same.
"""

from __future__ import annotations

import importlib.util
import sys
from collections.abc import Sequence
from functools import lru_cache
from importlib.machinery import EXTENSION_SUFFIXES
from pathlib import Path as FilePath
from types import ModuleType
from typing import Any, Protocol

import numpy as np

from ovlo.core.trail.columns import Style
from ovlo.core.values.arrays import Bytes, Floats
from ovlo.core.values.colour import Colour

Codes = Bytes
Face = tuple[float, float, float, float]

COMPILED = "_backend_agg"
"""What the compiled part is called."""

CAPS = {"butt": "butt", "round": "round", "square": "projecting"}
"""SVG's words for the ends of lines, and Matplotlib's."""

DOTS_PER_INCH = 72.0
"""At which Matplotlib's points are pixels."""


class Agg(Protocol):
    """What draws paths on pixels."""

    def draw_path(self, gc: Any, path: Any, transform: Any, face: Face | None, /) -> None:
        """Draw a path's line, and fill it if there is a face."""

    def draw_path_collection(self, *what: Any, **more: Any) -> None:
        """Draw many paths, each with its own face, colour and width."""

    def clear(self) -> None:
        """Make all pixels clear."""


class Path:
    """A path as the rasteriser asks for it; without codes it is one line, which may be thinned out."""

    __slots__ = ("codes", "should_simplify", "simplify_threshold", "vertices")

    def __init__(
        self, vertices: Floats, codes: Codes | None, should_simplify: bool = False, threshold: float = 1 / 9
    ) -> None:
        self.vertices = vertices
        self.codes = codes
        self.should_simplify = should_simplify
        self.simplify_threshold = threshold


class Manner:
    """How lines are drawn, as the rasteriser asks for it."""

    _alpha = 1.0
    _forced_alpha = False
    _antialiased = 1

    def __init__(
        self,
        style: Style,
        pixels_per_unit: float,
        clip: tuple[float, float, float, float] | None = None,
    ) -> None:
        self._rgb = rgba(style.ink)
        self._linewidth = style.line_width * pixels_per_unit
        self._capstyle = CAPS[style.line_cap]
        self._joinstyle = style.line_join
        self._dashes = dashes(style, pixels_per_unit)
        self._cliprect = None if clip is None else np.reshape(clip, (2, 2)).astype(float)

    def get_dashes(self) -> tuple[float, Sequence[float] | None]:
        """Where a pattern of dashes begins, and its lengths."""
        return self._dashes

    def get_clip_path(self) -> tuple[None, None]:
        """No other border than the rectangle."""
        return None, None

    def get_snap(self) -> bool:
        """Nothing is moved to whole pixels."""
        return False

    def get_hatch_path(self) -> None:
        """No hatching."""

    def get_hatch_color(self) -> Face:
        """Of no hatching."""
        return 0.0, 0.0, 0.0, 1.0

    def get_hatch_linewidth(self) -> float:
        """Of no hatching."""
        return 1.0

    def get_sketch_params(self) -> None:
        """Lines are as they are."""


def matrix(left: float, bottom: float, scale: float) -> Floats:
    """From sheet units to pixels, y up."""
    return np.array([[scale, 0, -left * scale], [0, scale, -bottom * scale], [0, 0, 1.0]])


def new_agg(width: int, height: int) -> Agg:
    """A rasteriser for so many pixels, all of them clear; as an array it has the shape (height, width, 4)."""
    module = _compiled()
    if module is None:
        return _Whole(width, height)
    agg: Agg = module.RendererAgg(width, height, DOTS_PER_INCH)
    return agg


@lru_cache(maxsize=1)
def _compiled() -> ModuleType | None:
    """The compiled part, if it is there and draws what it should."""
    name = f"matplotlib.backends.{COMPILED}"
    module = sys.modules.get(name) or _loaded(name)
    return module if module is not None and _draws(module) else None


def _loaded(name: str) -> ModuleType | None:
    """The compiled part by its file; the package finds it by its name, since its types exist only once."""
    found = importlib.util.find_spec("matplotlib")
    folders = found.submodule_search_locations if found is not None else None
    backends = [FilePath(one) / "backends" for one in folders or ()]
    names = [folder / f"{COMPILED}{ending}" for folder in backends for ending in EXTENSION_SUFFIXES]
    files = [file for file in names if file.is_file()]
    spec = importlib.util.spec_from_file_location(name, files[0]) if files else None
    if spec is None or spec.loader is None:
        return None
    try:
        module = importlib.util.module_from_spec(spec)
        spec.loader.exec_module(module)
    except ImportError:
        return None
    sys.modules[name] = module
    return module


def _draws(module: ModuleType) -> bool:
    """Whether a rasteriser takes what we tell it, by a small square."""
    square = Path(np.array([[1.0, 1], [3, 1], [3, 3], [1, 3]]), np.array([1, 2, 2, 2], np.uint8))
    try:
        agg = module.RendererAgg(4, 4, DOTS_PER_INCH)
        agg.draw_path(Manner(Style(line_width=0), 1.0), square, np.eye(3), (1.0, 0.0, 0.0, 1.0))
        shown = np.asarray(agg)
    except (AttributeError, TypeError, ValueError):
        return False
    return shown.shape == (4, 4, 4) and shown[1, 1].tolist() == [255, 0, 0, 255] and not shown[0, :, 3].any()


class _Whole:
    """The package's own renderer, told of the same things."""

    def __init__(self, width: int, height: int) -> None:
        from matplotlib.backends.backend_agg import RendererAgg

        self._renderer: Any = RendererAgg(width, height, DOTS_PER_INCH)

    def __array__(self, dtype: object = None, copy: bool | None = None) -> Bytes:
        return np.asarray(self._renderer.buffer_rgba())

    def clear(self) -> None:
        """Make all pixels clear."""
        self._renderer.clear()

    def draw_path(self, gc: Any, path: Any, transform: Any, face: Face | None, /) -> None:
        """Draw a path's line, and fill it if there is a face."""
        from matplotlib.transforms import Affine2D

        self._renderer.draw_path(self._context(gc), self._path(path), Affine2D(transform), face)

    def draw_path_collection(self, *what: Any, **more: Any) -> None:
        """Draw many paths, each with its own face, colour and width."""
        from matplotlib.transforms import Affine2D

        gc, transform, paths, *rest = what
        rest[2] = Affine2D(rest[2])
        self._renderer.draw_path_collection(
            self._context(gc), Affine2D(transform), [self._path(path) for path in paths], *rest, **more
        )

    def _context(self, manner: Manner) -> Any:
        from matplotlib.transforms import Bbox

        context = self._renderer.new_gc()
        context.set_foreground(manner._rgb, isRGBA=True)
        context.set_linewidth(manner._linewidth)
        context.set_dashes(*manner._dashes)
        context.set_capstyle(manner._capstyle)
        context.set_joinstyle(manner._joinstyle)
        context.set_snap(False)
        if manner._cliprect is not None:
            context.set_clip_rectangle(Bbox(manner._cliprect))
        return context

    @staticmethod
    def _path(path: Path) -> Any:
        from matplotlib.path import Path as WholePath

        whole: Any = WholePath(path.vertices, path.codes)
        whole.should_simplify, whole.simplify_threshold = path.should_simplify, path.simplify_threshold
        return whole


def dashes(style: Style, pixels_per_unit: float) -> tuple[float, list[float] | None]:
    """A dash pattern as Matplotlib wants it: where it begins, and its lengths if there are any."""
    return 0.0, [length * pixels_per_unit for length in style.line_dash] or None


def rgba(colour: Colour) -> Face:
    """A colour with all channels from 0 to 1."""
    return colour.red / 255, colour.green / 255, colour.blue / 255, colour.opacity
