"""`sheet.undo` takes back what was drawn last, and the nib goes on as if it had never been."""

from __future__ import annotations

import random

import pytest

from ovlo import BadUse, BadValue, Motif, Sheet
from ovlo.outlets import as_bytes

GULL = Motif.record(lambda nib: nib.arc_right(20, 110))

MOVES = {
    "forward": lambda nib, n: nib.forward(10 + n),
    "arc": lambda nib, n: nib.arc_left(10 + n, 70),
    "travel": lambda nib, n: nib.travel_to(n, -n),
    "circle": lambda nib, n: nib.circle(5 + n, fill="gold"),
    "star": lambda nib, n: nib.star(5, 10 + n),
    "stamp": lambda nib, n: nib.stamp(GULL, scale=1 + n / 10),
    "text": lambda nib, n: nib.text(f"kite {n}"),
    "walk": lambda nib, n: nib.walk([3, 4, 5 + n], [30, 40, 50]),
}


@pytest.mark.parametrize("seed", range(20))
def test_a_drawing_with_moves_taken_back_is_the_one_without_them(seed):
    chance = random.Random(seed)
    kept, undone = ([(chance.choice([*MOVES]), n) for n in range(chance.randint(0, 8))] for _ in range(2))
    sheets = []
    for moves in (kept + undone, kept):
        sheet = Sheet(200, 200)
        nibs = [sheet.new_nib(), sheet.new_nib(heading=90)]
        for number, (name, n) in enumerate(moves):
            MOVES[name](nibs[n % 2], n)
            if number >= len(kept):  # turns are taken back too
                nibs[n % 2].left(33)
        if len(moves) > len(kept):
            sheet.undo(len(undone))
        for nib in nibs:
            nib.turn_to(45)
            nib.forward(7)
        sheets.append(sheet)
    assert len(sheets[0].trail) == len(sheets[1].trail)
    assert [step[:10] for step in sheets[0].steps()] == [step[:10] for step in sheets[1].steps()]
    assert sheets[0].compare(sheets[1]).is_in_place or not kept


def test_an_area_goes_with_its_steps_and_a_nib_turns_back():
    sheet = Sheet()
    nib = sheet.new_nib()
    with nib.area("tomato"):
        nib.forward(30)
        nib.left(90)
        nib.forward(30)
    nib.left(10)
    sheet.undo()
    assert nib.pose == (30, 0, 90)
    assert len(sheet._columns.areas) == 1
    sheet.undo()
    assert nib.pose == (0, 0, 0)
    assert len(sheet._columns.areas) == 0
    assert b"<path" not in as_bytes(sheet, ".svg")


def test_what_cannot_be_taken_back_is_refused_and_nothing_changes():
    sheet = Sheet()
    nib = sheet.new_nib()
    nib.forward(30)
    with pytest.raises(BadValue, match="only 1 can be taken back, not 2"):
        sheet.undo(2)
    assert len(sheet.trail) == 2
    with nib.area("gold"), pytest.raises(BadUse, match="a block of the nib is open"):
        sheet.undo()
    sheet.undo()
    with pytest.raises(BadValue, match="nothing is left"):
        sheet.undo()


def test_lines_of_the_program_stay_right_after_it():
    from ovlo import drawing

    @drawing
    def kite(nib):
        nib.forward(30)
        nib.circle(9)
        nib.sheet.undo()
        nib.back(60)

    steps = kite.run(traced=True).steps()
    first = kite._function.__code__.co_firstlineno
    assert [step.line - first for step in steps if step.length] == [2, 5]


def test_what_was_read_before_is_not_what_is_read_after_it():
    sheet = Sheet()
    nib = sheet.new_nib()
    nib.forward(10)
    nib.forward(20)
    assert [step.length for step in sheet.steps() if step.length] == [10, 20]
    sheet.undo()
    nib.forward(30)
    assert [step.length for step in sheet.steps() if step.length] == [10, 30]


def test_a_move_after_one_taken_back_is_taken_back_alone():
    sheet = Sheet()
    nib = sheet.new_nib()
    for _ in range(4):
        nib.polygon(5, radius=20)
    sheet.undo()
    for length in (1, 2, 3):
        nib.forward(length)
    sheet.undo()
    assert nib.position == (3, 0)
    sheet.undo(2)
    assert nib.position == (0, 0)
    sheet.undo()
    assert len(sheet.trail) == 13


def test_words_beneath_the_start_of_another_nib_are_taken_back_alone():
    sheet = Sheet()
    sheet.new_nib().forward(10)
    sheet.new_nib(50, 50).text("kite")
    sheet.undo()
    assert not sheet._columns.texts
    assert [step.length for step in sheet.steps()] == [0, 10, 0]


def test_a_nib_that_stamped_is_where_it_was_before():
    sheet = Sheet()
    nib = sheet.new_nib()
    nib.travel(5)
    nib.left(30)
    nib.stamp(GULL)
    nib.left(30)
    nib.travel(7)
    nib.stamp(GULL)
    before = nib.pose
    nib.forward(9)
    nib.left(40)
    sheet.undo()
    assert nib.pose == before
    sheet.undo(2)
    assert nib.pose == (5, 0, 60)


@pytest.mark.parametrize("name", MOVES)
def test_a_turn_before_what_is_taken_back_stays_and_one_after_it_goes(name):
    sheet = Sheet(200, 200)
    other, nib = sheet.new_nib(5, 5, 10), sheet.new_nib()
    nib.forward(9)
    nib.left(30)
    pose = nib.pose
    MOVES[name](nib, 3)
    nib.left(7)
    sheet.undo()
    assert (nib.pose, other.pose) == (pose, (5, 5, 10))


def test_words_of_single_lines_are_taken_back_as_one():
    sheet = Sheet(200, 200)
    nib = sheet.new_nib(heading=20)
    nib.text("kite day", font="stroke")
    nib.left(7)
    sheet.undo()
    assert (nib.pose, len(sheet.trail)) == ((0, 0, 20), 1)
