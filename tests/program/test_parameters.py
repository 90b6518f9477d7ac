"""A drawing's signature as its interface."""

from __future__ import annotations

from typing import Annotated, Literal

import pytest

from ovlo import BadType, BadValue, Colour, Sheet, Span, drawing


@drawing(width=300, height=200)
def kite(
    nib,
    sides: Annotated[int, Span(3, 12)] = 4,
    side: float = 40,
    sail: Colour = "tomato",
    tail: bool = True,
    cloth: Literal["silk", "paper"] = "silk",
    name: str = "",
    more=2,
):
    """A kite of all kinds of parameters."""
    nib.polygon(sides, side_length=side * more, fill=sail)


def test_a_drawing_is_still_a_plain_function():
    nib = Sheet(10, 10).new_nib()
    kite(nib, 99)
    assert len(nib.sheet.trail) == 101
    assert kite.__doc__ == "A kite of all kinds of parameters."


def test_the_values_used_are_kept_with_the_sheet():
    sheet = kite.run(sides=5, sail="navy")
    assert (sheet.width, sheet.title) == (300, "kite")
    assert sheet.parameters["sides"] == 5
    assert sheet.parameters["sail"] == Colour(0, 0, 128)
    assert sheet.parameters["side"] == 40


@pytest.mark.parametrize(
    ("values", "kind", "words"),
    [
        ({"sides": 13}, BadValue, "kite: sides must be from 3 to 12, not 13"),
        ({"sides": 4.5}, BadValue, "whole number"),
        ({"sides": "five"}, BadType, "number"),
        ({"side": None}, BadType, "side must be a number"),
        ({"sail": "tomatoe"}, BadValue, "did you mean 'tomato'"),
        ({"tail": 1}, BadType, "True or False"),
        ({"cloth": "slik"}, BadValue, "one of silk, paper, not 'slik'.*'silk'"),
        ({"name": 7}, BadType, "must be a text"),
        ({"sids": 4}, BadValue, "no parameter 'sids'.*'sides'"),
        ({"more": "lots"}, BadType, "number"),
    ],
)
def test_values_that_will_not_do_are_refused(values, kind, words):
    with pytest.raises(kind, match=words):
        kite.run(**values)


@pytest.mark.parametrize(
    ("name", "text", "value"),
    [
        ("sides", "7", 7),
        ("side", "2.5", 2.5),
        ("sail", "#0a7", Colour(0, 170, 119)),
        ("tail", "No", False),
        ("cloth", "paper", "paper"),
        ("name", "3", "3"),
        ("more", "2.5", 2.5),
    ],
)
def test_values_are_read_from_text(name, text, value):
    assert kite._read({name: text}) == {name: value}


def test_a_parameter_without_default_says_how_to_give_it():
    @drawing()
    def boat(nib, sails: int):
        nib.forward(sails)

    with pytest.raises(BadValue, match=r"sails .* has no default; .*sails=… here, or with --set"):
        boat.run()
    assert len(boat.run(sails=3).trail) == 2


def declare(annotation: object, default: object) -> None:
    def boat(nib, sails=default):
        nib.forward(1)

    boat.__annotations__["sails"] = annotation
    drawing()(boat)


@pytest.mark.parametrize(
    ("annotation", "default", "words"),
    [
        (list[int], [1], r"test_parameters.py, line \d+, boat: sails is of the type list\[int\]"),
        (int | None, None, r"int \| None"),
        (Annotated[str, Span(1, 2)], "a", "has a Span, but is a text"),
        (Annotated[int, Span(1, 2)], 3, "the default: sails must be from 1 to 2"),
        (Colour, "blu", "did you mean 'blue'"),
    ],
)
def test_parameters_that_cannot_be_are_refused_where_they_are_declared(annotation, default, words):
    with pytest.raises((BadType, BadValue), match=words):
        declare(annotation, default)


def test_names_that_ovlo_takes_itself_and_open_lists_are_refused():
    with pytest.raises(BadValue, match="'seed', which Ovlo takes itself"):

        @drawing()
        def boat(nib, seed=1):
            nib.forward(1)

    with pytest.raises(BadType, match="cannot take"):

        @drawing()
        def ship(nib, *sails):
            nib.forward(1)


@pytest.mark.parametrize(
    ("ends", "words"),
    [((5, 3), "swap them"), ((float("nan"), 3), "finite"), ((1, 3, 0), "step"), (("a", 3), "number")],
)
def test_a_span_that_cannot_be_is_refused(ends, words):
    with pytest.raises((BadValue, BadType), match=words):
        Span(*ends)


def test_vary_gives_a_captioned_sheet_of_every_combination():
    sheet = kite.vary(sides=[3, 4, 5], side=[20, 40])
    captions = [text.words for text in sheet._columns.texts]
    assert captions == [
        "kite, varied",
        *(f"sides={sides}, side={side}" for side in (20, 40) for sides in (3, 4, 5)),
    ]
    assert "sides=3, side=20" in sheet._repr_svg_()


def test_vary_keeps_to_one_scale_unless_told_otherwise():
    def heights(sheet: Sheet) -> list[float]:
        areas = [run for run in sheet._columns.runs if run["area"] >= 0 and run["pen"]]
        # The first area of a cell is its paper, the second the kite.
        return [float(abs(run["x"])) for run in areas][1::2]

    assert len(set(heights(kite.vary(side=[20, 80])))) == 2
    common, each = kite.vary(side=[20, 80]), kite.vary(side=[20, 80], fit_each=True)
    common_x, each_x = common.trail.x, each.trail.x
    assert common_x.shape == each_x.shape
    assert not (common_x == each_x).all()


@pytest.mark.parametrize(
    ("ranges", "words"),
    [
        ({}, "at least one parameter"),
        ({"sides": []}, "empty list"),
        ({"sids": [3]}, "did you mean 'sides'"),
        ({"sides": [3, 13]}, "from 3 to 12"),
        ({"side": range(501)}, "501 pictures are too many"),
        ({"side": range(30), "more": range(30)}, "900 pictures"),
    ],
)
def test_vary_refuses_what_no_sheet_can_hold(ranges, words):
    with pytest.raises(BadValue, match=words):
        kite.vary(**ranges)


def test_a_failing_variation_tells_so_in_its_cell():
    @drawing()
    def boat(nib, sails: int = 1):
        nib.forward(10 / sails)

    words = [text.words for text in boat.vary(sails=[0, 1])._columns.texts]
    assert any("ZeroDivisionError" in line for line in words)
    assert "sails=1" in words


def test_a_parameter_without_a_kind_takes_numbers_and_words(ovlo_command, program, tmp_path):
    path = program(
        "from ovlo import drawing\n@drawing()\ndef kite(nib, thing=None):\n"
        "    nib.text(f'{thing!r}')\n    nib.forward(9)\n"
    )
    for typed, read in (("7", "7"), ("2.5", "2.5"), ("bow", "'bow'")):
        assert ovlo_command("draw", path, "--set", f"thing={typed}", "-o", "kite.svg").returncode == 0
        assert f">{read}</text>" in (tmp_path / "kite.svg").read_text()
