"""The page draws what our PNG shows: every example, and pages full of each kind of mark."""

from __future__ import annotations

import base64
import io

import numpy as np
import pytest
from PIL import Image
from torture.programs import Program

from ovlo import Motif, Sheet
from ovlo.core.paint.stretch import Parts
from ovlo.outlets import as_bytes
from ovlo.program.examples import example_files
from ovlo.program.loading import load
from ovlo.program.running import Limits, run_drawing
from ovlo.render.formats.png import rasterise
from ovlo.render.page import Page

pytestmark = pytest.mark.long


def drawn(chromium, step: int | None = None, scale: float = 1) -> np.ndarray:
    address = chromium.execute_script(
        f"return ovlo.pictureOf({'undefined' if step is None else step}, {scale})"
    )
    return np.asarray(Image.open(io.BytesIO(base64.b64decode(address.partition(",")[2]))).convert("RGBA"))


def share_apart(ours: np.ndarray, theirs: np.ndarray, least: int) -> float:
    """How many pixels differ by more than that; where both are clear, colours say nothing.

    Where many edges cross one pixel, ours lays shares over each other, and the page counts samples: on dense
    pages some pixels differ by 32 there.
    """
    assert ours.shape == theirs.shape
    a, b = (np.where(one[..., 3:] > 0, one, 0).astype(int) for one in (ours, theirs))
    return float((np.abs(a - b).max(axis=2) > least).mean())


def png(sheet: Sheet, scale: float = 1) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(as_bytes(sheet, ".png", scale=scale))).convert("RGBA"))


DENSE = {"braid", "compass_rose", "creel", "patched_sails", "turning_sky"}
"""Works in which many edges cross one pixel, or lie on one another."""


def examples():
    for path in example_files():
        program = load(str(path))
        if program.declares:
            for name in program.drawings():
                yield pytest.param(path, name, id=name)


@pytest.mark.parametrize(("path", "name"), list(examples())[::4])
def test_every_fourth_example_is_drawn_as_in_its_png(path, name, opened, tmp_path):
    sheet = run_drawing(load(str(path)).drawings()[name], {}, 4, Limits()).sheet
    sheet.save(tmp_path / "page.html")
    shown = drawn(opened(tmp_path / "page.html"))
    assert share_apart(shown, png(sheet), 64) < 0.0003
    assert share_apart(shown, png(sheet), 32) < (0.01 if name in DENSE else 0.001)


def lines(nib, dice):
    for _ in range(300):
        nib.ink = dice.colour("deep")
        nib.line_width = dice.number(0.3, 6)
        nib.line_cap = dice.pick(["butt", "round", "square"])
        nib.line_join = dice.pick(["miter", "round", "bevel"])
        nib.travel_to(dice.point())
        for _ in range(4):
            nib.line_to(dice.point(20))


def dashes(nib, dice):
    for dash in ((9, 5), (4,), (12, 3, 2, 3), (0, 7)):
        nib.line_dash, nib.line_width = dash, dice.number(2, 5)
        for _ in range(8):
            nib.travel_to(dice.point(40))
            nib.spiral(2, 40, inner_radius=4)
            nib.polygon(5, radius=35)


def translucent(nib, dice):
    nib.ink, nib.line_width = "#0a70a060", 7
    for _ in range(3):
        for _ in range(700):
            nib.forward(dice.number(4, 20))
            nib.left(dice.number(-60, 75))
        nib.travel_to(0, 0)


def areas(nib, dice):
    for rule in ("nonzero", "evenodd"):
        for _ in range(60):
            nib.travel_to(dice.point(30))
            nib.star(7, dice.number(10, 60), 3, fill=f"{dice.colour().hex}a0", fill_rule=rule)
            with nib.area(dice.colour("pale"), outline=dice.chance(0.5), fill_rule=rule):
                nib.arc_left(20, 200)
                nib.arc_right(9, 300)


def words(nib, dice):
    for _ in range(60):
        nib.travel_to(dice.point(20))
        nib.turn_to(dice.number(0, 360))
        nib.ink = dice.colour("vivid")
        font = dice.pick(["serif", "sans-serif", "monospace"])
        nib.text("Kite day & <Marrow Bay>", dice.number(6, 30), font, dice.pick(["normal", "bold"]))


