"""Style, areas, text, chance and colours: what is kept, and what is refused."""

from __future__ import annotations

import pytest

from ovlo import BadType, BadValue, Colour, Dice, OvloError, Sheet, blend, ramp, shift_hue
from ovlo.core.paint.outlines import MOVE, borders


def areas(sheet: Sheet) -> list[tuple[Colour, int]]:
    """The colour of each area, and how many contours it has."""
    columns = sheet._columns
    outline = borders(columns)
    found = []
    for number, key in enumerate(outline.keys):
        codes = outline.codes[outline.firsts[number] : outline.firsts[number + 1]]
        row = columns.areas[key]
        colour = Colour(*(row[name] for name in ("red", "green", "blue", "opacity")))
        found.append((colour, int((codes == MOVE).sum())))
    return found


def triangle(nib, side=30):
    for _ in nib.full_turn(3):
        nib.forward(side)


def test_styled_puts_back_what_it_changed_and_nothing_else(nib):
    def tail() -> None:
        with nib.styled(ink="red", line_dash=(4, 2), line_cap="butt"):
            nib.line_width = 7
            nib.forward(1 / 0)

    with pytest.raises(ZeroDivisionError):
        tail()
    assert (nib.ink, nib.line_dash, nib.line_cap, nib.line_width) == (Colour(0, 0, 0), (), "round", 7)


def test_an_odd_dash_is_repeated_as_in_svg(nib):
    nib.line_dash = 5
    assert nib.line_dash == (5, 5)
    nib.line_dash = [1, 2, 3]
    assert nib.line_dash == (1, 2, 3, 1, 2, 3)
    nib.line_dash = None
    assert nib.line_dash == ()


def test_travel_and_lifted_moves_begin_further_contours_of_an_area(nib):
    with nib.area("gold", fill_rule="evenodd"):
        triangle(nib)
        nib.travel(60)
        triangle(nib)
        with nib.lifted():
            nib.forward(60)
        triangle(nib)
        nib.circle(5)
    assert areas(nib.sheet) == [(Colour(255, 215, 0), 4)]


def test_blocks_nest_each_with_contours_of_its_own(nib):
    with nib.area("gold"):
        for _ in nib.full_turn(4):
            nib.forward(50)
            with nib.area("navy"):
                triangle(nib)
    gold, *navy = areas(nib.sheet)
    assert gold == (Colour(255, 215, 0), 1)
    assert navy == [(Colour(0, 0, 128), 1)] * 4


def test_an_exception_still_paints_what_was_traced(nib):
    def sail() -> None:
        with nib.area("gold"):
            triangle(nib)
            nib.forward("far")

    with pytest.raises(BadType):
        sail()
    assert areas(nib.sheet) == [(Colour(255, 215, 0), 1)]
    nib.forward(10)
    assert nib.sheet._columns.runs["area"][-1] == -1


def test_without_outline_the_area_has_no_line(nib):
    with nib.area("gold", outline=False):
        triangle(nib)
        nib.circle(4)
    nib.circle(9, fill="navy", outline=False)
    assert not nib.sheet.trail.is_drawn.any()
    assert len(areas(nib.sheet)) == 2


def test_a_lifted_pen_leaves_neither_fill_nor_text(nib):
    nib.lift()
    with nib.area("gold"):
        triangle(nib)
    nib.text("Marrow Bay")
    columns = nib.sheet._columns
    assert (areas(nib.sheet), columns.texts) == ([], ())


def test_text_stands_where_the_nib_is_in_its_ink(nib):
    nib.ink = "navy"
    nib.travel_to(3, 4)
    nib.left(30)
    nib.text("Kite day", size=20, align="end", baseline="hanging")
    (text,) = nib.sheet._columns.texts
    assert (text.x, text.y, text.heading, text.ink) == (3, 4, 30, Colour(0, 0, 128))
    assert (text.words, text.size, text.align, text.baseline) == ("Kite day", 20, "end", "hanging")
    sheet = Sheet(100, 100, unit="mm")
    sheet.new_nib().text("Kite")
    assert sheet._columns.texts[0].size == pytest.approx(16 * 25.4 / 96)


