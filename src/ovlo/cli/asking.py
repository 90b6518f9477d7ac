"""`ovlo draw --ask`: a prompt for each parameter, and another picture if wanted."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import click

from ovlo.core.values.errors import BadUse, OvloError
from ovlo.program.loading import AnyDrawing, Program
from ovlo.program.parameters import MISSING, Parameter
from ovlo.program.running import telling_where

Draw = Callable[[dict[str, str], list[Path]], bool]


def draw_each(program: Program, given: dict[str, str], targets: list[Path], draw: Draw) -> None:
    """Ask and draw until no more pictures are wanted; each further one has a number in its file name."""
    if not program.declares:
        raise BadUse(f"{program.path} is a script, which has no parameters to ask for.")
    with telling_where():
        drawing = program.drawing()
    drawing._read(given)
    number, went_well = 1, True
    while True:
        files = [_numbered(target, number) for target in targets]
        went_well = draw(given | ask_all(drawing, given), files) and went_well
        if not click.confirm("Draw another?", default=False):
            break
        number += 1
    if not went_well:
        raise SystemExit(1)


def ask_all(drawing: AnyDrawing, given: dict[str, str]) -> dict[str, str]:
    """An answer for each parameter that is not given yet."""
    return {
        name: _ask(parameter, drawing._name)
        for name, parameter in drawing._parameters.items()
        if name not in given
    }


def _ask(parameter: Parameter, call: str) -> str:
    default = None if parameter.default is MISSING else parameter.shown_default
    while True:
        answer: str = click.prompt(f"{parameter.name} ({parameter.allowed})", default=default, type=str)
        try:
            parameter.read(answer, call)
        except OvloError as error:
            click.echo(f"  {error}")
            continue
        return answer


def _numbered(path: Path, number: int) -> Path:
    return path if number == 1 else path.with_stem(f"{path.stem}-{number}")
