"""A drawing's signature as its interface."""

from __future__ import annotations

import datetime
import enum
import inspect
from decimal import Decimal
from fractions import Fraction
from pathlib import Path
from typing import Annotated, Any, Literal, Optional

import numpy as np
import pytest

from ovlo import BadType, BadValue, Colour, Sheet, Span, drawing
from ovlo.program.parameters import parameters_of
from ovlo.program.varying import range_of


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
        ({"sides": 13}, BadValue, "kite: sides must be from 3 to 12, but is 13"),
        ({"sides": 4.5}, BadValue, "whole number"),
        ({"sides": "five"}, BadType, "number"),
        ({"side": None}, BadType, "side must be a number"),
        ({"sail": "tomatoe"}, BadValue, "did you mean 'tomato'"),
        ({"tail": 1}, BadType, "True or False"),
        ({"cloth": "slik"}, BadValue, "one of silk, paper, not 'slik'.*'silk'"),
        ({"name": 7}, BadType, "must be text"),
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

    with pytest.raises(BadValue, match=r"sails .* has no default; .*sails=… in Python, or as --set"):
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
        (
            (3, 12),
            4,
            r"test_parameters.py, line \d+, boat: sails is annotated with \(3, 12\), which",
        ),
        (90, 4, r"Span\(low, high\)"),
        (Annotated[str, Span(1, 2)], "a", "has a Span, but is a text"),
        (Annotated[int, Span(1, 2)], 3, "the default: sails must be from 1 to 2"),
        (Colour, "blu", "did you mean 'blue'"),
    ],
)
def test_parameters_that_cannot_be_are_refused_where_they_are_declared(annotation, default, words):
    with pytest.raises((BadType, BadValue), match=words):
        declare(annotation, default)


def test_names_that_ovlo_takes_itself_and_open_lists_are_refused():
    with pytest.raises(BadValue, match="'seed': Ovlo uses that name itself"):

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
    variations = kite.vary(sides=[3, 4, 5], side=[20, 40])
    sheet = variations.contact_sheet()
    captions = [text.words for text in sheet._columns.texts]
    assert captions == [
        "kite, varied",
        *(f"sides={sides}, side={side}" for side in (20, 40) for sides in (3, 4, 5)),
    ]
    assert "sides=3, side=20" in variations._repr_svg_()
    assert variations.values[1] == {"sides": 4, "side": 20}
    assert [sheet.parameters["side"] for sheet in variations.sheets] == [20, 20, 20, 40, 40, 40]
    assert set(variations.errors) == {""}
    assert variations.contact_sheet(columns=1).height > 5 * sheet.height / 2
    with pytest.raises(BadValue, match="contact_sheet: 101 columns are too many"):
        variations.contact_sheet(columns=101)


def test_vary_keeps_to_one_scale_unless_told_otherwise():
    def heights(sheet: Sheet) -> list[float]:
        areas = [run for run in sheet._columns.runs if run["area"] >= 0 and run["pen"]]
        # The first area of a cell is its paper, the second the kite.
        return [float(abs(run["x"])) for run in areas][1::2]

    assert len(set(heights(kite.vary(side=[20, 80]).contact_sheet()))) == 2
    common, each = kite.vary(side=[20, 80]), kite.vary(side=[20, 80], fit_each=True)
    common_x, each_x = common.contact_sheet().trail.x, each.contact_sheet().trail.x
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

    variations = boat.vary(sails=[0, 1])
    assert "the number to divide by is 0" in variations.errors[0]
    words = [text.words for text in variations.contact_sheet()._columns.texts]
    assert any("to divide by is 0" in line for line in words)
    assert "sails=1" in words


def test_a_parameter_without_a_kind_takes_numbers_and_words(ovlo_command, program, tmp_path):
    path = program(
        "from ovlo import drawing\n@drawing()\ndef kite(nib, thing=None):\n"
        "    nib.text(f'{thing!r}')\n    nib.forward(9)\n"
    )
    for typed, read in (("7", "7"), ("2.5", "2.5"), ("bow", "'bow'")):
        assert ovlo_command("draw", path, "--set", f"thing={typed}", "-o", "kite.svg").returncode == 0
        assert f">{read}</text>" in (tmp_path / "kite.svg").read_text()


@drawing()
def spinner(
    nib, blades=6, side=9.5, turn: Span(10, 175) = 91, shade: Span(0, 1, 0.1) = 1, lean: Span(-1, 1) = 0.5
):
    for _ in range(blades):
        nib.forward(side)


@pytest.mark.parametrize(
    ("name", "step", "reach"),
    [
        ("blades", 1, (0, 12)),
        ("side", None, (0, 19)),
        ("turn", 1, (10, 175)),
        ("shade", 0.1, (0, 1)),
        ("lean", None, (-1, 1)),
    ],
)
def test_a_number_is_moved_as_its_default_and_its_span_say(name, step, reach):
    parameter = spinner._parameters[name]
    assert (parameter.step, parameter.reach) == (step, reach)


@pytest.mark.parametrize("given", [7, 7.0, "7"])
def test_a_whole_value_of_a_whole_default_arrives_as_an_int(given):
    value = spinner._read({"blades": given})["blades"] if isinstance(given, str) else given
    used = spinner.run(blades=value).parameters["blades"]
    assert (used, type(used)) == (7, int)


def test_a_whole_default_does_not_forbid_other_numbers():
    assert kite.run(more=1.5).parameters["more"] == 1.5
    assert spinner._read({"turn": "91.5"}) == {"turn": 91.5}


