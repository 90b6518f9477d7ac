"""Writing a million steps as SVG and PNG."""

from __future__ import annotations

import io
from collections.abc import Iterator

import numpy as np
from matplotlib.backends.backend_agg import RendererAgg
from matplotlib.path import Path as AggPath
from matplotlib.transforms import Affine2D
from PIL import Image

from bench.harness import Ratio, temporary_folder
from ovlo import Sheet

STEPS = 1_000_000
WIDTH, HEIGHT = 1600, 1200


def wandering_sheet() -> Sheet:
    """A seeded walk with turns of up to ±40°, fitted to the sheet."""
    turns = np.random.default_rng(1).uniform(-40, 40, STEPS)
    trial = Sheet(WIDTH, HEIGHT)
    trial.new_nib().walk(1, turns)
    x, y = trial.trail.x, trial.trail.y
    step = 0.98 * min(WIDTH / np.ptp(x), HEIGHT / np.ptp(y))
    sheet = Sheet(WIDTH, HEIGHT)
    start = -step * (x.max() + x.min()) / 2, -step * (y.max() + y.min()) / 2
    sheet.new_nib(*start).walk(step, turns)
    return sheet


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""
    sheet = wandering_sheet()
    points = np.column_stack([sheet.trail.x, sheet.trail.y])
    folder = temporary_folder()

    def format_and_write() -> None:
        numbers = points.ravel().tolist()
        (folder / "floor.svg").write_text("%.2f " * len(numbers) % tuple(numbers))

    def save_svg() -> None:
        sheet.save(folder / "ours.svg")

    yield Ratio("SVG of 1,000,000 steps", "one %-format, write", 1.5, format_and_write, save_svg)

    def draw_path_and_encode() -> None:
        agg = RendererAgg(WIDTH, HEIGHT, 72)
        context = agg.new_gc()
        context.set_linewidth(2)
        context.set_foreground((0, 0, 0, 1), isRGBA=True)
        context.set_capstyle("round")
        context.set_joinstyle("round")
        agg.draw_path(context, AggPath(points), Affine2D().translate(WIDTH / 2, HEIGHT / 2))
        Image.fromarray(np.asarray(agg.buffer_rgba())).save(io.BytesIO(), "png")

    def save_png() -> None:
        sheet.save(folder / "ours.png")

    yield Ratio(
        "PNG 1600×1200 of the same",
        "one Agg draw_path, encode",
        1.3,
        draw_path_and_encode,
        save_png,
    )
