"""`ovlo draw --list`: the drawings in a file and their parameters."""

from __future__ import annotations

import click

from ovlo.core.values.errors import BadUse
from ovlo.program.loading import AnyDrawing, Program
from ovlo.program.parameters import MISSING, Parameter
from ovlo.program.running import telling_where


def show(program: Program) -> None:
    """Print every drawing with its parameters, or the one named."""
    if not program.declares:
        click.echo(f"{program.path} is a script: it has no drawings, and is run as it stands.")
        return
    with telling_where():
        found = program.drawings()
        chosen = [program.drawing()] if program.name else list(found.values())
    if not chosen:
        raise BadUse(f"{program.path} declares no drawing at its top level.")
    click.echo("\n\n".join(_described(drawing) for drawing in chosen))


def _described(drawing: AnyDrawing) -> str:
    summary = (drawing.__doc__ or "").strip().splitlines()
    rows = [_row(parameter) for parameter in drawing._parameters.values()]
    widths = [max((len(row[i]) for row in rows), default=0) for i in range(2)]
    head = f"{drawing._name}: {summary[0]}" if summary else drawing._name
    lines = [f"  {name:{widths[0]}}  {allowed:{widths[1]}}  {default}" for name, allowed, default in rows]
    return "\n".join([head, *(line.rstrip() for line in lines)])


def _row(parameter: Parameter) -> tuple[str, str, str]:
    default = "must be given" if parameter.default is MISSING else f"default {parameter.shown_default}"
    return parameter.name, parameter.allowed, default
