"""Names that mean something here: joined, bent, shortened; and those that mean nothing."""

from __future__ import annotations

import pytest

from ovlo.core.values.errors import CannotWrite, NoBrowser, OvloError, ProgramFailed
from ovlo.core.values.everyday import SINGLE, answer, in_short, is_slip, words_of


@pytest.mark.parametrize(
    ("name", "owner", "words"),
    [
        ("rotate", "motif", "motif.turned(90)"),
        ("rotated", "motif", "motif.turned(90)"),
        ("flipped", "motif", "motif.mirrored()"),
        ("moving", "motif", "motif.moved(10, 20)"),
        ("center", "motif", "motif.centred()"),
        ("center", "", "(0, 0) is the centre"),
        ("reset", "motif", "sheet.clear()"),
        ("eraseAll", "", "sheet.clear()"),
        ("currentPosition", "", "nib.position"),
        ("shuffle", "", "nib.dice has random numbers"),
        ("quux", "", ""),
        ("quux", "motif", ""),
    ],
)
def test_a_name_is_answered_by_its_meaning(name, owner, words):
    found = answer(name, owner)
    assert words in found
    assert bool(words) == bool(found)


def test_names_are_parted_into_words():
    assert words_of("setLineColour") == words_of("set_line_colour") == ["set", "line", "colour"]
    assert words_of("quuxes") == ["quuxes"]
    assert words_of("rotated") == ["rotate"]
    assert words_of("spinning") == ["spin"]


def test_a_few_letters_stand_for_a_name_that_has_them_in_order():
    known = ["forward", "left", "line_to", "line_to_start", "travel", "up"]
    shorts = {"fd": "forward", "lt": "left", "frwd": "forward", "tvl": "travel", "FD": "forward"}
    assert {short: in_short(short, known) for short in shorts} == shorts
    # Too short or too long to be sure, no letters, in another order, another end, the name itself.
    for name in ("f", "forwd", "f4", "dwf", "fo", "up"):
        assert in_short(name, known) == ""
    assert in_short("lo", known) == "line_to"


def test_words_of_one_meaning_are_answered_alone():
    assert {"position", "shuffle", "center"} <= set(SINGLE)
    assert all(answer(word) for word in SINGLE)
    assert "start" not in SINGLE or answer("start")


def test_one_letter_off_is_a_slip():
    assert is_slip("foward", "forward")
    assert is_slip("FORWADR", "forward")
    assert not is_slip("for", "forward")


def test_joined_words_are_parted_where_both_halves_are_known():
    assert words_of("turnright") == ["turn", "right"]
    assert words_of("quuxright") == ["quuxright"]
    assert words_of("turnquux") == ["turnquux"]


def test_an_error_of_a_program_is_status_1_and_one_of_usage_is_2():
    assert [one._exit_status for one in (CannotWrite, NoBrowser, ProgramFailed)] == [1, 1, 1]
    assert OvloError._exit_status == 2
