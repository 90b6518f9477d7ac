"""`ovlo animate`: a drawing as it grows, as a file.

ovlo animate kite.py -o kite.gif --seconds 3 --hold 2
"""

from __future__ import annotations

from functools import partial
from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli.options import Target, loops_option, overlay_option, scale_option
from ovlo.cli.run import Run, saves_files
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import progress
from ovlo.core.paint.timeline import SECONDS
from ovlo.core.sheet.sheet import Sheet
from ovlo.render.files import check_folder, write
from ovlo.render.formats.animation import STAGES, Playback, film_of, writer_of
from ovlo.render.formats.table import is_page

Positive = click.FloatRange(min=0, min_open=True)


@click.command()
@saves_files(
    "File to save: .gif, .apng, .webp, .svg or .html; repeatable. Without it, a GIF named after the program."
)
@click.option(
    "--seconds",
    type=Positive,
    default=SECONDS,
    show_default=True,
    help="Length of the animation, in seconds.",
)
@click.option("--fps", type=Positive, default=25.0, show_default=True, help="Frames per second.")
@click.option(
    "--hold",
    type=click.FloatRange(min=0),
    default=1.0,
    show_default=True,
    help="Seconds to show the last frame.",
)
@click.option("--pointer", is_flag=True, help="Show the pointer: where the nib is and where it points.")
@loops_option
@scale_option
@overlay_option
def animate(
    run: Run,
    seconds: float,
    fps: float,
    hold: float,
    pointer: bool,
    scale: float,
    overlay: tuple[str, ...],
    loops: int,
) -> bool:
    """Save an animation of the drawing as it is drawn.

    Pauses in the program are added to --seconds.
    """
    files = run.files(".gif", _check_target)
    playback = Playback(seconds, fps, hold, pointer, loops, overlay)
    traced = "findings" in overlay or any(file.is_page for file in files)
    return run.save(files, partial(_write, files, playback, scale), traced)


def _check_target(path: Path, call: str) -> None:
    if not is_page(path.suffix):
        writer_of(path.suffix, call)
    check_folder(path, call)


def _write(files: list[Target], playback: Playback, scale: float, sheet: Sheet) -> list[str]:
    """Write the animation; a line about each file."""
    lines = []
    for file in files:
        if file.is_page:
            write(file.path, outlets.playing_page(sheet, playback))
            lines.append(f"{file.name}: a page that plays {playback.seconds:g} s")
            continue
        film = film_of(sheet, playback, scale)
        with progress(STAGES * len(film), f"Animating {file.name}") as advance:
            film.save(file.path, advance)
        lines.append(
            f"{file.name}: {wording.counted(len(film), 'frame')}, {sum(film.seconds):.4g} s, "
            f"{film.page.pixel_width} × {film.page.pixel_height} px"
        )
    return lines
