"""Animations against Pillow's encoding alone."""

from __future__ import annotations

import io
from collections.abc import Iterator

from bench.harness import Ratio, temporary_folder
from ovlo import Nib, Sheet
from ovlo.render.formats.animation import Playback, film_of

STEPS = 10_000


def walk(nib: Nib) -> None:
    """Irregular angles, all over the sheet."""
    for i in range(STEPS):
        nib.forward(3 + i % 11 * 0.37)
        nib.left(i * i % 7919 * 0.017)


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""
    sheet = Sheet(640, 480, paper="aliceblue")
    walk(sheet.new_nib())
    film = film_of(sheet, Playback(seconds=4.8, fps=25, hold=0))
    frames = list(film)
    target = temporary_folder() / "walk.gif"

    def encode() -> None:
        first, *others = frames
        first.save(io.BytesIO(), "GIF", save_all=True, append_images=others, duration=40, loop=0)

    yield Ratio(
        "GIF of 120 frames 640×480, 10,000 steps",
        "Pillow encoding those frames",
        3,
        encode,
        lambda: film.save(target),
    )
