"""Make small wrong changes in a room, one at a time, and run that room's tests: `python -m mutants ROOM …`.

The changes are drawn by a fixed seed. Only the tests that run the changed lines are tried, the fastest first.
What no test notices is listed with its line, and with the reason where `unnoticed.txt` has one: many changes
change nothing that shows, such as which of two equal ways is taken.
"""

from __future__ import annotations

import argparse
import os
import shutil
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from queue import SimpleQueue

from mutants.changes import Mutant, changes_of
from mutants.suite import OUTPUT, SOURCES, Suite

ROOMS = {
    "core/pen": ["core/pen", "core/sheet"],
    "core/trail": ["core/trail", "core/sheet"],
    "core/sheet": ["core/sheet", "core/trail", "core/pen"],
    "core/values": ["core/values"],
    "core/plot": ["core/plot", "render/test_plotter.py", "render/test_unchanged.py"],
    "render": ["render"],
    "program": [
        *("program", "cli/test_processes.py", "cli/test_endings.py", "cli/test_parameters.py"),
        "test_other_systems.py",
    ],
    "studio": ["studio"],
}
"""The rooms, and the tests that are to notice what is changed in them, beside the room's own examples."""

SEED = "kite day"


def survivors(room: str, count: int) -> tuple[int, list[Mutant]]:
    """How many changes of a room were tried, and those that none of its tests noticed."""
    suite = Suite([*(f"tests/{part}" for part in ROOMS[room]), f"src/ovlo/{room}"])
    chosen = changes_of(SOURCES / "ovlo" / room, count, SEED)
    workers = os.cpu_count() or 1
    with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(workers) as pool:
        copies: SimpleQueue[Path] = SimpleQueue()
        for number in range(workers):
            copies.put(Path(shutil.copytree(SOURCES, Path(folder) / str(number) / "src")))
            (Path(folder) / str(number) / "examples").symlink_to(SOURCES.parent / "examples")
        if suite.fails(suite.tests, Path(folder) / "0" / "src"):
            said = (Path(folder) / "0" / OUTPUT).read_text()
            sys.exit(f"{said[-5000:]}\n{room}: its tests fail in a copy without any change.")

        def is_noticed(mutant: Mutant) -> bool:
            sources = copies.get()
            changed = sources / mutant.path.relative_to(SOURCES)
            kept = changed.read_text(encoding="utf-8")
            try:
                changed.write_text(mutant.text, encoding="utf-8")
                found = suite.fails(suite.of_lines(mutant.path, mutant.line, mutant.last_line), sources)
                if not found:
                    print(
                        f"not noticed: {mutant.path.name}:{mutant.line}: {mutant.what}",
                        file=sys.stderr,
                        flush=True,
                    )
                return found
            finally:
                changed.write_text(kept, encoding="utf-8")
                copies.put(sources)

        noticed = list(pool.map(is_noticed, chosen))
    return len(chosen), [mutant for mutant, found in zip(chosen, noticed, strict=True) if not found]


def reasons() -> dict[str, str]:
    """Why some changes are not noticed, by the file, the change and the line it is in."""
    rows = (Path(__file__).parent / "unnoticed.txt").read_text(encoding="utf-8").splitlines()
    return {name: reason for name, _, reason in (row.partition(" | ") for row in rows)}


def main() -> None:
    """Try the mutants of some rooms, and list those that no test noticed."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("rooms", nargs="*", default=list(ROOMS), help=f"of {', '.join(ROOMS)}")
    parser.add_argument("--count", type=int, default=200)
    asked = parser.parse_args()
    for room in asked.rooms:
        began = time.monotonic()
        tried, left = survivors(room, asked.count)
        known = reasons()
        names = [f"{one.path.relative_to(SOURCES / 'ovlo')}: {one.what}  in  {one.inside}" for one in left]
        unexplained = sum(name not in known for name in names)
        took = time.monotonic() - began
        print(
            f"{room}: {tried - len(left)} of {tried} noticed, {len(left) - unexplained} change nothing that "
            f"shows, {unexplained} left, in {took:.0f} s"
        )
        for mutant, name in zip(left, names, strict=True):
            print(f"  {name}, line {mutant.line} ({known.get(name, 'no reason known')})", flush=True)


if __name__ == "__main__":
    main()
