"""What values say of themselves at a prompt."""

from __future__ import annotations

from ovlo import Dice, Pose, Sheet


def test_what_is_shown_at_a_prompt(sheet, nib):
    nib.forward(30)
    nib.left(90)
    assert repr(nib) == "<Nib at (30, 0), heading 90, lowered>"
    assert repr(sheet.trail) == "<trail of 2 steps>"
    assert repr(Dice(4)) == "<Dice, seed 4>"
    assert len({Pose(1, 2, 3), Pose(1, 2, 3)}) == 1


def test_a_finding_is_a_sentence_with_its_line(sheet, nib):
    nib.line_to(0, 300)
    (one,) = sheet.check()
    assert str(one).startswith("off-sheet (problem): 1 of 1 mark leaves the sheet")


def test_loops_know_how_often_they_run():
    loop = Sheet().new_nib().full_turn(5)
    assert len(loop) == len(list(loop)) == 5
