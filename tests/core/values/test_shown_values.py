"""What values say of themselves at a prompt."""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

import pytest

from ovlo import BadType, Dice, Pose, Sheet, UnknownName
from ovlo.core.values.choices import ANCHOR, RISE
from ovlo.core.values.everyday import unknown
from ovlo.core.values.finding import rule


def test_what_is_shown_at_a_prompt(sheet, nib):
    nib.forward(30)
    nib.left(90)
    assert repr(nib) == "<Nib at (30, 0), heading 90, lowered>"
    assert repr(sheet.trail) == "<trail of 2 steps>"
    assert repr(Dice(4)) == "<Dice, seed 4>"
    assert len({Pose(1, 2, 3), Pose(1, 2, 3)}) == 1


def test_a_pose_is_as_good_as_its_numbers():
    assert Pose() == (0, 0, 0)
    assert Pose(1, 2, 3) == (1, 2, 3) == tuple(Pose(1, 2, 3))
    assert Pose(1, 2, 3) != Pose(1, 2, 4)
    assert Pose(1, 2, 3) != "(1, 2, 3)"


def test_an_attribute_that_a_class_lacks_is_refused_but_in_a_class_of_ones_own():
    class Loud(Dice):
        pass

    dice = Loud(1)
    dice.volume = 11
    with pytest.raises(UnknownName, match="volume"):
        Dice(1).volume = 11
    with pytest.raises(UnknownName, match=r"^dice has no 'intger'; did you mean integer\?$"):
        Dice(1).intger  # noqa: B018


def test_a_name_that_is_there_is_called_and_not_set():
    said = unknown("nib", "circle", ["circle", "forward"])
    assert said == "nib.circle is called with brackets, not set: nib.circle(…)"


def test_in_a_notebook_an_error_shows_the_lines_of_the_program_alone(sheet, nib):
    with pytest.raises(BadType) as caught:
        nib.forward("90")
    shown = caught.value._render_traceback_()
    assert shown[-1] == "BadType: forward: distance must be a number, not '90'; write it without quotes."
    assert len(shown) == 2
    assert 'nib.forward("90")' in shown[0]


def test_what_a_rule_gives_carries_its_name():
    class Note(NamedTuple):
        rule: str
        words: str

    @rule("odd-kite")
    def all_found():
        yield from (Note("", "one"), Note("", "two"))

    assert list(all_found()) == [("odd-kite", "one"), ("odd-kite", "two")]
    assert rule("odd-kite")(lambda: Note("", "one"))() == ("odd-kite", "one")
    assert rule("odd-kite")(lambda: None)() is None


def test_a_finding_is_a_sentence_with_its_line(sheet, nib):
    nib.line_to(0, 300)
    (one,) = sheet.check()
    assert str(one).startswith("off-sheet (problem): 1 of 1 mark leaves the sheet")
    assert str(replace(one, lines=(3, 7))).startswith("line 3, 7: off-sheet (problem): ")


def test_words_stand_where_css_and_svg_would_have_them():
    """Between the foot of the letters and the height of capitals, 0.7; behind, on and before the nib."""
    assert list(RISE) == ["alphabetic", "middle", "hanging"]
    assert (RISE["alphabetic"], 2 * RISE["middle"]) == (0, 0.7)
    assert 0.7 <= RISE["hanging"] < 0.8
    assert (ANCHOR["start"], ANCHOR["middle"], ANCHOR["end"]) == (0, 0.5, 1)


def test_loops_know_how_often_they_run():
    loop = Sheet().new_nib().full_turn(5)
    assert len(loop) == len(list(loop)) == 5
