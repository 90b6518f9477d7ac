"""`ovlo animate`: a drawing as it grows, as a file.

ovlo animate kite.py -o kite.gif --seconds 3 --hold 2
"""

from __future__ import annotations

from functools import partial
from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli.options import (
    Target,
    limit_options,
    loops_option,
    output_option,
    overlay_names,
    overlay_option,
    pairs,
    program_argument,
    scale_option,
    seed_option,
    set_option,
    targets,
)
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import progress, say, tell_empty, tell_trouble
from ovlo.core.paint.timeline import SECONDS
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.processes.rescue import guarded
from ovlo.program.running import Limits, run_program
from ovlo.render.files import check_folder, write
from ovlo.render.formats.animation import Playback, film_of, writer_of
from ovlo.render.formats.table import is_page

Positive = click.FloatRange(min=0, min_open=True)


@click.command()
@program_argument
@output_option(
    "File to save: .gif, .apng, .webp, .svg or .html; repeatable. Without it, a GIF named after the program."
)
@set_option
@seed_option
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
@limit_options
def animate(
    program: str,
    outputs: tuple[str, ...],
    seconds: float,
    fps: float,
    hold: float,
    pointer: bool,
    settings: tuple[str, ...],
    seed: int | None,
    scale: float,
    overlay: str,
    loops: int,
    step_limit: int,
    time_limit: float | None,
) -> None:
    """Save an animation of the drawing as it is drawn.

    Pauses in the program are added to --seconds.
    """
    loaded = load(program)
    files = targets(outputs, f"{loaded.name or loaded.path.stem}.gif", _check_target, loaded.path)
    playback = Playback(seconds, fps, hold, pointer, loops, overlay_names(overlay))
    given, bounds = pairs(settings, "--set"), Limits(step_limit, time_limit)
    conclusion = partial(_conclude, files, playback, scale, seed)
    traced = "findings" in playback.overlay or any(file.is_page for file in files)
    if not conclusion(run_program(loaded, given, seed, bounds, traced, partial(guarded, conclusion))):
        raise SystemExit(1)


def _check_target(path: Path, call: str) -> None:
    if not is_page(path.suffix):
        writer_of(path.suffix, call)
    check_folder(path, call)


def _conclude(
    files: list[Target], playback: Playback, scale: float, seed: int | None, outcome: Outcome
) -> bool:
    """Write the animation, then say what there is to say; whether all went well."""
    done = []
    if outcome.sheet is not None and not outcome.has_failed_empty:
        for file in files:
            if file.is_page:
                write(file.path, outlets.playing_page(outcome.sheet, playback))
                done.append(f"{file.name}: a page that plays {playback.seconds:g} s")
                continue
            film = film_of(outcome.sheet, playback, scale)
            with progress(len(film), f"Animating {file.name}") as advance:
                film.save(file.path, advance)
            done.append(
                f"{file.name}: {wording.counted(len(film), 'frame')}, {sum(film.seconds):.4g} s, "
                f"{film.page.pixel_width} × {film.page.pixel_height} px"
            )
    tell_trouble(outcome, seed)
    if outcome.has_failed_empty:
        tell_empty(files)
    elif outcome.sheet is not None and (made := wording.made_with(outcome.sheet)):
        say(made)
    for line in done:
        say(line)
    return not outcome.trouble
