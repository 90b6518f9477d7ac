"""Writing the fixes of findings into a program, each proved by running the program with it.

text, done = fixed(run, findings, skipped)
"""

from __future__ import annotations

import ast
import os
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from dataclasses import replace
from pathlib import Path
from typing import NamedTuple

from ovlo import outlets
from ovlo.cli.run import Run
from ovlo.core.values.errors import OvloError
from ovlo.core.values.finding import Edit, Finding
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program
from ovlo.program.source.harmless import MODULES, OUTSIDE
from ovlo.program.source.tree import called
from ovlo.program.texts import Source

HERE = {"show", "live", "run", "remove"}
"""Calls that do nothing where a fix is proved, and names of much that is harmless."""

WRITING = {"save", "save_plot", "animate"}

MOST = 20
"""Edits that are tried."""

SECONDS = 5.0
"""That a program may take when it is run again."""


class Fixed(NamedTuple):
    """A program with fixes, those that are in it, and why others are not."""

    source: Source
    done: list[Finding]
    left: str


def fixed(run: Run, skipped: tuple[str, ...]) -> Fixed:
    """The program with every fix that is one edit and proves right."""
    source = Source.of(run.program.path.read_bytes())
    if call := _reaches_outside(source.text):
        return Fixed(source, [], f"The program uses {call}, so it is not run again to prove a fix.")
    done: list[Finding] = []
    found = _found(run, source, skipped)
    tried: set[Edit] = set()
    while found is not None and len(tried) < MOST:
        finding = next((one for one in found if _is_own(one, run) and one.edit not in tried), None)
        if finding is None or finding.edit is None:
            break
        tried.add(finding.edit)
        candidate = source.edited(finding.edit)
        after = _found(run, candidate, skipped)
        if after is not None and _is_better(found, after):
            source, found = candidate, after
            done.append(finding)
    return Fixed(source, done, "" if done else "No finding has a fix that is one edit and proves right.")


def _is_own(finding: Finding, run: Run) -> bool:
    return finding.edit is not None and Path(finding.file).name == run.program.path.name


def _is_better(before: list[Finding], after: list[Finding]) -> bool:
    """Whether there are fewer findings, and none of a rule that had fewer."""
    old, new = (Counter(one.rule for one in some) for some in (before, after))
    return len(after) < len(before) and not new - old


def _found(run: Run, source: Source, skipped: tuple[str, ...]) -> list[Finding] | None:
    """What a check finds in a text under the name of the program; None if it does not run to its end."""
    path = run.program.path
    with tempfile.TemporaryDirectory() as folder, _beside(path.parent, folder), suppress(OvloError):
        copy = Path(folder, path.name)
        copy.write_bytes(source.to_bytes())
        program = replace(load(str(copy)), name=run.program.name)
        limits = Limits(run.limits.step_limit, run.limits.seconds or SECONDS)
        outcome = run_program(program, run.settings, 7 if run.seed is None else run.seed, limits, traced=True)
        if outcome.sheet is not None and not outcome.trouble:
            return outlets.check(outcome.sheet, skipped)
    return None


@contextmanager
def _beside(folder: Path, writing: str) -> Iterator[None]:
    """A block in which what stands beside a program can be imported, and what it saves is thrown away."""
    before, here = list(sys.path), Path.cwd()
    sys.path.append(str(folder.resolve()))
    os.chdir(writing)
    try:
        yield
    finally:
        os.chdir(here)
        sys.path[:] = before


def _reaches_outside(text: str) -> str:
    """What the program calls or imports that may ask, write or send something, or ""."""
    for node in ast.walk(ast.parse(text)):
        name = called(node)
        if isinstance(node, ast.Import | ast.ImportFrom):
            names = [alias.name for alias in node.names] + [getattr(node, "module", None) or ""]
            name = next((one for one in names if one.partition(".")[0] in MODULES), "")
        elif name not in OUTSIDE - HERE or (name in WRITING and _is_beside(node)):
            continue
        if name:
            return name
    return ""


def _is_beside(call: ast.AST) -> bool:
    """Whether a call writes a file whose plain name stands there, and so into the folder it is run in."""
    given = call.args[0] if isinstance(call, ast.Call) and call.args else None
    name = given.value if isinstance(given, ast.Constant) else None
    return isinstance(name, str) and Path(name).name == name
