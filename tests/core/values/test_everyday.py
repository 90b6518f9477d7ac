"""Names that mean something here: joined, bent, shortened; and those that mean nothing."""

from __future__ import annotations

import pytest

from ovlo.core.values.errors import CannotWrite, NoBrowser, OvloError, ProgramFailed
from ovlo.core.values.everyday import answer, words_of


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


def test_an_error_of_a_program_is_status_1_and_one_of_usage_is_2():
    assert [one._exit_status for one in (CannotWrite, NoBrowser, ProgramFailed)] == [1, 1, 1]
    assert OvloError._exit_status == 2