def test_a_range_takes_its_step_from_the_parameter():
    assert range_of("0..0.3", spinner._parameters["shade"], "--values") == [0, 0.1, 0.2, 0.3]
    assert range_of("3..5", spinner._parameters["blades"], "--values") == [3, 4, 5]


def test_a_span_of_a_billion_is_one():
    @drawing()
    def far(nib, seed_of_it: Span(0, 10**9) = 5):
        nib.forward(seed_of_it % 7)

    assert far.run(seed_of_it=999_999_999).parameters["seed_of_it"] == 999_999_999


def test_values_may_be_given_in_order():
    assert spinner.run(3, 8).parameters["side"] == 8
    with pytest.raises(BadType, match=r"spinner: it takes blades, .* but 6 values were given"):
        spinner.run(1, 2, 20, 1, 0, 6)
    with pytest.raises(BadType, match="blades is given twice"):
        spinner.run(3, blades=4)


def test_a_drawing_called_without_a_nib_says_run():
    with pytest.raises(BadType, match=r"a call needs a nib, as in spinner\(nib\); spinner.run\(blades=5\)"):
        spinner(blades=5)
    for word in ("draw", "make", "render"):
        with pytest.raises(AttributeError, match=rf"spinner has no '{word}'; spinner.run\(blades=6\)"):
            getattr(spinner, word)


def test_generators_and_coroutines_are_refused_with_their_line():
    def drifting(nib):
        yield nib

    async def late(nib):
        nib.forward(9)

    with pytest.raises(
        BadType, match=r"test_parameters.py, line \d+, drifting: a drawing cannot be a generator"
    ):
        drawing(drifting)
    with pytest.raises(BadType, match=r"test_parameters.py, line \d+, late: a drawing cannot be async"):
        drawing(late)


@pytest.mark.parametrize(
    ("annotation", "default"),
    [
        (list[int], [1]),
        (list[int] | None, None),
        (datetime.date, datetime.date(2026, 5, 1)),
        (inspect.Parameter.empty, np.zeros(3)),
        (Any, 3),
        ("list[tuple[float, float]]", ()),
    ],
)
def test_a_parameter_that_nobody_could_type_keeps_its_default_and_is_set_by_programs(annotation, default):
    @drawing
    def boat(nib, sails: int = 2, what=default):
        assert what is default or what == "other"
        nib.forward(sails)

    if annotation is not inspect.Parameter.empty:
        boat._function.__annotations__["what"] = annotation
        boat = drawing(boat._function)
    assert boat.run().parameters == {"sails": 2}
    assert len(boat.run(what="other").trail) == 2
    with pytest.raises(BadValue, match="cannot be typed in; it keeps its default here"):
        boat._read({"what": "3"})
    with pytest.raises(BadValue, match="what cannot vary"):
        boat.vary(what=[1, 2])


def test_one_without_a_default_is_asked_for_in_python(ovlo_command, program):
    path = program(
        "from ovlo import drawing\n@drawing\ndef kite(nib, places: list, sides=4):\n"
        "    nib.polygon(sides, radius=9)\n"
    )
    done = ovlo_command("draw", path)
    assert done.returncode == 2
    assert "places (list) has no default; give it as places=… in Python." in done.stderr
    assert "places  list" in ovlo_command("draw", path, "--list").stdout


def test_a_method_is_no_drawing():
    with pytest.raises(BadType, match=r"fly is a method, since it takes self first\. Make a drawing of a"):

        class Bay:
            @drawing
            def fly(self, nib):
                nib.forward(9)


class Cloth(enum.Enum):
    RED = "tomato"
    SAND = "wheat"


@pytest.mark.parametrize(
    ("annotation", "default", "typed", "arrives"),
    [
        (None, np.int64(3), "5", 5),
        (None, np.float32(1.5), "2", 2.0),
        (None, Fraction(1, 4), "0.5", 0.5),
        (None, Decimal("2.5"), "3", 3.0),
        (None, np.bool_(True), "no", False),
        (None, Cloth.RED, "SAND", Cloth.SAND),
        (Cloth, Cloth.RED, "SAND", Cloth.SAND),
        (float, 3, "4", 4.0),
        (int | None, None, "7", 7),
        (Optional[float], 2.0, "none", None),  # noqa: UP045
        (Annotated[int | None, Span(1, 9)], 3, "none", None),
        (Path, Path("a.svg"), "b.svg", Path("b.svg")),
        (None, Path("a.svg"), "b.svg", Path("b.svg")),
        (str, "a", "  x ", "  x "),
        (None, None, "nan", "nan"),
        (None, None, "-inf", "-inf"),
    ],
)
def test_numbers_of_other_kinds_paths_enums_and_optional_values_are_parameters(
    annotation, default, typed, arrives
):
    def boat(nib, what=default):
        return what

    if annotation is not None:
        boat.__annotations__["what"] = annotation
    parameter = parameters_of(boat)["what"]
    value = parameter.read(typed, "--set")
    assert (value, type(value)) == (arrives, type(arrives))
    if default is not None or annotation is not None:
        assert parameter.read(parameter.shown_default, "--set") == parameter.default


def test_a_value_outside_the_span_of_an_optional_parameter_is_refused():
    def boat(nib, sails: Annotated[int | None, Span(1, 9)] = 3): ...

    with pytest.raises(BadValue, match="sails must be from 1 to 9, but is 12"):
        parameters_of(boat)["sails"].read("12", "--set")


def test_a_parameter_that_has_no_name_for_callers_is_refused_when_it_is_decorated():
    def boat(nib, sails=3, /): ...

    with pytest.raises(BadType, match="sails stands before a /"):
        drawing(boat)
    drawing(lambda nib, /, sails=3: None)
