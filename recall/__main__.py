"""How many mistakes a check finds, and how often it is wrong: `python -m recall [WORD …]`."""

from __future__ import annotations

import os
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path

from rich.console import Console
from rich.table import Table

from ovlo.core.values.finding import PROBLEM, Finding
from recall.labels import PROGRAMS, Answer, answer, corrected, findings


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
        results = [answer(path) for path in _chosen("wrong", words)]
        console.print(_table(results))
        checked, wrong = 0, 0
        for name, found in right_programs(words, Path(folder)):
            checked += 1
            wrong += any(one.severity == PROBLEM for one in found)
            for one in found:
                console.print(f"{name}: {one}", style="red" if one.severity == PROBLEM else "")
    console.print(f"{checked} right programs, {wrong} with a problem ({wrong / max(checked, 1):.1%}).")


def _table(results: list[Answer]) -> Table:
    kinds: dict[str, list[Answer]] = {}
    for one in results:
        kinds.setdefault(one.name.split("_")[0], []).append(one)
    table = Table("kind", "programs", "found", "at the line", "missed", "also reported")
    for kind, some in kinds.items():
        missed = " ".join(one.name for one in some if not one.is_found)
        beside = " ".join(f"{one.name}:{other.rule}" for one in some for other in one.others)
        table.add_row(kind, *_counts(some), missed, beside)
    table.add_row("all", *_counts(results), "", "")
    return table


def _counts(some: list[Answer]) -> tuple[str, str, str]:
    found = sum(one.is_found for one in some) / max(len(some), 1)
    return str(len(some)), f"{found:.0%}", str(sum(one.is_pointed for one in some))


if __name__ == "__main__":
    main(sys.argv[1:])
