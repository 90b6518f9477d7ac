"""One figure on its like, while the others stand apart: what is told, and what is meant to be so."""

from __future__ import annotations

import pytest

from ovlo.program.loading import load
from ovlo.program.running import run_program

PIER = """
from ovlo import drawing


def hut(nib, x, y=0, size=60):
    nib.travel_to(x, y)
    nib.rectangle(size, 50, anchor="corner", fill="tan")


@drawing
def pier(nib):
    {}
"""


def told(program, *calls):
    source = PIER.format("\n    ".join(calls))
    outcome = run_program(load(str(program(source))), traced=True)
    assert not outcome.trouble
    return [one for one in outcome.sheet.check() if one.rule == "lies-on-another"]


APART = ["hut(nib, -280)", "hut(nib, -150)", "hut(nib, 40)", "hut(nib, 180)"]


def test_a_copied_line_is_told_with_its_call(program):
    (found,) = told(program, *APART[:2], "hut(nib, -150, size=50)", *APART[2:])
    assert (found.callers, found.severity) == ((6, 14), "hint")
    assert "What this call of hut draws lies on what the one before drew; the other 3 stand apart." in str(
        found
    )


@pytest.mark.parametrize(
    "calls",
    [
        APART,
        [*APART[:2], "hut(nib, -140, 8)", *APART[2:]],  # one in front of another
        [*APART[:2], "hut(nib, -150, 120)", *APART[2:]],  # one above another
        ["hut(nib, -280)", "hut(nib, -280, size=50)", "hut(nib, 100)", "hut(nib, 100, size=50)"],
        ["hut(nib, -280)", "hut(nib, -280, size=50)", "hut(nib, 40)"],  # too few
        [*APART[:2], "hut(nib, -150 + 0 * nib.dice.number(0, 1), size=50)", *APART[2:]],
    ],
)
def test_what_may_be_meant_is_not_told(program, calls):
    assert told(program, *calls) == []