def stamps(nib, dice):
    bow = Motif.record(lambda nib: [nib.circle(9, fill="gold"), nib.arc_left(20, 140), nib.forward(0)])
    for _ in range(300):
        nib.travel_to(dice.point())
        nib.stamp(bow, dice.number(0.2, 1.5), dice.number(0, 360))


def dots(nib, dice):
    nib.ink = "#b3126480"
    for cap in ("square", "round"):
        nib.line_cap, nib.line_width, nib.line_dash = cap, 11, ()
        for _ in range(40):
            nib.travel_to(dice.point(20))
            nib.turn_to(dice.number(0, 360))
            nib.forward(0)
            nib.arc_left(0, 60)
        nib.line_width, nib.line_dash = 6, (0, 13)
        for _ in range(12):
            nib.travel_to(dice.point(60))
            nib.arc_left(50, 200)


@pytest.mark.parametrize(
    ("draw", "scale"),
    [
        (dots, 1),
        (dots, 2),
        (lines, 1),
        (lines, 2),
        (dashes, 1),
        (translucent, 2),
        (areas, 1),
        (words, 2),
        (stamps, 1),
    ],
)
def test_a_page_full_of_each_kind_of_mark_is_drawn_as_in_its_png(draw, scale, opened, tmp_path):
    sheet = Sheet(500, 400, seed=5)
    draw(sheet.new_nib(), sheet.dice)
    sheet.save(tmp_path / "page.html")
    shown = drawn(opened(tmp_path / "page.html"), scale=scale)
    assert share_apart(shown, png(sheet, scale), 64) < 0.0005
    assert share_apart(shown, png(sheet, scale), 32) < 0.005


def test_after_any_step_random_programs_are_drawn_as_in_our_frames(opened, tmp_path):
    for seed in range(6):
        sheet = Program(seed, 20).run()
        sheet.save(tmp_path / "page.html")
        chromium = opened(tmp_path / "page.html")
        parts, page = Parts(sheet._columns), Page.of(sheet)
        for steps in np.unique(np.linspace(0, len(sheet._columns), 5).astype(int)).tolist():
            whole = rasterise(parts.until(steps), page)
            assert share_apart(drawn(chromium, steps - 1), whole, 96) < 0.004, (seed, steps)


def test_dashes_that_another_nib_interrupts_go_on_on_the_page_too(opened, tmp_path):
    sheet = Sheet(300, 160)
    nibs = [sheet.new_nib(x=x) for x in (-75, 75)]
    for nib in nibs:
        nib.line_width, nib.line_dash, nib.line_cap = 3, (12, 8, 3, 8), "butt"
    nibs[1].ink = "tomato"
    for _ in range(90):
        for nib in nibs:
            nib.forward(4)
            nib.left(4)
    sheet.save(tmp_path / "page.html")
    assert share_apart(png(sheet), drawn(opened(tmp_path / "page.html")), 64) < 0.003


def test_a_large_picture_is_the_same_whichever_way_one_came_to_its_step(opened, tmp_path):
    from selenium.webdriver.support.ui import WebDriverWait

    sheet = Sheet(400, 300, seed=3)
    nib, dice = sheet.new_nib(), sheet.dice
    for i in range(40_000):
        nib.forward(2)
        nib.left(dice.number(-30, 30.2))
        if i == 20_000:
            nib.ink = "#b3126480"
    sheet.save(tmp_path / "page.html")
    shown = "return document.getElementById('canvas').toDataURL()"
    # A link to a step paints it from the beginning.
    page = opened(tmp_path / "page.html", "#step=15000")
    waiting = WebDriverWait(page, 20, 0.1)
    seen: list[str] = []

    def is_still(page) -> bool:
        seen.append(page.execute_script(shown))
        return seen[-3:] == [seen[-1]] * 3

    waiting.until(is_still)
    expected = seen[-1]
    for step in (39_999, 14_000, 30_000, 15_000):
        page.execute_script(f"ovlo.showStep({step})")
    waiting.until(lambda page: page.execute_script(shown) == expected)
