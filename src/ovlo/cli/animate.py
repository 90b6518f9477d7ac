"""`ovlo animate`: a drawing as it grows, as a file.

ovlo animate kite.py -o kite.gif --seconds 3 --hold 2
"""

from __future__ import annotations

from pathlib import Path

import click

from ovlo.cli import wording
from ovlo.cli.options import (
    limit_options,
    loops_option,
    output_option,
    overlay_option,
    pairs,
    program_argument,
    scale_option,
    seed_option,
    set_option,
)
from ovlo.cli.saying import say, tell_trouble
from ovlo.core.paint.timeline import SECONDS
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program
from ovlo.render.additions.overlays import checked_overlays
from ovlo.render.files import check_folder
from ovlo.render.formats.animation import Pace, film_of, writer_of

Positive = click.FloatRange(min=0, min_open=True)


@click.command()
@program_argument
@output_option(
    "Where to save it: .gif, .apng, .webp or .svg; repeatable. Without it, a GIF named after the program."
)
@set_option
@seed_option
@click.option("--seconds", type=Positive, default=SECONDS, show_default=True, help="How long it draws.")
@click.option("--fps", type=Positive, default=25.0, show_default=True, help="Frames a second.")
@click.option(
    "--hold",
    type=click.FloatRange(min=0),
    default=1.0,
    show_default=True,
    help="Seconds the last frame stays.",
)
@click.option("--pointer", is_flag=True, help="Show the pointer of the nib: where it is and where it points.")
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
    """Show how a drawing grows, in a file that plays by itself.

    Where the program pauses, the animation holds, which comes on top of --seconds.
    """
    loaded = load(program)
    targets = [Path(output) for output in outputs] or [Path(f"{loaded.name or loaded.path.stem}.gif")]
    for target in targets:
        writer_of(target.suffix, "-o")
        check_folder(target, "-o")
    names = checked_overlays(overlay, "--overlay")
    given, bounds = pairs(settings, "--set"), Limits(step_limit, time_limit)
    outcome = run_program(loaded, given, seed, bounds, traced="findings" in names)
    tell_trouble(outcome, seed)
    if outcome.sheet is not None:
        if made := wording.made_with(outcome.sheet):
            say(made)
        pace = Pace(seconds, fps, hold, pointer, loops, names)
        for target in targets:
            film = film_of(outcome.sheet, pace, scale)
            with click.progressbar(length=len(film), label=f"Animating {target}") as progress:
                film.save(target, progress.update)
            say(
                f"{target}: {wording.counted(len(film), 'frame')}, {sum(film.seconds):.4g} s, "
                f"{film.page.pixel_width} × {film.page.pixel_height} px"
            )
    if outcome.trouble:
        raise SystemExit(1)
