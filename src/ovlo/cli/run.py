"""What every command that runs a program shares: its options, the run within limits, and how it ends.

@click.command()
@runs_program
def steps(run: Run) -> None:
    run.conclude(print_steps, traced=True)
"""

from __future__ import annotations

import functools
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from typing import Any

from ovlo.cli.options import (
    Decorated,
    Target,
    limit_options,
    output_option,
    program_argument,
    seed_option,
    set_option,
    targets,
)
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import say, tell_empty, tell_trouble
from ovlo.core.sheet.sheet import Sheet
from ovlo.program.loading import Program, load
from ovlo.program.outcome import Outcome
from ovlo.program.processes.rescue import Conclusion, guarded
from ovlo.program.running import Limits, run_program

Write = Callable[[Sheet], list[str]]
"""What writes the files of a picture, and returns a line about each of them. It can be pickled."""


@dataclass(frozen=True)
class Run:
    """A run of a program that a command asks for.

    Attributes
    ----------
    target : str
        `FILE[:NAME]`.
    settings : dict of str to str
        The values of `--set`.
    seed : int or None
        The value of `--seed`.
    limits : Limits
    outputs : tuple of str
        The values of `-o`.
    """

    target: str
    settings: dict[str, str] = field(default_factory=dict)
    seed: int | None = None
    limits: Limits = field(default_factory=Limits)
    outputs: tuple[str, ...] = ()

    @functools.cached_property
    def program(self) -> Program:
        """The program, read and compiled when it is first asked for."""
        return load(self.target)

    def __reduce__(self) -> tuple[object, ...]:
        """Compiled programs cannot be sent to other processes; this one is read there again."""
        return Run, (self.target, self.settings, self.seed, self.limits, self.outputs)

    def files(self, ending: str, check: Callable[[Path, str], object]) -> list[Target]:
        """The files of `-o`, each checked; by default one named after the program, with this ending."""
        name = self.program.name or self.program.path.stem
        return targets(self.outputs, f"{name}{ending}", check, self.program.path)

    def outcome(self, conclusion: Conclusion, traced: bool = False) -> Outcome:
        """Run the program; if its process cannot get out of it, another one calls the conclusion."""
        keeping = partial(guarded, conclusion)
        return run_program(self.program, self.settings, self.seed, self.limits, traced, keeping)

    def conclude(self, conclusion: Callable[[Outcome], bool], traced: bool = False) -> bool:
        """Run the program and call the conclusion, which can be pickled; whether all went well."""
        return conclusion(self.outcome(conclusion, traced))

    def save(
        self, files: Sequence[Target], write: Write, traced: bool = False, noun: str = "picture"
    ) -> bool:
        """Run the program, write its picture, and then say what there is to say; whether all went well."""
        return self.conclude(partial(_saved, str(self.program.path), self.seed, files, write, noun), traced)


def runs_program(command: Decorated, argument: Decorated = program_argument) -> Decorated:
    """Give a command the program, `--set`, `--seed` and the limits, and hand it the `Run` they describe."""

    @functools.wraps(command)
    def run(
        program: str,
        settings: dict[str, str],
        seed: int | None,
        limits: Limits,
        outputs: tuple[str, ...] = (),
        **options: Any,
    ) -> None:
        if command(Run(program, settings, seed, limits, outputs), **options) is False:
            raise SystemExit(1)

    # Options are listed in help in reverse order of their decorators: the limits are to be the last.
    own = getattr(run, "__click_params__", [])
    run.__click_params__ = []  # type: ignore[attr-defined]
    limited = limit_options(run)
    limited.__click_params__.extend(own)  # type: ignore[attr-defined]
    whole: Decorated = argument(set_option(seed_option(limited)))
    return whole


def saves_files(words: str, argument: Decorated = program_argument) -> Callable[[Decorated], Decorated]:
    """The same for a command that writes files; `words` are the help of `-o`."""
    return lambda command: output_option(words)(runs_program(command, argument))


def _saved(
    program: str, seed: int | None, files: Sequence[Target], write: Write, noun: str, outcome: Outcome
) -> bool:
    """Write the picture of a run before anything is said about it."""
    lines = []
    sheet = outcome.sheet
    if sheet is not None and not outcome.has_failed_empty:
        lines = write(sheet)
    tell_trouble(outcome, seed)
    if outcome.has_failed_empty:
        tell_empty(files)
        return False
    if outcome.sheet_count > 1:
        say(f"{program} made {outcome.sheet_count} sheets; the {noun} is the last one.")
    if sheet is not None and (made := wording.made_with(sheet)):
        say(made)
    if sheet is not None and outcome.trouble:
        say(f"The {noun} so far:")
    for line in lines:
        say(line)
    return not outcome.trouble
