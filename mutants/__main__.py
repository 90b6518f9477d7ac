"""Make small wrong changes in a room, one at a time, and run that room's tests: `python -m mutants ROOM …`.

The changes are drawn by a fixed seed: another comparison, sign or connective, a number that is one more, a
condition that is always or never true, a statement left out. What no test notices is listed with its line.
"""

from __future__ import annotations

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from queue import SimpleQueue
from typing import NamedTuple

ROOT = Path(__file__).parents[1]
SOURCES = ROOT / "src"

ROOMS = {
    "core/pen": ["core/pen", "core/sheet"],
    "core/trail": ["core/trail", "core/sheet"],
    "core/sheet": ["core/sheet", "core/trail"],
    "core/values": ["core/values"],
    "core/plot": ["core/plot", "render/test_plotter.py"],
    "render": ["render"],
    "program": ["program"],
    "studio": ["studio"],
}
"""The rooms, and the tests that are to notice what is changed in them."""

SEED = 20
MOST_SECONDS = 240

COMPARED = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
}  # fmt: skip
COMPUTED = {ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult}


class Mutant(NamedTuple):
    """A change: in which file and line, what it is, and the whole text with it."""

    path: Path
    line: int
    what: str
    text: str


def mutants(room: str, count: int) -> list[Mutant]:
    """So many changes in a room, by the fixed seed."""
    chance = random.Random(f"{SEED} {room}")
    paths = sorted((SOURCES / "ovlo" / room).rglob("*.py"))
    sites = [
        (path, number, way)
        for path in paths
        for number, node in enumerate(ast.walk(ast.parse(path.read_text(encoding="utf-8"))))
        for way in _ways(node)
    ]
    return [_mutant(*site) for site in chance.sample(sites, min(count, len(sites)))]


def _mutant(path: Path, number: int, way: str) -> Mutant:
    """The change of one node of a file, counted as `ast.walk` comes to them."""
    tree = ast.parse(path.read_text(encoding="utf-8"))
    node = next(one for place, one in enumerate(ast.walk(tree)) if place == number)
    what = _change(node, way)
    return Mutant(path, getattr(node, "lineno", 0), what, ast.unparse(ast.fix_missing_locations(tree)))


def _ways(node: ast.AST) -> list[str]:
    """How a node can be changed."""
    if isinstance(node, ast.Compare) and len(node.ops) == 1:
        return ["compared"]
    if isinstance(node, ast.BinOp) and type(node.op) in COMPUTED:
        return ["computed"]
    if isinstance(node, ast.BoolOp):
        return ["connected"]
    if isinstance(node, ast.Constant) and type(node.value) in (int, float):
        return ["one more"]
    if isinstance(node, ast.If | ast.IfExp | ast.While):
        return ["never"]
    if isinstance(node, ast.Expr) and isinstance(node.value, ast.Call):
        return ["left out"]
    return []


def _change(node: ast.AST, way: str) -> str:
    """Change a node; what was changed into what."""
    before = ast.unparse(node).splitlines()[0]
    if isinstance(node, ast.Compare):
        node.ops = [COMPARED[type(node.ops[0])]()]
    elif isinstance(node, ast.BinOp):
        node.op = COMPUTED[type(node.op)]()
    elif isinstance(node, ast.BoolOp):
        node.op = ast.Or() if isinstance(node.op, ast.And) else ast.And()
    elif isinstance(node, ast.Constant):
        node.value = node.value + 1  # type: ignore[operator]
    elif isinstance(node, ast.If | ast.IfExp | ast.While):
        node.test = ast.Constant(False)
    elif isinstance(node, ast.Expr):
        node.value = ast.Constant(None)
    return f"{before[:60]}  →  {ast.unparse(node).splitlines()[0][:60]}"


def fails(tests: list[str], sources: Path) -> bool:
    """Whether a test fails, or does not end, with these sources."""
    command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider"]
    command += ["-o", "addopts=--import-mode=importlib", *(f"tests/{test}" for test in tests)]
    environment = os.environ | {"PYTHONPATH": str(sources), "PYTHONDONTWRITEBYTECODE": "1"}
    try:
        done = subprocess.run(command, cwd=ROOT, env=environment, capture_output=True, timeout=MOST_SECONDS)
    except subprocess.TimeoutExpired:
        return True
    return done.returncode != 0


def is_noticed(mutant: Mutant, tests: list[str], sources: Path) -> bool:
    """Whether the tests fail in a copy of the sources with the change."""
    target = sources / mutant.path.relative_to(SOURCES)
    kept = target.read_text(encoding="utf-8")
    target.write_text(mutant.text, encoding="utf-8")
    try:
        return fails(tests, sources)
    finally:
        target.write_text(kept, encoding="utf-8")


def main() -> None:
    """Try the mutants of some rooms, two at a time, and list those that no test noticed."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("rooms", nargs="*", default=list(ROOMS), help=f"of {', '.join(ROOMS)}")
    parser.add_argument("--count", type=int, default=200)
    asked = parser.parse_args()
    for room in asked.rooms:
        tests = ROOMS[room]
        if fails(tests, SOURCES):
            sys.exit(f"{room}: its tests fail without any change.")
        chosen = mutants(room, asked.count)
        with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(os.cpu_count() or 1) as pool:
            copies: SimpleQueue[Path] = SimpleQueue()
            for number in range(os.cpu_count() or 1):
                copies.put(Path(shutil.copytree(SOURCES, Path(folder) / str(number))))

            def tried(mutant: Mutant, tests: list[str] = tests, copies: SimpleQueue[Path] = copies) -> bool:
                sources = copies.get()
                try:
                    return is_noticed(mutant, tests, sources)
                finally:
                    copies.put(sources)

            noticed = list(pool.map(tried, chosen))
        print(f"{room}: {sum(noticed)} of {len(chosen)} noticed", flush=True)
        for mutant, is_found in zip(chosen, noticed, strict=True):
            if not is_found:
                print(f"  {mutant.path.relative_to(SOURCES)}:{mutant.line}: {mutant.what}", flush=True)


if __name__ == "__main__":
    main()
