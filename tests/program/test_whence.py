"""An error about a value says which line set it, since the mistake is often there."""

from __future__ import annotations

import pytest

from ovlo.program.loading import load
from ovlo.program.running import run_program

HEAD = "from ovlo import Sheet\nnib = Sheet(300, 300).new_nib()\n\ndef half(n):\n    n / 2\n\n"
HEAD += "SIZES = [3, 4]\nnib.forward(9)\n"

SAID = {
    'price = "2"\nprice = price + 1': "price is '2', set in line 9; without its quotes it would be a number",
    'width = "20"\nnib.forward(width * 2.5)': "width is '20', set in line 9; without its quotes",
    'count = "12"\nfor _ in range(count): pass': "count is '12', set in line 9; without its quotes",
    'name = "7"\nif name > 5: pass': "name is '7', set in line 9; without its quotes",
    'def f(nib, size="3"):\n    nib.forward(size - 1)\nf(nib)': "size is '3', set in line 9; without",
    'step = "9"\nnib.forward(step)': "must be a number, not '9'; write it without quotes in line 9.",
    "gap = 0\nnib.forward(100 / gap)": "begin a loop at 1. Here gap is 0, set in line 9",
    "a, b = 0, 3\nnib.forward(b / a)": "Here a is 0, set in line 9",
    "a = half(4)\nnib.forward(a + 1)": "Here a is None, set in line 9",
    "a = half(4)\nfor _ in range(a): pass": "half(…) gives None, since it does not end with",
    "kite = half(3)\nkite.forward(4)": "Here kite is None, set in line 9",
    "for i in range(3):\n    nib.forward(SIZES[i])": "Here SIZES is [3, 4], set in line 7",
    'label = "kite"\nnib.text(label + 3)': "Here label is 'kite', set in line 9",
    "count = 2.5\nfor _ in range(count): pass": "Here count is 2.5, set in line 9",
    'size = "9px"\nn = int(size)': "Here size is '9px', set in line 9",
    'for s in ["3", "4"]:\n    nib.forward(s + 2)': "Here s is '3', set in line 9",
}

NOT_SAID = {
    "what a call gave": 'def f(nib, size):\n    nib.forward(size - 1)\nf(nib, "3")',
    "one of two lines": 'size = "a"\nsize = size + "b"\nsize - 1',
    "the line itself": "size = 'a'; size = size - 1",
    "no name": "100 / 0",
}


def trouble(code: str, program) -> str:
    return run_program(load(str(program(f"{HEAD}{code}\n")))).trouble


@pytest.mark.parametrize("code", SAID)
def test_an_error_says_which_line_set_the_value(code, program):
    assert SAID[code] in trouble(code, program)


@pytest.mark.parametrize("case", NOT_SAID)
def test_a_line_is_named_only_if_it_alone_can_have_set_the_value(case, program):
    said = trouble(NOT_SAID[case], program)
    assert said
    assert "set in line" not in said
