"""Scenes that were written before the rules which are tried on them: `python -m recall.aside [WORD …]`.

Each file of `recall/aside/` is a scene as it is meant, with changes of one place that make it wrong, and
others that leave it right. They stay out of sight while rules are made.
"""

from __future__ import annotations

import os
import re
import sys
import tempfile
import tomllib
import warnings
from collections import Counter
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import NamedTuple

from rich.console import Console
from rich.table import Table

from ovlo import outlets
from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program

SCENES = Path(__file__).parent / "aside"

NEAR = 2
"""Lines that a finding may be from the changed one."""


class Variant(NamedTuple):
    """A program: its kind ("" where it is right), its text, and the lines that were changed."""

    name: str
    kind: str
    text: str
    lines: range


def variants(words: Sequence[str]) -> Iterator[Variant]:
    """All programs of the scenes whose names hold a word, or of all."""
    for path in sorted(SCENES.glob("*.toml")):
        if words and not any(word in path.stem for word in words):
            continue
        scene = tomllib.loads(path.read_text(encoding="utf-8"))
        program = scene["program"]
        yield Variant(path.stem, "", program, range(0))
        for number, change in enumerate((*scene["wrong"], *scene["right"]), 1):
            if program.count(change["old"]) != 1:
                raise ValueError(f"{path.name}, change {number}: what is to be changed is not there once")
            before, _, _ = program.partition(change["old"])
            first = before.count("\n") + 1
            lines = range(first, first + change["new"].count("\n") + 1)
            text = program.replace(change["old"], change["new"])
            yield Variant(f"{path.stem} {number}", change.get("kind", ""), text, lines)


def findings(text: str, folder: Path) -> tuple[list[Finding], set[int]]:
    """What a check says of a program, and the lines that its error and its warnings name."""
    path = folder / "scene.py"
    path.write_text(text, encoding="utf-8")
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        outcome = run_program(
            load(str(path)), {}, 7 if "dice" in text else None, Limits(100_000, 20), traced=True
        )
    words = " ".join((outcome.trouble, *outcome.notices))
    failed = {int(line) for line in re.findall(r"line (\d+)", words)}
    return [] if outcome.sheet is None else outlets.check(outcome.sheet, (), outcome.stopped_at), failed


def main(words: Sequence[str]) -> None:
    """Print how many mistakes were found on the right line, by kind, and what was said of right programs."""
    console = Console(width=120, highlight=False)
    found: Counter[str] = Counter()
    every: Counter[str] = Counter()
    right = problems = hints = 0
    with tempfile.TemporaryDirectory() as folder:
        os.chdir(folder)
        for one in variants(words):
            told, failed = findings(one.text, Path(folder))
            if not one.kind:
                right += 1
                problems += any(some.severity == PROBLEM for some in told)
                hints += bool(told)
                for some in told:
                    console.print(f"{one.name}: {some}")
                continue
            every[one.kind] += 1
            near = {line + off for line in one.lines for off in range(-NEAR, NEAR + 1)}
            if near & failed or any(near & {*some.lines, *some.callers} for some in told):
                found[one.kind] += 1
            else:
                console.print(f"missed: {one.name} ({one.kind})")
    table = Table("kind", "programs", "found on the line")
    for kind, count in sorted(every.items()):
        table.add_row(kind, str(count), str(found[kind]))
    table.add_row("all", str(every.total()), f"{found.total()} ({found.total() / every.total():.0%})")
    console.print(table)
    console.print(f"{right} right programs: {problems} with a problem, {hints} with any finding.")


if __name__ == "__main__":
    main(sys.argv[1:])
