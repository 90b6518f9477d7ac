"""Values written into a program: only the defaults change, in any file Python reads."""

from __future__ import annotations

import ast

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ovlo.core.values.errors import BadValue
from ovlo.program.defaults import with_defaults

KITE = '''\
# Möwenflug über der Bucht
@drawing()
def kite(nib, ä="Ü", sides: int = 4, *, side: float = -3.5, has_tail=True, name: str = "day"):  # sides = 4
    """sides = 4"""
    return sides
'''


def test_only_the_defaults_change_and_all_else_stays():
    values = {"sides": "6", "side": "2.25", "has_tail": "no", "ä": "Ö"}
    expected = KITE.replace("int = 4", "int = 6").replace("-3.5", "2.25").replace("=True", "=False")
    assert with_defaults(KITE, "kite", values) == (expected.replace('"Ü"', '"Ö"'), [*values], [])


def test_a_default_of_several_lines_becomes_one_value():
    source = "def kite(nib, name=('kite '\n        'day'), side=(\n  5\n  )):\n    pass\n"
    changed = with_defaults(source, "kite", {"name": "bow", "side": "7"}).text
    assert ast.literal_eval(ast.parse(changed).body[0].args.defaults[0]) == "bow"  # type: ignore[attr-defined]
    assert changed.count("\n") == 4


@given(st.text(st.characters(exclude_categories=["Cs"]), max_size=30))
def test_any_text_can_be_written(words):
    changed = with_defaults("def kite(nib, name='day', side=5):\n    pass\n", "kite", {"name": words}).text
    defaults = ast.parse(changed).body[0].args.defaults  # type: ignore[attr-defined]
    assert [ast.literal_eval(one) for one in defaults] == [words, 5]


@pytest.mark.parametrize(
    ("source", "values", "words"),
    [
        ("LONG = 5\ndef kite(nib, side=LONG):\n    pass\n", {"side": "7"}, "LONG, is not a plain value"),
        ("def kite(nib, side=2 * 5):\n    pass\n", {"side": "7"}, "is not a plain value"),
        ("def kite(nib, side):\n    pass\n", {"side": "7"}, "side has no default"),
        ("def kite(nib, side=5):\n    pass\n", {"side": "wide"}, "wide is not a number"),
    ],
)
def test_what_is_no_plain_default_stays_and_the_others_are_written(source, values, words):
    source += "def tail(nib, sides=5, /, bows=3): pass\n"
    assert with_defaults(source, "kite", values).text == source
    (reason,) = with_defaults(source, "kite", values).left
    assert words in reason
    several = source.replace("kite(nib, ", "kite(nib, sides=4, ").replace("side):", "side=LONG):")
    written = with_defaults(several, "kite", {"sides": "6"} | values)
    assert (written.text, written.done) == (several.replace("sides=4", "sides=6"), ["sides"])


def test_a_function_inside_something_and_a_broken_program_are_refused():
    with pytest.raises(BadValue, match="not defined at the top level"):
        with_defaults("if True:\n    def kite(nib, side=5):\n        pass\n", "kite", {"side": "7"})
    with pytest.raises(BadValue, match="has a mistake now"):
        with_defaults("def kite(nib, side=5:\n", "kite", {"side": "7"})
