"""`ovlo live`: a window with a control for each parameter, which follows the file as it is saved.

ovlo live kite.py --set sides=5
"""

from __future__ import annotations

import click

from ovlo.cli.options import limit_options, pairs, program_argument, seed_option, set_option
from ovlo.live.session import Session
from ovlo.live.worker import Request
from ovlo.program.loading import load
from ovlo.program.running import Limits


@click.command()
@program_argument
@set_option
@seed_option
@limit_options
def live(
    program: str,
    settings: tuple[str, ...],
    seed: int | None,
    step_limit: int,
    time_limit: float | None,
) -> None:
    """Watch a drawing, move its parameters, edit its file.

    Without NAME, all drawings of the file are offered; their shortcut keys draw them. Press ? for the keys.
    """
    load(program)
    Session(Request(program, pairs(settings, "--set"), seed, limits=Limits(step_limit, time_limit))).run()
