"""What is said of a value that will not do, and what dice, colours and findings give as they are."""

from __future__ import annotations

import pytest

from ovlo import BadType, BadValue, Colour, Dice, Finding
from ovlo.core.values import arguments


def test_a_refusal_names_the_call_and_the_argument():
    with pytest.raises(BadType, match=r"^show: wait must be True or False, not 3\."):
        arguments.truth(3, "show", "wait")


def test_dice_say_their_seed_and_reach_the_edges():
    dice = Dice(5, (10, 10))
    assert dice.seed == 5
    points = [dice.point() for _ in range(2000)]
    assert max(abs(x) for x, _ in points) > 4.5
    assert max(abs(y) for _, y in points) > 4.5
    assert max(abs(part) for point in points for part in point) <= 5


@pytest.mark.parametrize("size", [(10, 100), (100, 10)])
def test_a_margin_wider_than_half_a_sheet_is_refused(size):
    with pytest.raises(BadValue, match="margin"):
        Dice(5, size).point(20)


def test_black_is_a_colour_at_any_opacity():
    for opacity in (0, 0.5, 1):
        assert Colour(0, 0, 0, opacity).opacity == opacity


def test_findings_are_equal_whatever_their_fix_would_change():
    def found(change):
        return Finding("not-closed", "problem", "It is open.", "Close it.", None, _change=change)

    assert found(None) == found(("turn", "90", 80.0, 1))


def test_a_text_too_long_and_a_point_of_three_numbers_are_refused_with_what_they_are():
    with pytest.raises(BadValue, match=r"^text: words has 1,000,001 characters; the limit is 1,000,000\."):
        arguments.text("a" * 1_000_001, "text", "words")
    assert arguments.text("a" * 1_000_000, "text", "words")
    with pytest.raises(BadType, match=r"but \[1, 2, 3\] has 3\."):
        arguments.point([1, 2, 3], None, "travel_to")


def test_a_method_is_what_can_be_called():
    assert arguments.method("kite", "upper")() == "KITE"
    assert arguments.method(3, "real") is None
    assert arguments.method(3, "kite") is None