REFUSED = {
    r"did you mean 'tomato'": lambda nib: setattr(nib, "ink", "tomatoe"),
    r"Colour.from_rgb": lambda nib: setattr(nib, "ink", (255, 0, 0)),
    r"no colour 'oklch\(nothing\)'": lambda nib: setattr(nib, "ink", "oklch(nothing)"),
    r"red must be from 0 to 255": lambda nib: Colour.from_rgb(256, 0, 0),
    r"Colour: blue must be from 0 to 255": lambda nib: setattr(nib, "ink", Colour(0, 0, -1)),
    r"line_width must be above 0": lambda nib: setattr(nib, "line_width", -1),
    r"line_dash: at least one": lambda nib: setattr(nib, "line_dash", (0, 0)),
    r"line_dash: each length must be 0 or more": lambda nib: setattr(nib, "line_dash", (3, -1)),
    r"line_cap must be one of": lambda nib: setattr(nib, "line_cap", "flat"),
    r"line_join .*'miter'": lambda nib: setattr(nib, "line_join", "mitre"),
    r"styled|line_width": lambda nib: nib.styled(ink="red", line_width=0).__enter__(),
    r"area: fill_rule must be one of": lambda nib: nib.area("red", fill_rule="odd").__enter__(),
    r"area: .*did you mean 'gold'": lambda nib: nib.area("golde").__enter__(),
    r"text: words must be a string, not 7; str": lambda nib: nib.text(7),
    r"text: .*control character '\\n'": lambda nib: nib.text("two\nlines"),
    r"text: align must be one of": lambda nib: nib.text("a", align="left"),
    r"text: size must be above 0": lambda nib: nib.text("a", size=0),
    r"text: font must be": lambda nib: nib.text("a", font=""),
    r"pause: seconds must be from 0 to 600": lambda nib: nib.pause(-1),
    r"integer: low \(5\) must be at most high \(2\)": lambda nib: nib.dice.integer(5, 2),
    r"integer: low must be a whole number": lambda nib: nib.dice.integer(0.5, 2),
    r"number: low": lambda nib: nib.dice.number(5, 2),
    r"pick: items is empty": lambda nib: nib.dice.pick([]),
    r"pick: .*has no order": lambda nib: nib.dice.pick({1, 2}),
    r"chance: probability must be from 0 to 1": lambda nib: nib.dice.chance(1.5),
    r"colour: tone must be one of": lambda nib: nib.dice.colour("light"),
    r"leaves no room on the sheet": lambda nib: nib.dice.point(margin=1000),
    r"do not belong to a sheet": lambda nib: Dice(3).point(),
    r"seed must be 0 or more": lambda nib: Dice(-1),
    r"amount must be from 0 to 1": lambda nib: blend("red", "blue", 2),
    r"ramp: count must be 1 or more": lambda nib: ramp("red", "blue", 0),
}


@pytest.mark.parametrize("words", REFUSED)
def test_what_cannot_be_is_refused_with_nothing_changed(nib, words):
    before = nib._style, nib.pose, nib.sheet._columns
    with pytest.raises((BadValue, BadType), match=words) as refusal:
        REFUSED[words](nib)
    assert isinstance(refusal.value, OvloError)
    assert (nib._style, nib.pose) == before[:2]
    assert len(nib.sheet._columns.areas) == 0


@pytest.mark.parametrize(
    ("text", "hexes"),
    [
        ("Tomato", "#ff6347"),
        ("rgb(255 99 71 / 50%)", "#ff6347"),
        ("hsl(120deg 100% 25%)", "#008000"),
        ("hwb(0 0% 0%)", "#ff0000"),
        ("lab(0% 0 0)", "#000000"),
        ("oklch(100% 0 0)", "#ffffff"),
        ("color(srgb 1 0 0)", "#ff0000"),
        ("rebeccapurple", "#663399"),
    ],
)
def test_css_colours_are_read(nib, text, hexes):
    nib.ink = text
    assert nib.ink.hex == hexes


def test_colours_outside_srgb_keep_hue_and_lightness(nib):
    nib.ink = "oklch(70% 0.4 150)"
    assert all(0 <= channel <= 255 for channel in nib.ink._rgb)
    assert nib.ink.green > nib.ink.red


def test_mixtures_begin_and_end_with_their_colours():
    colours = ramp("gold", "#00008080", 9)
    assert len(colours) == 9
    assert (colours[0].hex, colours[-1].css) == ("#ffd700", "#00008080")
    assert blend("red", "blue", 0).hex == "#ff0000"
    # Turning the hue may leave sRGB and lose a little; a grey has no hue to turn.
    assert shift_hue("gray", 90).hex == "#808080"
    assert shift_hue("seagreen", 360).hex == "#2e8b57"


def test_the_same_seed_gives_the_same_throws_and_both_ends_are_possible():
    one, two = Dice(11), Dice(11)
    throws = [one.integer(1, 3) for _ in range(60)]
    assert throws == [two.integer(1, 3) for _ in range(60)]
    assert set(throws) == {1, 2, 3}
    assert {one.chance(0), one.chance(1)} == {False, True}
    assert sorted(one.shuffled("kite")) == sorted("kite")


def test_a_seed_is_drawn_at_the_first_use_of_dice():
    sheet = Sheet(10, 10)
    assert sheet.seed is None
    first = sheet.dice.number(0, 1)
    assert sheet.seed is not None
    assert Sheet(10, 10, seed=sheet.seed).new_nib().dice.number(0, 1) == first


def test_tones_look_it_and_cover_the_hue_circle():
    from coloraide import Color

    for tone, low, high in (("pale", 0.88, 0.94), ("vivid", 0.62, 0.74), ("deep", 0.36, 0.44)):
        dice = Dice(5)
        found = [Color(dice.colour(tone).hex).convert("oklch") for _ in range(120)]
        assert all(low < colour["lightness"] < high for colour in found)
        assert len({int(colour["hue"] // 45) for colour in found}) == 8
