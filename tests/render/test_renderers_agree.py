"""The harbour as SVG and PDF, rasterised by programs that are not ours, against our own PNG."""

from __future__ import annotations

import shutil
import subprocess
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from numpy.typing import NDArray
from PIL import Image

from ovlo import Motif, Sheet
from ovlo.program.examples import example_files
from ovlo.program.loading import load
from ovlo.program.running import run_program

Renderer = Callable[[Path, Path], None]
"""What makes a PNG of an SVG."""

FAR = 32
"""Of 255: a difference that the eye sees."""


def rsvg(svg: Path, png: Path) -> None:
    subprocess.run(["rsvg-convert", svg, "-o", png], check=True)


def pdftoppm(svg: Path, png: Path) -> None:
    pdf = svg.with_suffix(".pdf")
    target = png.with_suffix("")
    subprocess.run(["pdftoppm", "-r", "96", "-png", "-singlefile", pdf, target], check=True)


RENDERERS = {"rsvg-convert": rsvg, "pdftoppm": pdftoppm}


def in_browser(browser: Any) -> Renderer:
    def shot(svg: Path, png: Path) -> None:
        with Image.open(svg.with_suffix(".png")) as ours:
            size = {"width": ours.width, "height": ours.height, "deviceScaleFactor": 1, "mobile": False}
        browser.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", size)
        browser.get(svg.as_uri())
        browser.save_screenshot(str(png))
        browser.execute_cdp_cmd("Emulation.clearDeviceMetricsOverride", {})

    return shot


@pytest.fixture(params=[*RENDERERS, "chromium"])
def renderer(request: pytest.FixtureRequest) -> Renderer:
    if request.param == "chromium":
        return in_browser(request.getfixturevalue("chromium"))
    if shutil.which(request.param) is None:
        pytest.skip(f"{request.param} is not installed")
    return RENDERERS[request.param]


def both(sheet: Sheet, renderer: Renderer) -> list[NDArray[np.int64]]:
    """Our pixels and theirs."""
    for suffix in ("svg", "png", "pdf"):
        sheet.save(f"picture.{suffix}")
    theirs = Path("theirs.png").resolve()
    renderer(Path("picture.svg").resolve(), theirs)
    found = []
    for path in ("picture.png", theirs):
        with Image.open(path) as picture:
            found.append(np.asarray(picture.convert("RGB")).astype(int))
    return found


def test_the_harbour_looks_the_same(renderer):
    (harbour,) = (path for path in example_files() if path.stem == "harbour")
    sheet = run_program(load(str(harbour)), {"title": ""}, seed=4).sheet
    ours, theirs = both(sheet, renderer)
    assert ours.shape == theirs.shape == (800, 1280, 3)
    assert (np.abs(ours - theirs).max(axis=2) > FAR).mean() < 0.005


def test_every_shape_rule_and_line_looks_the_same(renderer, sheet, nib):
    nib.line_width = 5
    for i, rule in enumerate(["nonzero", "evenodd"]):
        nib.travel_to(-240, 150 - 130 * i)
        nib.star(7, 55, 3, fill="gold", fill_rule=rule, turn=90)
        nib.travel(130)
        nib.ellipse(110, 50, turn=30 + 60 * i, fill="#ff634780")
        nib.travel(130)
        with (
            nib.area("khaki", fill_rule=rule),
            nib.styled(ink="#00008080", line_join="miter", line_cap="butt"),
        ):
            nib.circle(50)
            nib.polygon(3, radius=30)
            nib.forward(60)
            nib.left(150)
            nib.forward(60)
            nib.right(150)
        nib.travel(60)
        with nib.styled(line_dash=(12, 8), line_cap=("butt", "square")[i]):
            nib.spiral(3, 55)
    nib.travel_to(-240, -190)
    with nib.styled(line_width=16, line_cap="round"):
        nib.forward(0)
    nib.travel(40)
    with nib.styled(line_width=14, line_join="bevel"):
        nib.walk([60, 60, 60], [120, 120, -60])
        nib.arc_right(30, 500)
    ours, theirs = both(sheet, renderer)
    # Many edges on a small sheet, each smoothed in its renderer's own way.
    assert (np.abs(ours - theirs).max(axis=2) > 2 * FAR).mean() < 0.005


