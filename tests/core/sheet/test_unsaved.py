"""What a script is told at its end, what a prompt shows, and the words of sheets and nibs."""

from __future__ import annotations

import inspect
import subprocess
import sys

import pytest

from ovlo import BadUse, BadValue, Motif, Nib, Sheet, UnknownName, column, end_to_end, row

MADE = "from ovlo import Sheet\nsheet = Sheet()\nnib = sheet.new_nib()\nnib.forward(9)\n"
TOLD = 'Ovlo: a sheet was never saved or shown; end the file with sheet.save("kite.svg")\n'


def run(code: str, folder, *options: str) -> str:
    """What a script says on its way out."""
    path = folder / "kite.py"
    path.write_text(code)
    done = subprocess.run(
        [sys.executable, *options, path], cwd=folder, capture_output=True, text=True, timeout=60, input=""
    )
    return done.stderr


@pytest.mark.parametrize(
    ("code", "told"),
    [
        (MADE, TOLD),
        (MADE + "other = Sheet()\nother.save('b.svg')\n", TOLD),
        (MADE + "other = Sheet()\n", TOLD),
        (MADE + "sheet.save('a.svg')\n", ""),
        (MADE + "sheet.save('a.svg')\n" + MADE, TOLD),
        (MADE + "sheet.to_bytes('.svg')\n", ""),
        (MADE + "sheet.to_array()\n", ""),
        (MADE + "sheet.check()\n", ""),
        (MADE + "sheet.animate('a.gif', seconds=0.2)\n", ""),
        (MADE + "sheet.steps()\n", ""),
    ],
)
def test_a_script_that_ends_without_its_picture_is_told(code, told, tmp_path):
    assert run(code, tmp_path) == told


def test_a_script_that_fails_is_told_of_its_error_alone(tmp_path):
    told = run(MADE + "nib.forwad(9)\n", tmp_path)
    assert "did you mean forward?" in told
    assert "never saved" not in told


def test_a_module_that_is_imported_is_told_nothing(tmp_path):
    (tmp_path / "scene.py").write_text(MADE)
    assert run("import scene\n", tmp_path) == ""
    assert "never saved" not in run(MADE, tmp_path, "-i")


def test_words_of_a_nib_say_what_it_is():
    sheet = Sheet()
    nib = sheet.new_nib(3, 4, 50)
    nib.lift()
    assert repr(nib) == "<Nib at (3, 4), heading 50, lifted>"
    with pytest.raises(UnknownName, match=r"a nib has it: nib = sheet\.new_nib\(\), then nib\.forward"):
        sheet.forward(9)
    with pytest.raises(BadUse, match="a nib belongs to a sheet, which makes it"):
        Nib(None, 0, None, None, None, None)
    with pytest.raises(Exception, match=r"pointer: .* is not a motif; .*None hides the pointer"):
        nib.pointer = "kite"
    nib.pointer = None
    assert nib.pointer is None
    with pytest.raises(UnknownName, match=r"nib\.ink"):
        nib.colour = "gold"


def test_a_motif_without_marks_has_no_size():
    empty = Motif.record(lambda nib: nib.travel(30))
    assert empty.bounds == (0, 0, 0, 0)
    dot = Motif.record(lambda nib: nib.line_to(10, 20))
    assert dot.styled(line_width=5)._columns.styles[-1].line_width == 5
    assert dot.styled(ink="gold")._columns.styles[-1].line_width == 2
    with pytest.raises(BadValue, match="end_to_end: this would lead to"):
        end_to_end([dot.scaled(400_000), dot.scaled(400_000), dot.scaled(400_000)])
    for join in (row, column):
        assert join([dot, dot], gap=3).bounds != join([dot, dot]).bounds


DEFAULTS = {
    Sheet.__init__: {"width": 640, "height": 480, "paper": "white", "unit": "px", "seed": None},
    Sheet.new_nib: {"x": 0, "y": 0, "heading": 0},
    Sheet.save: {"scale": 1, "fit": False, "overlay": ()},
    Sheet.animate: {"fps": 25, "hold": 1, "pointer": False, "loops": 0, "scale": 1},
    Sheet.save_plot: {"hatch_angle": 45, "hatch": "parallel", "hidden_lines": "remove", "fit": False},
    Sheet.cropped: {"whole": True},
    Sheet.undo: {"count": 1},
    Sheet.to_array: {"scale": 1},
    Nib.stamp: {"scale": 1, "turn": 0, "ink": None, "fill": None},
    Nib.text: {"font": "sans-serif", "weight": "normal", "align": "start", "baseline": "alphabetic"},
    row: {"gap": 0},
    column: {"gap": 0},
    end_to_end: {"turn": 0},
}


@pytest.mark.parametrize("call", DEFAULTS, ids=lambda call: call.__qualname__)
def test_defaults_are_those_of_the_guide(call):
    given = inspect.signature(call).parameters
    assert {name: given[name].default for name in DEFAULTS[call]} == DEFAULTS[call]
