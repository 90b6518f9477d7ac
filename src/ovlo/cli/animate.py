"""`ovlo animate`: a drawing as it grows, as a file.

ovlo animate kite.py -o kite.gif --seconds 3 --hold 2
"""

from __future__ import annotations

from pathlib import Path

import click

from ovlo.cli import wording
from ovlo.cli.options import (
    limit_options,
    output_option,
    pairs,
    program_argument,
    scale_option,
    seed_option,
    set_option,
)
from ovlo.core.paint.timeline import SECONDS
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program
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
@scale_option
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
    outcome = run_program(loaded, pairs(settings, "--set"), seed, Limits(step_limit, time_limit))
    if outcome.trouble:
        click.echo(outcome.trouble, err=True)
    if outcome.sheet is not None:
        if made := wording.made_with(outcome.sheet):
            click.echo(made)
        pace = Pace(seconds, fps, hold, pointer)
        for target in targets:
            film = film_of(outcome.sheet, pace, scale)
            with click.progressbar(length=len(film), label=f"Animating {target}") as progress:
                film.save(target, progress.update)
            click.echo(
                f"{target}: {wording.counted(len(film), 'frame')}, {sum(film.seconds):.4g} s, "
                f"{film.page.pixel_width} × {film.page.pixel_height} px"
            )
    if outcome.trouble:
        raise SystemExit(1)
