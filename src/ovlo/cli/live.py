"""`ovlo live`: a page with a control for each parameter, which follows the file as it is saved.

ovlo live kite.py --set sides=5
"""

from __future__ import annotations

from contextlib import suppress

import click

from ovlo.cli.options import limit_options, program_argument, seed_option, set_option
from ovlo.core.values.errors import ProgramFailed
from ovlo.program.loading import load
from ovlo.program.running import Limits
from ovlo.studio.exploring.explorer import explore


@click.command()
@program_argument
@set_option
@seed_option
@limit_options
@click.option(
    "--port", type=click.IntRange(0, 65535), default=0, help="Local port to serve on; 0 picks a free one."
)
@click.option("--no-open", is_flag=True, help="Print the address of the page instead of opening a browser.")
def live(
    program: str,
    settings: dict[str, str],
    seed: int | None,
    limits: Limits,
    port: int,
    no_open: bool,
) -> None:
    """Open a page with a control for each parameter; the picture follows, also when you save the file.

    The page offers all drawings of the file; press ? there for its shortcuts. The command ends when the page
    is closed, or with Ctrl-C.
    """
    with suppress(ProgramFailed):  # the page says so, and waits for the file to be corrected
        load(program)
    explore(program, settings, seed, limits, port, not no_open)
