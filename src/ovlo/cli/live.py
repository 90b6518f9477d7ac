"""`ovlo live`: a page with a control for each parameter, which follows the file as it is saved.

ovlo live kite.py --set sides=5
"""

from __future__ import annotations

from contextlib import suppress

import click

from ovlo.browser.exploring.explorer import explore
from ovlo.cli.options import limit_options, pairs, program_argument, seed_option, set_option
from ovlo.core.values.errors import ProgramFailed
from ovlo.program.loading import load
from ovlo.program.running import Limits


@click.command()
@program_argument
@set_option
@seed_option
@limit_options
@click.option(
    "--port", type=click.IntRange(0, 65535), default=0, help="Of the page on this machine; 0 for any."
)
@click.option("--no-open", is_flag=True, help="Open no browser; print where the page is.")
def live(
    program: str,
    settings: tuple[str, ...],
    seed: int | None,
    step_limit: int,
    time_limit: float | None,
    port: int,
    no_open: bool,
) -> None:
    """Move a drawing's parameters and edit its file; the picture in the browser follows.

    All drawings of the file are offered; their shortcut keys draw them. Press ? in the page for its keys.
    It ends when the page is closed, or with Ctrl-C.
    """
    with suppress(ProgramFailed):  # the page says so, and waits for the file to be mended
        load(program)
    explore(program, pairs(settings, "--set"), seed, Limits(step_limit, time_limit), port, not no_open)
