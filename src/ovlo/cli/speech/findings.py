"""How the command line words findings: what, where, the lines of the program, and the fix.

say(described(finding, Path("kite.py")))
"""

from __future__ import annotations

import linecache
import textwrap
from collections.abc import Sequence
from pathlib import Path

from ovlo.cli.speech import wording
from ovlo.core.values.finding import PROBLEM, Finding
from ovlo.core.values.pose import point_in_words

WIDTH = 96


def described(finding: Finding, path: Path) -> str:
    """A finding for people, about the file at a path."""
    times = f", {finding.count} times" if finding.count > 1 else ""
    where = "" if finding.place is None else f" at {point_in_words(*finding.place)}"
    head = f"\n{finding.severity}: {finding.rule}{where}{times}"
    if finding.file and Path(finding.file) != path:
        head += f", in {finding.file}"
    lines = sorted({*finding.callers, *finding.lines})
    width = len(str(max(lines, default=0)))
    source = [
        f"  {'>' if line in finding.lines else ' '} {line:{width}} | "
        f"{linecache.getline(finding.file, line).rstrip()}"
        for line in lines
    ]
    return "\n".join([head, *source, wrapped(finding.message), wrapped(f"Fix: {finding.fix}")])


def wrapped(text: str) -> str:
    """A sentence on lines of its own."""
    return textwrap.fill(text, WIDTH, initial_indent="  ", subsequent_indent="  ", break_on_hyphens=False)


def summary(found: Sequence[Finding], trouble: str) -> str:
    """How many findings there are."""
    if not found:
        return "Nothing else was found up to that point." if trouble else "No findings."
    return f"\n{counts(found)}. `ovlo check --rules` explains the rules."


def counts(found: Sequence[Finding]) -> str:
    """`1 problem and 2 hints`."""
    problems = sum(one.severity == PROBLEM for one in found)
    hints = len(found) - problems
    return " and ".join(wording.counted(n, noun) for n, noun in ((problems, "problem"), (hints, "hint")) if n)
