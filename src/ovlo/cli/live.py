"""`ovlo live`: a page with a control for each parameter, which follows the file as it is saved.

ovlo live kite.py --set sides=5
"""

from __future__ import annotations

from contextlib import suppress

import click

from ovlo.cli.options import limit_options, program_argument, seed_option, set_option
from ovlo.core.values.errors import ProgramFailed
from ovlo.program.loading import load, near_files, split_target
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
@click.option("--read-only", is_flag=True, help="Show the program without letting the page write into it.")
@click.option("--no-open", is_flag=True, help="Print the address of the page instead of opening a browser.")
def live(
    program: str,
    settings: dict[str, str],
    seed: int | None,
    limits: Limits,
    port: int,
    no_open: bool,
    read_only: bool,
) -> None:
    """Open the studio: write the program in the browser and see its picture follow.

    The page has an editor, a control for each parameter of the drawing, and the findings. The picture follows
    what you type there, and the file when you save it elsewhere. A FILE that does not exist yet is made when
    you save. Press ? on the page for its shortcuts. The command ends when the page is closed, or with Ctrl-C.
    """
    path, name, _ = split_target(program)
    if not name and path.suffix == ".py" and not path.exists() and path.parent.is_dir():
        click.echo(f"{path} does not exist yet{near_files(path)}; it is made when you save.")
    else:
        with suppress(ProgramFailed):  # the page says so, and waits for the program to be corrected
            load(program)
    explore(program, settings, seed, limits, port, not no_open, read_only)
