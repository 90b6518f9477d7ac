"""What is drawn while it is half typed: nothing that reaches further than its picture."""

from __future__ import annotations

import ast
from pathlib import Path

import pytest

from ovlo.program.source.harmless import reach_of

EXAMPLES = Path(__file__).parents[2] / "examples"


@pytest.mark.parametrize(
    "line",
    [
        "import os",
        "import ovlo, subprocess",
        "from pathlib import Path",
        "from . import wind",
        "import wind",
        "import numpy.ctypeslib",
        "from numpy import savetxt",
        "from numpy.lib import format",
        "open('kite.txt')",
        "print(input('?'))",
        "exec('x')",
        "sheet.save('kite.svg')",
        "__import__('os')",
        "nib.__class__",
        "numpy.load('x')",
        "ovlo.core.sheet.door.os",
        "run = getattr(nib, 'save')",
        "f'{open(1)}'",
        "lambda: eval('1')",
        "[breakpoint() for _ in (1,)]",
        "import random as os, sys",
    ],
)
def test_what_reaches_farther_is_found(line):
    reach = reach_of(ast.parse(f"from ovlo import Sheet\n\n{line}\nimport os\n"))
    assert reach is not None
    assert reach.line == 3


def test_programs_that_only_draw_are_drawn():
    found = {path.name: reach_of(ast.parse(path.read_bytes())) for path in sorted(EXAMPLES.glob("*.py"))}
    reaching = {name: reach for name, reach in found.items() if reach is not None}
    assert set(reaching) <= {"read_back.py"}, reaching
    assert (
        reach_of(ast.parse("if __name__ == '__main__':\n    import math, random\n    math.sin(1)\n")) is None
    )
