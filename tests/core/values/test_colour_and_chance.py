"""Colours as CSS reads them, and points and numbers that chance gives."""

from __future__ import annotations

import math
from random import Random

import numpy as np
import pytest

from ovlo import BadType, BadUse, BadValue, Colour, Dice, blend, from_polar, ramp, shift_hue
from ovlo.core.values import dice as dice_module
from ovlo.core.values.colour import difference, parse
from ovlo.core.values.degrees import DEGREE, direction, directions, half_turned, normal
from ovlo.core.values.scatter import spread_points

CSS = {
    "#0a7": "#00aa77",
    " #00AA77 ": "#00aa77",
    "#00aa7780": "#00aa7780",
    "#0a78": "#00aa7788",
    "Tomato": "#ff6347",
    "transparent": "#00000000",
    "rgb(255 0 0 / 50%)": "#ff000080",
    "hsl(120 100% 25%)": "#008000",
}


@pytest.mark.parametrize("text", CSS)
def test_colours_of_css_are_read(text):
    assert parse(text, "ink").css == CSS[text]


WRONG = {
    "#12": "is a hex colour of 2 digits; it must have 3, 4, 6 or 8 digits",
    "#12345g": "is a hex colour with 'g'",
    "tomatoe": "there is no colour 'tomatoe' .did you mean 'tomato'",
    "rgb(1e999 0 0)": "there is no colour",
    "url(#a)": "there is no colour",
}


@pytest.mark.parametrize("text", WRONG)
def test_what_is_no_colour_is_told(text):
    with pytest.raises(BadValue, match=WRONG[text]):
        parse(text, "ink")
    with pytest.raises(BadType, match=r"Colour\.from_rgb\(red, green, blue\) makes one from numbers"):
        parse((255, 0, 0), "ink")


def test_mixtures_and_hues():
    assert blend("white", "black", 0) == Colour(255, 255, 255)
    assert blend("white", "black", 1) == Colour(0, 0, 0)
    assert [one.hex for one in ramp("gold", "navy", 3)] == ["#ffd700", "#6e7e7c", "#000080"]
    assert [one.hex for one in ramp("gold", "navy", 1)] == ["#ffd700"]
    assert shift_hue("tomato", 360).hex == "#ff6347"
    assert shift_hue("tomato", 120).hex == "#00be5c"
    assert difference(Colour(0, 0, 0), Colour(255, 255, 255)) == pytest.approx(100)
    assert Colour.from_rgb(255, 0, 127.5).hex == "#ff0080"
    with pytest.raises(BadValue, match="red must be from 0 to 255"):
        Colour.from_rgb(256, 0, 0)


@pytest.mark.parametrize(("width", "height", "distance"), [(400, 300, 30), (300, 20, 9), (50, 50, 80)])
def test_points_keep_their_distance_and_leave_no_gap(width, height, distance):
    points = np.array(spread_points(Random(4), width, height, distance))
    apart = np.hypot(*(points[:, None] - points[None, :]).transpose(2, 0, 1))
    assert apart[~np.eye(len(points), dtype=bool)].min(initial=np.inf) >= distance
    assert (np.abs(points) <= (width / 2, height / 2)).all()
    chance = np.random.default_rng(1)
    places = (chance.random((4000, 2)) - 0.5) * (width, height)
    nearest = np.hypot(*(places[:, None] - points[None, :]).transpose(2, 0, 1)).min(axis=1)
    # Thirty tries leave hardly a place at which another would fit.
    assert (nearest < 1.2 * distance).mean() > 0.99


@pytest.mark.parametrize("seed", range(7, 15))
def test_points_are_those_of_bridsons_method_in_every_corner(seed):
    """Worked out once more as the paper has it: each candidate is held against all points, without a grid."""
    random, width, height, distance = Random(seed), 90.0, 60.0, 14.0 - seed / 4
    points = [((random.random() - 0.5) * width, (random.random() - 0.5) * height)]
    active = points.copy()
    while active:
        at = int(random.random() * len(active))
        for _ in range(30):
            angle, reach = math.tau * random.random(), distance * math.sqrt(1 + 3 * random.random())
            place = active[at][0] + reach * math.cos(angle), active[at][1] + reach * math.sin(angle)
            is_in = abs(place[0]) <= width / 2 and abs(place[1]) <= height / 2
            if is_in and all(math.dist(place, other) >= distance for other in points):
                points.append(place)
                active.append(place)
                break
        else:
            active[at] = active[-1]
            active.pop()
    assert spread_points(Random(seed), width, height, distance) == points
    assert {(x > 0, y > 0) for x, y in points} == {(False, False), (False, True), (True, False), (True, True)}


