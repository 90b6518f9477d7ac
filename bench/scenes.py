"""Scenes of many colours: inks and filled shapes, as PNG and SVG."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterator
from pathlib import Path

import numpy as np
from matplotlib.backends.backend_agg import RendererAgg
from matplotlib.path import Path as AggPath
from matplotlib.transforms import Affine2D, IdentityTransform
from numpy.typing import NDArray
from PIL import Image

from bench.harness import Ratio, temporary_folder
from ovlo import Colour, Sheet

INKS = 100_000
POLYGONS = 10_000
WIDTH, HEIGHT = 1280, 800
MIDDLE = Affine2D().translate(WIDTH / 2, HEIGHT / 2)


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""
    folder = temporary_folder()
    yield _many_inks(folder)
    yield from _many_polygons(folder)


def _many_inks(folder: Path) -> Ratio:
    generator = np.random.default_rng(2)
    points = generator.uniform(-380, 380, (INKS + 1, 2))
    points[1:] = points[:-1] + generator.uniform(-8, 8, (INKS, 2))
    colours = generator.integers(0, 256, (INKS, 3))
    sheet = Sheet(WIDTH, HEIGHT)
    nib = sheet.new_nib(*points[0].tolist())
    for point, colour in zip(points[1:].tolist(), colours.tolist(), strict=True):
        nib.ink = Colour(*colour)
        nib.line_to(point)

    def one_collection() -> None:
        agg, context = _agg(2)
        segments = np.stack([points[:-1], points[1:]], axis=1)
        inks = np.column_stack([colours / 255, np.ones(INKS)])
        draw: Callable[..., None] = agg.draw_path_collection
        draw(
            context,
            MIDDLE,
            [AggPath(segment) for segment in segments],
            np.empty((0, 3, 3)),
            np.empty((0, 2)),
            IdentityTransform(),
            np.empty((0, 4)),
            inks,
            [2.0],
            [(0, None)],
            [True],
            [None],
            "data",
            hatchcolors=np.empty((0, 4)),
        )
        _encode(agg)

    return Ratio(
        "PNG of 100,000 steps, each in another ink",
        "one draw_path_collection, encode",
        1.5,
        one_collection,
        lambda: sheet.save(folder / "inks.png"),
    )


def _many_polygons(folder: Path) -> Iterator[Ratio]:
    generator = np.random.default_rng(3)
    centres = generator.uniform(-400, 400, (POLYGONS, 2))
    colours = generator.integers(0, 256, (POLYGONS, 3))
    sheet = Sheet(WIDTH, HEIGHT)
    nib = sheet.new_nib()
    for centre, colour in zip(centres.tolist(), colours.tolist(), strict=True):
        nib.travel_to(centre)
        nib.polygon(12, radius=20, fill=Colour(*colour))
    angles = np.arange(13) * np.pi / 6
    ring = 20 * np.column_stack([np.cos(angles), np.sin(angles)])
    polygons: NDArray[np.float64] = centres[:, None] + ring
    codes = np.array([1] + [2] * 11 + [79], np.uint8)

    def path_by_path() -> None:
        agg, context = _agg(2)
        for polygon, colour in zip(polygons, (colours / 255).tolist(), strict=True):
            agg.draw_path(context, AggPath(polygon, codes), MIDDLE, (*colour, 1.0))
        _encode(agg)

    yield Ratio(
        "PNG of 10,000 filled 12-gons with outlines",
        "Agg draw_path for each, encode",
        1.5,
        path_by_path,
        lambda: sheet.save(folder / "polygons.png"),
    )

    def plain_formatting() -> None:
        pattern = "M" + " ".join(["%.2f %.2f"] * 12) + "Z"
        look = 'stroke="#000000" stroke-width="2" stroke-linecap="round" stroke-linejoin="round"'
        parts = [
            f'<path d="{pattern % tuple(numbers)}" fill="#{red:02x}{green:02x}{blue:02x}" {look}/>\n'
            for numbers, (red, green, blue) in zip(
                (polygons[:, :12] * [1, -1]).reshape(POLYGONS, 24).tolist(), colours.tolist(), strict=True
            )
        ]
        (folder / "floor.svg").write_text("<svg>" + "".join(parts) + "</svg>")

    yield Ratio(
        "SVG of the same 10,000",
        "plain formatting of the same paths",
        2.0,
        plain_formatting,
        lambda: sheet.save(folder / "polygons.svg"),
    )


def _agg(line_width: float):  # type: ignore[no-untyped-def]
    agg = RendererAgg(WIDTH, HEIGHT, 72)
    context = agg.new_gc()
    context.set_linewidth(line_width)
    context.set_foreground((0, 0, 0, 1), isRGBA=True)
    context.set_capstyle("round")
    context.set_joinstyle("round")
    return agg, context


def _encode(agg: RendererAgg) -> None:
    Image.fromarray(np.asarray(agg.buffer_rgba())).convert("RGB").save(io.BytesIO(), "png")
