"""Sizes of pages by their standards, and lengths in the units of CSS."""

from __future__ import annotations

from math import floor

import pytest

from ovlo import BadType, BadValue
from ovlo.core.values.units import (
    LENGTHS,
    MARGIN,
    MM_PER_UNIT,
    PAGES,
    millimetres,
    page_size,
    refuse_paper_size,
)


@pytest.mark.parametrize("name", [name for name in PAGES if name[0] in "AB"])
def test_pages_of_iso_216_are_worked_out(name):
    """A0 has a square metre and sides of 1 to the root of 2; B sizes lie between; all are rounded down."""
    number = int(name[1])
    exponents = (-1 / 4, 1 / 4) if name[0] == "A" else (0, 1 / 2)
    sides = (floor(1000 * 2 ** (exponent - number / 2) + 0.2) for exponent in exponents)
    assert PAGES[name] == tuple(sides)


def test_american_pages_are_whole_inches_and_halves():
    inches = {"letter": (8.5, 11), "legal": (8.5, 14), "ledger": (11, 17)}
    for name, sides in inches.items():
        assert PAGES[name] == pytest.approx([25.4 * side for side in sides])


def test_lengths_are_those_of_css():
    per_inch = {"mm": 25.4, "cm": 2.54, "in": 1, "px": 96, "pt": 72}
    assert {unit: pytest.approx(25.4 / LENGTHS[unit]) for unit in LENGTHS} == per_inch
    assert {"px": pytest.approx(25.4 / 96), "mm": 1} == MM_PER_UNIT


@pytest.mark.parametrize(
    ("name", "size"),
    [
        ("a4", (210, 297)),
        (" Letter ", (215.9, 279.4)),
        ("200x300mm", (200, 300)),
        ("20 x 30cm", (200, 300)),
        ("2cm x 300mm", (20, 300)),
        ("8.5inx.5in", (215.9, 12.7)),
        ("30x20", (30, 20)),
    ],
)
def test_a_page_is_named_or_measured(name, size):
    assert page_size(name, "draw") == pytest.approx(size)
    assert page_size(name, "draw", is_landscape=True) == pytest.approx(sorted(size, reverse=True))


def test_no_page_is_told_with_what_would_be_one():
    with pytest.raises(BadType, match="a page size must be a name such as 'A4', not 4"):
        page_size(4, "draw")
    with pytest.raises(BadValue, match=r"no page size 'leter' \(did you mean 'letter'.*as in '200x300mm'"):
        page_size("leter", "draw")
    with pytest.raises(BadValue, match="a page must be larger than '0x5mm'"):
        page_size("0x5mm", "draw")
    with pytest.raises(BadValue, match="the height of a page must be a length"):
        page_size("5mmx5parsec", "draw")


def test_lengths_are_numbers_or_texts():
    texts = ("12mm", "1.2 cm", "12", " .5in ")
    assert [millimetres(text, "plot", "margin") for text in texts] == pytest.approx([12, 12, 12, 12.7])
    assert millimetres(7, "plot", "margin") == 7
    assert millimetres(MARGIN, "plot", "margin") == 10
    for wrong in ("-3mm", "3 miles", "", "mm"):
        with pytest.raises(BadValue, match="plot: margin must be a length such as 12mm"):
            millimetres(wrong, "plot", "margin")
    with pytest.raises(BadValue, match="must be 0 or more"):
        millimetres(-1, "plot", "margin")


def test_the_name_of_a_page_in_place_of_numbers_is_told_in_numbers():
    refuse_paper_size(640, "white", None)
    with pytest.raises(BadValue, match=r'A4 is 210 × 297 mm: Sheet\(210, 297, unit="mm"\)'):
        refuse_paper_size(640, " a4 ")