def test_a_scatter_is_spread_over_its_whole_box_whatever_the_distance():
    for how in ({}, {"min_distance": 20}, {"min_distance": 1e-3}):
        points = np.array(Dice(2, (600, 400)).scattered(60, **how))
        assert (np.abs(points).max(axis=0) > (240, 140)).all()
        assert (np.abs(points) <= (300, 200)).all()
        apart = np.hypot(*(points[:, None] - points[None, :]).transpose(2, 0, 1))
        # As far apart as so many fit, unless somebody asks for less.
        least = 35 if not how else how["min_distance"]
        assert apart[~np.eye(60, dtype=bool)].min() >= least
    with pytest.raises(BadValue, match=r"only \d+ points fit at a distance of 90"):
        Dice(2, (600, 400)).scattered(60, min_distance=90)


def test_a_colour_may_be_as_long_as_any_needs_to_be():
    assert parse(f"rgb(255 {' ' * 188}0 0)", "ink").hex == "#ff0000"
    with pytest.raises(BadValue, match="there is no colour"):
        parse(f"rgb(255 {' ' * 189}0 0)", "ink")


def test_a_colour_that_is_called_says_how_it_is_set():
    with pytest.raises(BadUse, match=r"nib\.ink = 'gold'"):
        Colour(0, 0, 0)("gold")
    with pytest.raises(BadUse, match=r'nib\.ink = "tomato"'):
        Colour(0, 0, 0)()


def test_dice_reach_both_ends_and_are_the_same_again():
    dice = Dice(3)
    assert {dice.integer(1, 3) for _ in range(60)} == {1, 2, 3}
    assert all(2 <= dice.number(2, 3) <= 3 for _ in range(50))
    assert sorted(dice.shuffled([1, 2, 3])) == [1, 2, 3]
    assert {dice.chance(0) for _ in range(20)} == {False}
    assert {dice.chance(1) for _ in range(20)} == {True}
    again, once = Dice(3), Dice(3)
    assert [again.number(0, 1) for _ in range(5)] == [once.number(0, 1) for _ in range(5)]
    for tone, low, high in (("pale", 0.6, 1), ("deep", 0, 0.55)):
        for _ in range(20):
            red, green, blue = (part / 255 for part in dice.colour(tone)._rgb)
            assert low <= 0.3 * red + 0.6 * green + 0.1 * blue <= high


def test_dice_take_any_order_of_things_and_one_value_alone():
    dice = Dice(5)
    assert (dice.integer(4, 4), dice.number(2.5, 2.5)) == (4, 2.5)
    assert dice.pick("k") == "k"
    assert dice.pick(b"k") == ord("k")
    assert dice.pick({"kite": 3}) == "kite"
    assert dice.shuffled(range(9)) != list(range(9))
    assert {dice.chance(0.5) for _ in range(40)} == {False, True}
    with pytest.raises(BadValue, match=r"probability must be from 0 to 1, but is 1\.5"):
        dice.chance(1.5)
    for call in (dice.integer, dice.number):
        with pytest.raises(
            BadValue, match=rf"{call.__name__}: low \(3\) must be at most high \(1\); swap them"
        ):
            call(3, 1)
    with pytest.raises(BadType, match=r"pick: give a list; .* has no order, so no seed could reproduce"):
        dice.pick({"kite", "gull"})
    with pytest.raises(BadValue, match="pick: items is empty"):
        dice.pick([])


def test_a_random_point_is_even_over_the_sheet_inside_its_margin():
    dice, numbers = Dice(7, (640, 480)), Random(7)
    for margin, width, height in ((0, 320, 240), (20, 300, 220), (0.0, 320, 240), (240, 80, 0)):
        point = numbers.uniform(-width, width), numbers.uniform(-height, height)
        assert dice.point(margin) == pytest.approx(point)
    with pytest.raises(BadValue, match="point: these dice do not belong to a sheet"):
        Dice(7).point()
    with pytest.raises(BadValue, match="a margin of 241 leaves no room"):
        dice.point(241)


def test_scattered_points_reach_the_limit_and_no_farther():
    dice = Dice(1, (640, 480))
    assert len(dice.scattered(20_000)) == 20_000
    assert dice.scattered(1, margin=240)[0][1] == 0
    with pytest.raises(BadValue, match="count must be at most 20,000, but is 20,001"):
        dice.scattered(20_001)
    with pytest.raises(BadValue, match="count must be 1 or more"):
        dice.scattered(0)


