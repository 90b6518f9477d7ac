"""What the source alone tells of the programs set aside, written down: `python -m recall.told`.

A change of a rule shows here of which programs it tells more, less or something else.
"""

from __future__ import annotations

import ast
from pathlib import Path

from ovlo.program.source.rules import findings_in
from recall.aside import variants

LIST = Path(__file__).with_name("told.txt")


def told(text: str) -> str:
    """The findings in a program: the line and the rule of each."""
    return ", ".join(f"{one.lines[0]} {one.rule}" for one in findings_in(ast.parse(text), "kite.py"))


def listed() -> dict[str, str]:
    """What is told of each program of which anything is."""
    rows = LIST.read_text(encoding="utf-8").splitlines()
    return dict(row.split(": ", 1) for row in rows)


def main() -> None:
    """Write the list anew."""
    found = {one.name: told(one.text) for one in variants(())}
    LIST.write_text("".join(f"{name}: {words}\n" for name, words in found.items() if words))


if __name__ == "__main__":
    main()
