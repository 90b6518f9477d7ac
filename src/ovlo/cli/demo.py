"""`ovlo demo`: draw every example that comes with Ovlo.

ovlo demo pictures
"""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli import wording
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import FileTrouble, OvloError
from ovlo.program.examples import example_files
from ovlo.program.loading import load
from ovlo.program.running import run_program

SUFFIXES = (".svg", ".png")


@click.command()
@click.argument("folder", default="ovlo-demo", type=click.Path(file_okay=False, path_type=Path))
def demo(folder: Path) -> None:
    """Draw every example into FOLDER (ovlo-demo), as SVG and PNG."""
    from rich.console import Console
    from rich.table import Table

    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise FileTrouble(f"demo: the folder {folder} cannot be made ({error.strerror}).") from error
    table = Table(title=f"Kite day at Marrow Bay, drawn into {folder}")
    for heading in ("picture", "files", "size"):
        table.add_column(heading, overflow="fold")
    for heading in ("steps", "drawn"):
        table.add_column(heading, justify="right")
    for path in example_files():
        for name, sheet in _drawn(path).items():
            files = [folder / f"{name}{suffix}" for suffix in SUFFIXES]
            for file in files:
                outlets.save(sheet, file)
            table.add_row(
                name,
                ", ".join(SUFFIXES),
                f"{sheet.width:g} × {sheet.height:g} {sheet.unit}",
                f"{len(sheet.trail):,}",
                wording.length(sheet),
            )
    Console().print(table)


def _drawn(path: Path) -> dict[str, Sheet]:
    """The pictures of one example, by name."""
    program = load(str(path))
    pictures = {}
    for name in program.drawings() if program.declares else [""]:
        outcome = run_program(replace(program, name=name))
        if outcome.trouble or outcome.sheet is None:
            raise OvloError(f"{path}: {outcome.trouble}")
        pictures[name or path.stem] = outcome.sheet
    return pictures