def test_a_colour_of_chance_has_the_lightness_and_chroma_of_its_tone():
    for tone, (lightness, chroma) in {
        "pale": (0.91, 0.05),
        "vivid": (0.72, 0.18),
        "deep": (0.4, 0.11),
    }.items():
        for seed in range(4):
            hue = int(360 * Random(seed).random())
            assert Dice(seed).colour(tone) == parse(f"oklch({lightness} {chroma} {hue})", "ink")
    assert len({Dice(seed).colour() for seed in range(30)}) > 25
    with pytest.raises(BadValue, match="colour: tone"):
        Dice(1).colour("loud")


def test_a_colour_has_channels_of_its_range():
    assert Colour(0, 255, 0.5).css == "#00ff00"
    assert Colour(1, 2, 3, 0).css == "#01020300"
    assert parse("#00000080", "ink").opacity == 128 / 255
    assert parse("#000000", "ink").opacity == 1
    for name, values, most in (
        ("red", (-1, 0, 0), 255),
        ("blue", (0, 0, 255.5), 255),
        ("opacity", (0, 0, 0, 1.1), 1),
    ):
        with pytest.raises(
            BadValue, match=f"Colour: {name} must be from 0 to {most}, but is {values[-1] or -1}"
        ):
            Colour(*values)
    with pytest.raises(BadValue, match=r"from_rgb: red must be from 0 to 255, but is 255\.5"):
        Colour.from_rgb(255.5, 0, 0)
    with pytest.raises(BadType, match="Colour: green must be a number"):
        Colour(0, "9", 0)
    with pytest.raises(BadValue, match="10,001 colours are too many; the limit is 10,000"):
        ramp("gold", "navy", 10_001)


def test_dice_without_a_seed_have_one_from_their_first_use():
    one, other = Dice(), Dice()
    assert (one._is_used, one._state()) == (False, None)
    numbers = [one.number(0, 1) for _ in range(3)]
    assert [Dice(one._seed).number(0, 1)] == numbers[:1]
    assert numbers[0] != other.number(0, 1)
    state = one._state()
    later = [one.number(0, 1) for _ in range(3)]
    one._restore(None)
    one._restore(state)
    assert [one.number(0, 1) for _ in range(3)] == later


def test_a_point_at_a_distance_and_an_angle():
    assert from_polar(10, 90) == pytest.approx((0, 10), abs=1e-12)
    assert from_polar(10, 0, (3, 4)) == (13, 4)
    assert from_polar(-10, 0) == (-10, 0)


def test_directions_of_whole_quarters_are_exact():
    assert [direction(angle) for angle in (0, 90, 180, 270)] == [(1, 0), (0, 1), (-1, 0), (0, -1)]
    assert (normal(-90), normal(720), normal(359.5)) == (270, 0, 359.5)
    assert normal(-1e-20) == 0  # not 360
    assert pytest.approx(math.pi / 180, rel=1e-15) == DEGREE
    headings = np.array([0.0, 30.0, 90.0, 135.0, 180.0, 270.0, 300.0])
    cosines, sines = directions(headings)
    assert np.abs(cosines - np.cos(np.radians(headings))).max() < 1e-15
    assert np.abs(sines - np.sin(np.radians(headings))).max() < 1e-15
    assert (cosines[[0, 2, 4, 5]].tolist(), sines[[0, 2, 4, 5]].tolist()) == ([1, 0, -1, 0], [0, 1, 0, -1])
    assert [half_turned(angle) for angle in (0.0, 180.0, -180.0, 190.0, 540.0)] == [0, 180, 180, -170, 180]
    assert direction(30) == pytest.approx((0.75**0.5, 0.5))


def test_a_seed_scatters_the_same_points_in_every_version():
    """A picture that somebody kept by its seed would be another otherwise."""
    points = Dice(7, (600, 400)).scattered(5, margin=20)
    assert points[0] == pytest.approx((133.7267204188861, -11.967658524820095))
    assert points[1] == pytest.approx((-205.5323323924315, 151.959619854646))
    assert points[2] == pytest.approx((225.4432512805823, 150.12370654452218))


def test_a_box_that_holds_more_points_than_may_be_asked_for_is_spread_wider(monkeypatch):
    monkeypatch.setattr(dice_module, "MOST_SCATTERED", 100)
    apart = [_least_apart(Dice(3, (80, 50)).scattered(40, min_distance=least)) for least in (0.5, 5, 6.5)]
    # A hundred discs of 5 px fill half of 80 × 50 px; at 6.5 px there is no need to spread them.
    assert apart[0] == apart[1] > 5
    assert apart[2] > 6.5


def _least_apart(points):
    places = np.array(points)
    apart = np.hypot(*(places[:, None] - places[None]).transpose(2, 0, 1))
    return float(apart[np.triu_indices(len(places), 1)].min())
