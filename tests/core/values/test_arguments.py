"""What a value must be, told in one sentence with the call, the value and the fix; and the edges of it."""

from __future__ import annotations

from decimal import Decimal
from fractions import Fraction

import numpy as np
import pytest

from ovlo import BadType, BadValue
from ovlo.core.values import arguments
from ovlo.core.values.arguments import LARGEST, LARGEST_NUMBER, MOST

GOOD = [
    (arguments.real, (2, LARGEST, -LARGEST, np.float32(0.5), np.array(7), Fraction(1, 4), Decimal("2.5"))),
    (arguments.positive, (1e-300, 3, LARGEST)),
    (arguments.not_negative, (0, 0.0, 2.5, LARGEST, np.int64(3), np.int64(0), Fraction(0))),
    (arguments.whole, (0, -3, 2.0, np.int8(4), LARGEST_NUMBER)),
    (arguments.angle, (720.5, -1e12, LARGEST_NUMBER)),
]


@pytest.mark.parametrize(("take", "values"), GOOD, ids=lambda one: getattr(one, "__name__", ""))
def test_numbers_of_every_kind_arrive_as_pythons_own(take, values):
    for value in values:
        taken = take(value, "forward", "distance")
        assert taken == float(value)
        assert type(taken) in (int, float)


BAD = [
    (
        arguments.real,
        True,
        BadType,
        r"forward: distance must be a number, not True; give an int or a float\.",
    ),
    (arguments.real, None, BadType, "a function gives None unless it ends with return"),
    (arguments.real, "90", BadType, "not '90'; write it without quotes"),
    (arguments.real, "far", BadType, "give a number such as 90"),
    (arguments.real, len, BadType, "the function len; call it with brackets"),
    (arguments.real, 1j, BadType, "must be a number, not 1j"),
    (arguments.real, np.array([1.0]), BadType, "must be a number"),
    (arguments.real, np.timedelta64(1, "s"), BadType, "must be a number"),
    (arguments.real, np.timedelta64(1, "ns"), BadType, "must be a number"),
    (arguments.real, float("nan"), BadValue, "must be a finite number, but is nan; check the calculation"),
    (arguments.real, 10**400, BadValue, "must be a finite number"),
    (arguments.real, LARGEST * 1.01, BadValue, "must be from"),
    (arguments.positive, 0, BadValue, "must be above 0, but is 0"),
    (arguments.not_negative, -1, BadValue, "must be 0 or more, but is -1"),
    (arguments.not_negative, LARGEST * 1.01, BadValue, "must be from"),
    (arguments.whole, 2.6, BadValue, "must be a whole number, but is 2.6; try 3"),
    (arguments.whole, False, BadType, "must be a whole number, not False"),
    (arguments.whole, LARGEST_NUMBER + 1, BadValue, "must be at most"),
    (arguments.truth, 1, BadType, "must be True or False, not 1"),
    (arguments.text, "a\tb", BadValue, r"contains the control character '\\t'; remove it"),
    (arguments.text, "a\u2028b", BadValue, "contains the control character"),
    (arguments.text, "\ufffe", BadValue, "contains the control character"),
    (arguments.text, 3, BadType, r"must be a string, not 3; str\(…\) converts any value"),
    (arguments.text, "x" * (MOST + 1), BadValue, "characters; the limit is"),
]


@pytest.mark.parametrize(("take", "value", "error", "words"), BAD)
def test_what_will_not_do_is_told_with_its_fix(take, value, error, words):
    with pytest.raises(error, match=words):
        take(value, "forward", "distance")


def test_ranges_leasts_and_words():
    assert arguments.between(0, "blend", "amount", 0, 1) == 0
    assert arguments.between(1, "blend", "amount", 0, 1) == 1
    with pytest.raises(BadValue, match=r"amount must be from 0 to 1, but is 1\.01"):
        arguments.between(1.01, "blend", "amount", 0, 1)
    assert arguments.whole(3, "star", "points", 3) == 3
    with pytest.raises(BadValue, match="points must be 3 or more, but is 2"):
        arguments.whole(2, "star", "points", 3)
    with pytest.raises(BadValue, match=r"but is 1\.2; try 3"):
        arguments.whole(1.2, "star", "points", 3)
    assert arguments.truth(np.bool_(True), "a", "b") is True
    assert arguments.text("soft\u00adhyphen, 凧", "text", "words") == "soft\u00adhyphen, 凧"
    with pytest.raises(
        BadValue, match=r"join must be one of 'miter', 'round', not 'rond' \(did you mean 'round'"
    ):
        arguments.choice("rond", "nib", "join", ("miter", "round"))
    assert arguments.nearest("rond", ["miter", "round"]) == ["round"]
    assert arguments.nearest("sky", ["miter", "round"]) == []