def test_motifs_with_cubic_curves_look_the_same(renderer, sheet, nib):
    (folder,) = {path.parent for path in example_files()}
    kite = Motif.from_svg(folder / "kite.svg").centred()
    for i in range(3):
        nib.travel_to(-200 + 200 * i, 0)
        nib.stamp(kite.mirrored(30 * i), scale=1 + i / 4, turn=50 * i)
    ours, theirs = both(sheet, renderer)
    assert (ours.min(axis=2) < 128).mean() > 0.01
    assert (np.abs(ours - theirs).max(axis=2) > 2 * FAR).mean() < 0.005


@pytest.mark.parametrize("align", ["start", "middle", "end"])
@pytest.mark.parametrize("baseline", ["alphabetic", "middle", "hanging"])
def test_words_stand_in_the_same_place(align, baseline):
    if shutil.which("rsvg-convert") is None or shutil.which("pdftoppm") is None:
        pytest.skip("rsvg-convert or pdftoppm is not installed")
    if "DejaVu Sans" not in subprocess.run(["fc-list"], capture_output=True, text=True).stdout:
        pytest.skip("the font DejaVu Sans is not installed")
    sheet = Sheet(400, 300)
    nib = sheet.new_nib(heading=20)
    nib.text("Kité <&> gull", size=28, font="DejaVu Sans", align=align, baseline=baseline)
    for render in (rsvg, pdftoppm):
        edges = []
        for pixels in both(sheet, render):
            rows, columns = np.nonzero(pixels.min(axis=2) < 128)
            edges.append([rows.min(), rows.max(), columns.min(), columns.max()])
        assert np.abs(np.subtract(*edges)).max() <= 2


@pytest.mark.parametrize("size", [(210, 148.5), (99.9, 60.3)])
def test_sheets_with_a_part_of_a_pixel_are_the_same_as_png_and_as_svg(size, tmp_path):
    if shutil.which("rsvg-convert") is None:
        pytest.skip("rsvg-convert is not installed")
    sheet = Sheet(*size, unit="mm", paper="aliceblue")
    nib = sheet.new_nib()
    nib.rectangle(size[0] - 4, size[1] - 4, fill="gold")
    nib.star(7, 20, fill="tomato")
    for suffix in (".svg", ".png"):
        sheet.save(tmp_path / f"kite{suffix}")
    rsvg(tmp_path / "kite.svg", tmp_path / "theirs.png")
    theirs, ours = (
        np.asarray(Image.open(tmp_path / name).convert("RGB")).astype(int)
        for name in ("theirs.png", "kite.png")
    )
    assert theirs.shape == ours.shape
    # The last row and column, of which only a part is paper, are mixed with what is around it.
    far = (abs(theirs - ours).max(axis=2) > FAR)[:-1, :-1]
    assert far.mean() < 0.003


def dashed_pair(in_turns: bool) -> Sheet:
    """Two dashed nibs that walk circles, step by step in turns, or one after the other."""
    sheet = Sheet(300, 160, paper="aliceblue")
    nibs = [sheet.new_nib(x=x) for x in (-75, 75)]
    for nib, ink in zip(nibs, ("navy", "tomato"), strict=True):
        nib.ink, nib.line_width, nib.line_dash, nib.line_cap = ink, 3, (12, 8, 3, 8), "butt"
    moves = (
        [(nib, i) for i in range(90) for nib in nibs]
        if in_turns
        else [(nib, i) for nib in nibs for i in range(90)]
    )
    for nib, i in moves:
        nib.forward(4)
        nib.left(4)
        if i == 40:
            nib.circle(3)
    return sheet


def test_dashes_go_on_where_another_nib_or_a_shape_came_between(tmp_path, renderer):
    turns, apart = dashed_pair(True), dashed_pair(False)
    assert (abs(turns.to_array().astype(int) - apart.to_array()).max(axis=2) > FAR).mean() < 0.002
    for suffix in (".svg", ".pdf", ".png"):
        turns.save(tmp_path / f"turns{suffix}")
    renderer(tmp_path / "turns.svg", tmp_path / "theirs.png")
    theirs = np.asarray(Image.open(tmp_path / "theirs.png").convert("RGB")).astype(int)
    assert (abs(theirs - apart.to_array()[..., :3]).max(axis=2) > 2 * FAR).mean() < 0.004
