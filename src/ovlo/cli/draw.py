"""`ovlo draw`: run a program and save its picture.

ovlo draw kites.py:row_of_kites -o kites.svg -o kites.png
"""

from __future__ import annotations

from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli.wording import account
from ovlo.program.loading import load
from ovlo.program.running import run


@click.command()
@click.argument("program", metavar="FILE[:NAME]")
@click.option(
    "--output",
    "-o",
    "outputs",
    multiple=True,
    metavar="OUT",
    help="Where to save the picture: .svg or .png; may be given several times. "
    "Without it, an SVG named after the program, in this folder.",
)
@click.option("--scale", default=1.0, show_default=True, help="How many times as large.")
def draw(program: str, outputs: tuple[str, ...], scale: float) -> None:
    """Run a program and save its picture.

    FILE is a Python file; NAME picks one of several drawings in it.
    """
    loaded = load(program)
    targets = [Path(output) for output in outputs] or [Path(f"{loaded.name or loaded.path.stem}.svg")]
    for target in targets:
        outlets.check_target(target)
    outcome = run(loaded)
    if outcome.trouble:
        click.echo(outcome.trouble, err=True)
    if outcome.sheet_count > 1:
        click.echo(f"{loaded.path} made {outcome.sheet_count} sheets; this is the last one.")
    if outcome.sheet is not None:
        if outcome.trouble:
            click.echo("The picture so far:")
        for target in targets:
            outlets.save(outcome.sheet, target, scale)
            click.echo(account(target, outcome.sheet))
    if outcome.trouble:
        raise SystemExit(1)