def test_points_and_lists():
    for given in ((3, 4), [3, 4], np.array([3, 4]), iter((3, 4))):
        assert arguments.point(given, None, "line_to") == (3.0, 4.0)
    assert arguments.point(3, 4, "line_to") == (3.0, 4.0)
    for given, words in (("34", "two numbers, x and y, or one pair"), ((1, 2, 3), "has 3"), (5, "not 5")):
        with pytest.raises(BadType, match=words):
            arguments.point(given, None, "line_to")
    for given in ("abc", b"abc", {1: 2}, 5, np.array(5)):
        with pytest.raises(BadType, match="points must be a list"):
            arguments.listed(given, "polyline", "points", "as in [(0, 90)]")
    arguments.at_most(MOST, "ramp", "colours")
    with pytest.raises(BadValue, match="colours are too many"):
        arguments.at_most(MOST + 1, "ramp", "colours")


def test_a_function_must_take_the_nib_first():
    arguments.takes_nib(lambda nib: None, "record")
    arguments.takes_nib(lambda *parts: None, "record")
    for function, words in (
        (lambda: None, "must take the nib first"),
        (lambda *, a: 0, "first"),
        (len, "give a"),
        (3, "not 3"),
    ):
        with pytest.raises(BadType, match=words):
            arguments.takes_nib(function, "record")


def test_values_in_messages_are_short_and_never_fail():
    class Odd:
        def __repr__(self):
            raise ValueError

    assert arguments.brief("x" * 80) == "'" + "x" * 58 + "…"
    assert arguments.brief(Odd()) == "a Odd that cannot be shown"
    assert arguments.brief(10**300) == "a whole number of more than 60 digits"
    assert arguments.brief(lambda: 0) == "a function without a name"
    assert arguments.brief("a\x07") == r"'a\x07'"


def test_letters_that_are_missing_are_listed_up_to_six():
    assert arguments.named_letters("abcdef") == "'a', 'b', 'c', 'd', 'e', 'f'"
    assert arguments.named_letters("abcdefg") == "'a', 'b', 'c', 'd', 'e', 'f' …"


@pytest.mark.parametrize("value", ["gold", "Gold ", "#0a7"])
def test_a_colour_in_the_place_of_a_size_needs_its_name(value):
    with pytest.raises(BadType, match=f"a colour needs its name: fill={value!r}"):
        arguments.positive(value, "circle", "radius")
    with pytest.raises(BadType, match="give a number such as 90"):
        arguments.positive(value, "forward", "distance")


def test_controls_and_breaks_are_no_text_and_rare_letters_are():
    assert arguments.text("Düne ✈ \u00ad\u3000", "text", "words") == "Düne ✈ \u00ad\u3000"
    for character in "\t\n\x7f\u2028\ud800\uffff":
        with pytest.raises(BadValue, match="contains the control character"):
            arguments.text(f"kite{character}", "text", "words")


def test_values_are_shortened_only_where_they_are_long():
    assert arguments.brief("k" * 58) == f"'{'k' * 58}'"
    assert arguments.brief("k" * 59) == f"'{'k' * 58}…"
    assert arguments.brief(2**200 - 1) == f"{str(2**200 - 1)[:59]}…"
    assert arguments.brief(2**200) == "a whole number of more than 60 digits"
    for digits, shown in ((21, f"-0.{'1' * 21}"), (22, f"-0.{'1' * 17}…")):
        with pytest.raises(BadValue, match=f"but is {shown}[.]$"):
            arguments.positive(Decimal(f"-0.{'1' * digits}"), "circle", "radius")


def test_near_names_are_three_at_most_and_none_for_what_is_no_name():
    names = ["kite1", "kite2", "kite3", "kite4"]
    assert len(arguments.nearest("kite", names)) == 3
    assert arguments.near("kite", names).count(" or ") == 2
    assert arguments.near(5, names) == arguments.near("gull", names) == ""
    assert arguments.near("KITE4", ["kite4"]) == " (did you mean 'kite4'?)"


def test_values_by_name_have_names_that_files_can_hold():
    assert arguments.by_name({"sides": 5, "ink": "gold"}, "vary") == {"sides": 5, "ink": "gold"}
    for wrong in ({"si\ndes": 5}, {"ink": "go\x00ld"}):
        with pytest.raises(BadValue, match="contains the control character"):
            arguments.by_name(wrong, "vary")
    for wrong in ([("sides", 5)], {5: 5}):
        with pytest.raises(BadType, match="must be a"):
            arguments.by_name(wrong, "vary")


def test_the_edge_of_the_plane_can_be_reached():
    arguments.within_reach(LARGEST, -LARGEST, "forward")
    with pytest.raises(BadValue, match="nothing may be farther than"):
        arguments.within_reach(0, -1.001 * LARGEST, "forward")
