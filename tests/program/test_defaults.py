"""Values written into a program: only the defaults change, in any file Python reads."""

from __future__ import annotations

import ast

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ovlo.core.values.errors import BadUse, BadValue
from ovlo.program.defaults import with_defaults, write_defaults

KITE = '''\
# Möwenflug über der Bucht
@drawing()
def kite(nib, ä="Ü", sides: int = 4, *, side: float = -3.5, has_tail=True, name: str = "day"):  # sides = 4
    """sides = 4"""
    return sides
'''


@pytest.mark.parametrize("end", ["\n", "\r\n", "\r"])
@pytest.mark.parametrize("start", [b"", b"\xef\xbb\xbf"])
def test_line_ends_marks_and_letters_stay(end, start):
    source = start + KITE.replace("\n", end).encode()
    changed = with_defaults(source, "kite", {"sides": "6", "side": "2.25", "has_tail": "no", "ä": "Ö"})
    expected = KITE.replace("int = 4", "int = 6").replace("-3.5", "2.25").replace("=True", "=False")
    assert changed == start + expected.replace('"Ü"', '"Ö"').replace("\n", end).encode()


def test_another_encoding_stays():
    source = ("# -*- coding: latin-1 -*-\n" + KITE).encode("latin-1")
    changed = with_defaults(source, "kite", {"name": "Möwe"})
    assert changed == source.replace(b'"day"', '"Möwe"'.encode("latin-1"))


def test_a_default_of_several_lines_becomes_one_value():
    source = b"def kite(nib, name=('kite '\n        'day'), side=(\n  5\n  )):\n    pass\n"
    changed = with_defaults(source, "kite", {"name": "bow", "side": "7"})
    assert ast.literal_eval(ast.parse(changed).body[0].args.defaults[0]) == "bow"  # type: ignore[attr-defined]
    assert changed.count(b"\n") == 4


@given(st.text(st.characters(exclude_categories=["Cs"]), max_size=30))
def test_any_text_can_be_written(words):
    changed = with_defaults(b"def kite(nib, name='day', side=5):\n    pass\n", "kite", {"name": words})
    defaults = ast.parse(changed).body[0].args.defaults  # type: ignore[attr-defined]
    assert [ast.literal_eval(one) for one in defaults] == [words, 5]


@pytest.mark.parametrize(
    ("source", "values", "words"),
    [
        ("LONG = 5\ndef kite(nib, side=LONG):\n    pass\n", {"side": "7"}, "LONG, is not a plain value"),
        ("def kite(nib, side=2 * 5):\n    pass\n", {"side": "7"}, "is not a plain value"),
        ("def kite(nib, side):\n    pass\n", {"side": "7"}, "side has no default"),
        (
            "if True:\n    def kite(nib, side=5):\n        pass\n",
            {"side": "7"},
            "not defined at the top level",
        ),
    ],
)
def test_what_is_no_plain_default_stays(source, values, words):
    with pytest.raises(BadValue, match=words):
        with_defaults(source.encode(), "kite", values)


def test_a_file_saved_since_is_not_written_into(tmp_path):
    path = tmp_path / "kite.py"
    path.write_text(KITE)
    about = path.stat()
    with pytest.raises(BadUse, match="has been saved since this picture was drawn"):
        write_defaults(path, "kite", {"sides": "6"}, (about.st_mtime_ns - 1, about.st_size))
    assert path.read_text() == KITE
    assert write_defaults(path, "kite", {"sides": "6"}, (about.st_mtime_ns, about.st_size)) == ["sides"]
    assert path.read_text() == KITE.replace("int = 4", "int = 6")
