"""How many mistakes a check finds, and how often it is wrong: `python -m bench.recall [WORD …]`.

The programs in `bench/programs/wrong` say themselves what is wrong with them, at the end of the line that is:

    nib.left(60)  # wrong (turns-miss-360): nib.left(120)

any of the rules in brackets may find it, and what follows is the corrected line. A line `#+ code` is only in
the corrected program. Corrected, each is a right program as those in `bench/programs/right` are.
"""

from __future__ import annotations

import os
import re
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

from rich.console import Console
from rich.table import Table

from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program

PROGRAMS = Path(__file__).parent / "programs"
MARK = re.compile(r"^(?P<indent> *)(?P<code>.*?)  # wrong \((?P<rules>[\w, -]+)\): (?P<corrected>.*)$")
ADDED = re.compile(r"^( *)#\+ (.*)$")


class Told(NamedTuple):
    """What a check told of a wrong program."""

    name: str
    is_found: bool
    is_pointed: bool
    others: list[Finding]


def findings(path: Path, may_fail: bool = False) -> list[Finding]:
    """What a check says of a program."""
    seed = 7 if "dice" in path.read_text() else None
    outcome = run_program(load(str(path)), {}, seed, Limits(100_000, 20), True)
    if outcome.sheet is None or (outcome.trouble and not may_fail):
        raise RuntimeError(f"{path}: {outcome.trouble or 'nothing was drawn'}")
    return outcome.sheet.check()


def marks(text: str) -> dict[int, set[str]]:
    """The lines of a program that are wrong, with the rules that may say so."""
    found = enumerate(map(MARK.match, text.splitlines()), 1)
    return {line: set(mark["rules"].split(", ")) for line, mark in found if mark}


def corrected(text: str) -> str:
    """The program that was meant."""
    lines = [MARK.sub(r"\g<indent>\g<corrected>", line) for line in text.splitlines()]
    return "\n".join(ADDED.sub(r"\1\2", line) for line in lines) + "\n"


def without_marks(marked: str) -> str:
    """The wrong program as somebody would have written it."""
    lines = (line for line in marked.splitlines() if not ADDED.match(line))
    return "\n".join(MARK.sub(r"\g<indent>\g<code>", line) for line in lines) + "\n"


def told(path: Path) -> Told:
    """What a check tells of a wrong program."""
    wrong = marks(path.read_text())
    rules = set().union(*wrong.values())
    found = findings(path, may_fail=True)
    right = [one for one in found if one.rule in rules]
    # The turn's own line makes no step: the line before it is as near as a picture can point.
    lines = {near for line in wrong for near in (line - 2, line - 1, line, line + 1, line + 2)}
    is_pointed = any(lines & {*one.lines, *one.callers} for one in right)
    return Told(path.stem, bool(right), is_pointed, [one for one in found if one not in right])


def right_programs(words: list[str], folder: Path) -> Iterator[tuple[str, list[Finding]]]:
    """What a check says of programs that are right."""
    for path in _chosen("right", words):
        yield path.stem, findings(path)
    for path in _chosen("wrong", words):
        twin = folder / path.name
        twin.write_text(corrected(path.read_text()))
        yield f"{path.stem}, corrected", findings(twin)


def _chosen(kind: str, words: list[str]) -> list[Path]:
    return sorted(p for p in (PROGRAMS / kind).glob("*.py") if all(word in p.stem for word in words))


def main(words: list[str]) -> None:
    """Print recall by kind, what was missed, and every finding in a right program."""
    console = Console(width=120, highlight=False)
    with tempfile.TemporaryDirectory() as folder:
        os.chdir(folder)  # where programs that save their picture do so
        results = [told(path) for path in _chosen("wrong", words)]
        console.print(_table(results))
        checked, wrong = 0, 0
        for name, found in right_programs(words, Path(folder)):
            checked += 1
            wrong += any(one.severity == PROBLEM for one in found)
            for one in found:
                console.print(f"{name}: {one}", style="red" if one.severity == PROBLEM else "")
    console.print(f"{checked} right programs, {wrong} with a problem ({wrong / max(checked, 1):.1%}).")


def _table(results: list[Told]) -> Table:
    kinds: dict[str, list[Told]] = {}
    for one in results:
        kinds.setdefault(one.name.split("_")[0], []).append(one)
    table = Table("kind", "programs", "found", "at the line", "missed", "told beside it")
    for kind, some in kinds.items():
        missed = " ".join(one.name for one in some if not one.is_found)
        beside = " ".join(f"{one.name}:{other.rule}" for one in some for other in one.others)
        table.add_row(kind, *_counts(some), missed, beside)
    table.add_row("all", *_counts(results), "", "")
    return table


def _counts(some: list[Told]) -> tuple[str, str, str]:
    found = sum(one.is_found for one in some) / max(len(some), 1)
    return str(len(some)), f"{found:.0%}", str(sum(one.is_pointed for one in some))


if __name__ == "__main__":
    main(sys.argv[1:])
