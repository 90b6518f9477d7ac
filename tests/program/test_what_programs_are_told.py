"""Single answers and refusals of the room that runs programs, each with what stands beside it."""

from __future__ import annotations

import warnings

import pytest

from ovlo import Sheet, drawing
from ovlo.core.values.errors import BadUse, FileError, ProgramFailed
from ovlo.program.drawing import source_file
from ovlo.program.loading import load, package_of, split_target
from ovlo.program.parameters import shown
from ovlo.program.processes.spool import kept
from ovlo.program.running import run_program, telling_where
from ovlo.program.varying import grid_width

HEAD = "from ovlo import Sheet, drawing\n\n\n@drawing(width=99)\ndef kite(nib, side=90):\n"

ANSWERS = {
    "with nib.full_turn(4): pass": "full_turn is a loop, not a block",
    "range(nib.forward(9))": "a function gives None unless it ends with",
    "nib.dice.colour.css": "call it with brackets: nib.dice.colour()",
    "nib.forward(3(4))": "3(…) would be a call; write * to multiply",
    "nib.forward([1] - 2)": "take its items one by one",
    "nib.position - 10": "x, y = nib.position",
    "nib.forward(nib.heading % '3')": "int(…) or float(…) makes a number of a text",
    "Sheet().trail.lenght": "trail has no 'lenght'; did you mean length?",
    "def sail(nib, size): pass\n    sail(9)": "write sail(nib, 9)",
    "def sail(nib, size): pass\n    sail()": "sail needs nib and size as well: sail(nib, size)",
}


@pytest.mark.parametrize("code", ANSWERS)
@pytest.mark.filterwarnings("ignore::SyntaxWarning")
def test_a_mistake_is_answered_with_what_to_write(code, program):
    outcome = run_program(load(str(program(f"{HEAD}    {code}\n"))))
    assert ANSWERS[code] in outcome.trouble
    assert ANSWERS[code] in outcome.brief


def test_a_folder_is_no_program(tmp_path):
    with pytest.raises(FileError, match="is a folder; name a Python file in it"):
        load(str(tmp_path))


def test_a_module_is_found_by_its_name_and_a_file_by_its_path(tmp_path, monkeypatch):
    works = tmp_path / "bay" / "works"
    works.mkdir(parents=True)
    for folder in (works, works.parent):
        (folder / "__init__.py").write_text("")
    (works / "kites.py").write_text(HEAD + "    nib.forward(side)\n")
    monkeypatch.chdir(tmp_path)
    path, name, package = split_target("bay.works.kites:kite")
    assert (path.resolve(), name, package) == (works / "kites.py", "kite", "bay.works")
    assert package_of(works / "kites.py") == "bay.works"
    assert package_of(tmp_path / "kite.py") == ""
    path, name, package = split_target("bay.works")
    assert (path.resolve(), name, package) == (works / "__init__.py", "", "bay.works")
    (tmp_path / "kite").write_text("")
    assert [str(part) for part in split_target("kite")] == ["kite", "", ""]


def test_only_the_sheet_of_a_drawing_is_its_picture(program):
    text = HEAD + "    Sheet(50, 50).new_nib().forward(7)\n    Sheet(60, 60)\n    nib.forward(side)\n"
    outcome = run_program(load(str(program(text))))
    assert (outcome.sheet.width, outcome.sheet_count) == (99, 1)


def test_a_refusal_of_ovlos_own_is_no_failure_of_the_program():
    own, other = telling_where(), telling_where()
    for block in (own, other):
        block.__enter__()
    refusal, mistake = BadUse("vary: give a value."), ValueError("a value")
    assert own.__exit__(BadUse, refusal, None) is False  # it goes on as it is
    with pytest.raises(ProgramFailed):
        other.__exit__(ValueError, mistake, None)


def test_a_drawing_is_described_by_its_first_words():
    @drawing()
    def kite(nib):
        """A kite
        of   paper.

        It flies.
        """

    assert kite.run()._description == "A kite of paper."


def test_what_is_in_no_file_cannot_be_watched():
    names = {}
    exec("def kite(nib): pass", names)
    with pytest.raises(BadUse, match="the drawing is not in a file"):
        source_file(names["kite"])
    assert source_file(test_a_folder_is_no_program) == __file__


@pytest.mark.parametrize(("value", "words"), [(True, "yes"), (False, "no"), (3, "3"), ("gold", "gold")])
def test_a_value_is_shown_as_it_would_be_typed(value, words):
    assert shown(value) == words


@pytest.mark.parametrize(
    ("ranges", "width"),
    [
        ({"sides": [3, 4, 5], "side": [40, 50]}, 3),
        ({"sides": [3, 4, 5]}, None),
        ({"a": [1], "b": [1, 2], "c": [1, 2, 3]}, None),
        ({"sides": range(999), "side": [40, 50]}, None),
    ],
)
def test_of_two_ranges_the_longer_goes_across(ranges, width):
    assert grid_width(ranges) == width


def test_of_an_empty_folder_nothing_was_kept(tmp_path):
    assert kept(tmp_path) == (None, 0)


def test_sheets_made_outside_a_drawing_are_counted(program):
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        outcome = run_program(load(str(program("from ovlo import Sheet\na = Sheet()\nb = Sheet(70, 70)\n"))))
    assert (outcome.sheet_count, outcome.sheet.width) == (2, 70)
    assert isinstance(outcome.sheet, Sheet)


@pytest.mark.parametrize("made", ["Motif(3)", "Step()", "Finding(3)", "Comparison()", "Variations()"])
def test_what_ovlo_makes_itself_says_where_it_is_got(made, program):
    text = f"from ovlo import *\n\n\n@drawing()\ndef kite(nib):\n    {made}\n"
    name = made.partition("(")[0]
    assert f"{name} is not called: " in run_program(load(str(program(text)))).brief
