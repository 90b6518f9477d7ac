"""A drawing's parameters at the terminal: `ovlo draw --list` shows them, `ovlo draw --ask` asks for each."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace
from pathlib import Path

import click

from ovlo.cli.options import Target
from ovlo.cli.run import Run
from ovlo.cli.speech.saying import say
from ovlo.core.values.errors import BadUse, OvloError
from ovlo.program.loading import AnyDrawing, Program
from ovlo.program.parameters import MISSING, Parameter, typed
from ovlo.program.running import telling_where


def show_list(program: Program) -> None:
    """Print every drawing with its parameters, or the one named."""
    if not program.declares:
        say(f"{program.path} is a script: it has no drawings and no parameters.")
        return
    with telling_where():
        found = program.drawings()
        chosen = [program.drawing()] if program.name else list(found.values())
    if not chosen:
        raise BadUse(f"{program.path} defines no drawing at its top level.")
    say("\n\n".join(_described(drawing) for drawing in chosen))


def _described(drawing: AnyDrawing) -> str:
    summary = (drawing.__doc__ or "").strip().splitlines()
    rows = [_row(parameter) for parameter in drawing._parameters.values()]
    widths = [max((len(row[i]) for row in rows), default=0) for i in range(2)]
    head = f"{drawing._name}: {summary[0]}" if summary else drawing._name
    lines = [f"  {name:{widths[0]}}  {allowed:{widths[1]}}  {default}" for name, allowed, default in rows]
    return "\n".join([head, *(line.rstrip() for line in lines)])


def _row(parameter: Parameter) -> tuple[str, str, str]:
    if not parameter.kind.is_typed:
        return parameter.name, parameter.allowed, "only a program can set it"
    default = "must be given" if parameter.default is MISSING else f"default {parameter.shown_default}"
    return parameter.name, parameter.allowed, default


def draw_each(run: Run, targets: list[Target], draw: Callable[[Run, list[Target]], bool]) -> bool:
    """Ask and draw until no more pictures are wanted; each further one has a number in its file name."""
    program, given = run.program, run.settings
    if not program.declares:
        raise BadUse(f"{program.path} is a script, which has no parameters to ask for.")
    with telling_where():
        drawing = program.drawing()
    drawing._read(given)
    number, went_well = 1, True
    with suppress(click.Abort):  # the answers have come to an end
        while True:
            files = [_numbered(target, number) for target in targets]
            went_well = draw(replace(run, settings=given | ask_all(drawing, given)), files) and went_well
            if not click.confirm("Draw another?", default=False):
                return went_well
            number += 1
    say("")
    return went_well


def ask_all(drawing: AnyDrawing, given: dict[str, str]) -> dict[str, str]:
    """An answer for each parameter that is not given yet."""
    return {
        name: _ask(parameter, drawing._name)
        for name, parameter in typed(drawing._parameters).items()
        if name not in given
    }


def _ask(parameter: Parameter, call: str) -> str:
    default = None if parameter.default is MISSING else parameter.shown_default
    while True:
        answer: str = click.prompt(f"{parameter.name} ({parameter.allowed})", default=default, type=str)
        try:
            parameter.read(answer, call)
        except OvloError as error:
            say(f"  {error}")
            continue
        return answer


def _numbered(target: Target, number: int) -> Target:
    if number == 1:
        return target
    name = Path(target.name)
    stem = f"{name.stem}-{number}"
    return Target(str(name.with_stem(stem)), target.path.with_stem(stem))
