"""Animations read back: how long they last, how they grow, and how they end."""

from __future__ import annotations

import io
import re
import xml.etree.ElementTree as ElementTree
from dataclasses import replace

import numpy as np
import pytest
from PIL import Image, ImageSequence

from ovlo import BadType, BadValue, Motif, OvloWarning, Sheet
from ovlo.core.paint.stretch import Parts
from ovlo.core.values.colour import TRANSPARENT
from ovlo.program.examples import example_files
from ovlo.program.loading import load
from ovlo.program.running import run_program
from ovlo.render.formats.animation import STAGES, Playback, film_of
from ovlo.render.formats.png import rasterise
from ovlo.render.frames import Frames
from ovlo.render.page import Page

PACE = Playback(seconds=2, fps=20, hold=0.5)


def sails() -> Sheet:
    sheet = Sheet(300, 200, paper="aliceblue")
    nib = sheet.new_nib(x=-100, y=-60)
    with nib.area("gold"):
        for _ in nib.full_turn(5):
            nib.forward(50)
            nib.pause(0.2)
    nib.travel(90)
    nib.text("Kites", 20)
    with nib.area("tomato", outline=False), nib.area("navy"):
        nib.circle(30)
    for _ in range(60):
        nib.forward(6)
        nib.left(8)
    return sheet


def played(path):
    """Every frame with the seconds it stays."""
    with Image.open(path) as film:
        for number in range(film.n_frames):
            film.seek(number)
            film.load()
            yield np.asarray(film.convert("RGB")), film.info["duration"] / 1000


@pytest.mark.parametrize("suffix", [".gif", ".apng", ".png", ".webp"])
def test_it_lasts_grows_and_ends_as_the_saved_picture(tmp_path, suffix):
    sheet = sails()
    path = tmp_path / f"sails{suffix}"
    film_of(sheet, PACE).save(path)
    frames, seconds = zip(*played(path), strict=True)
    assert sum(seconds) == pytest.approx(2 + 5 * 0.2 + 0.5, abs=0.02)
    paper = frames[0][0, 0]
    marked = [(frame != paper).any(axis=2).sum() for frame in frames]
    assert len(frames) > 20
    assert marked[0] < marked[len(frames) // 2] < marked[-1]
    assert marked[:-1] == sorted(marked[:-1])
    assert marked[-1] > 0.998 * marked[-2]  # the last is painted whole, and edges that lie on others once
    sheet.save(tmp_path / "saved.png")
    with Image.open(tmp_path / "saved.png") as saved:
        wanted = np.asarray(saved).astype(int)
    # A GIF has 256 colours: those of the drawing itself are exact, the others nearly so.
    apart = abs(frames[-1].astype(int) - wanted).max(axis=2)
    assert apart.max() == 0 if suffix != ".gif" else ((apart == 0).mean() > 0.98 and apart.max() < 40)
    assert all((frame[0, 0] == wanted[0, 0]).all() for frame in frames)


def test_the_nib_is_shown_when_asked_for(tmp_path):
    sheet = sails()
    plain, shown = (film_of(sheet, Playback(1, 10, 0, nib)) for nib in (False, True))
    for number, (without, with_nib) in enumerate(zip(plain, shown, strict=True)):
        differ = (np.asarray(without) != np.asarray(with_nib)).any(axis=2)
        assert 50 < differ.sum() < 900, number
    sheet.nibs[0].pointer = None
    assert (np.asarray(plain.last()) == np.asarray(film_of(sheet, Playback(1, 10, 0, True)).last())).all()
    with pytest.raises(BadType, match="pointer"):
        sheet.nibs[0].pointer = "arrow"  # type: ignore[assignment]


@pytest.mark.parametrize("suffix", [".gif", ".apng", ".webp"])
def test_frames_without_anything_new_are_frames(tmp_path, suffix):
    sheet = Sheet(60, 40)
    nib = sheet.new_nib()
    with nib.lifted():
        nib.forward(5)
        nib.forward(5)
    nib.forward(9)
    film_of(sheet, Playback(2, 10, 0)).save(tmp_path / f"kite{suffix}")
    frames, seconds = zip(*played(tmp_path / f"kite{suffix}"), strict=True)
    assert sum(seconds) == pytest.approx(2, abs=0.02)
    assert (frames[0].min(), frames[-1].min()) == (255, 0)


def test_an_overlay_lies_over_every_frame_also_where_a_line_grows():
    sheet = sails()
    plain, seen = (film_of(sheet, Playback(1, 13, 0, overlay=names)) for names in ((), ("grid", "axes")))
    over = Image.fromarray(rasterise(seen.overlay, replace(seen.page, paper=TRANSPARENT)))
    assert any(place % 1 for place in seen.places)
    for number, (without, shown) in enumerate(zip(plain, seen, strict=True)):
        wanted = np.asarray(Image.alpha_composite(without.convert("RGBA"), over).convert("RGB")).astype(int)
        assert abs(wanted - np.asarray(shown)).max() <= 2, number


def test_frames_only_add_and_come_out_as_if_painted_whole():
    (harbour,) = [path for path in example_files() if path.stem == "harbour"]
    sheet = run_program(load(str(harbour)), seed=4).sheet
    columns, page = sheet._columns, Page.of(sheet, 0.5)
    frames, parts = Frames(columns, page), Parts(columns)
    for steps in range(0, len(columns), 97):
        frames.jump(steps)
        whole = rasterise(parts.until(steps), page)
        differ = (abs(whole.astype(int) - frames.pixels) > 32).any(axis=2)
        assert differ.mean() < 0.0005
        before = frames.pixels.copy()
        frames.jump(min(steps + 20, len(columns) - 1))
    frames.jump(200)
    assert (frames.pixels != before).any()
    frames.jump(len(columns))
    assert (frames.pixels == rasterise(columns, page)).all()


def test_an_area_appears_under_its_lines_when_its_block_ends():
    sheet = Sheet(200, 200)
    nib = sheet.new_nib(x=-50, y=-50)
    nib.line_width, nib.ink = 10, "#ff000080"
    with nib.area("blue"):
        for _ in nib.full_turn(4):
            nib.forward(100)
    nib.travel(5)
    columns, page = sheet._columns, Page.of(sheet)
    frames = Frames(columns, page)
    colours = []
    for steps in range(1, len(columns)):
        frames.jump(steps)
        colours.append(frames.pixels[100, 100, :3].tolist())
    assert colours == [[255, 255, 255]] * 4 + [[0, 0, 255]]
    assert frames.pixels[148, 100, 0] == pytest.approx(128, abs=1)  # the line once, over the area


def test_an_svg_draws_itself(tmp_path):
    path = tmp_path / "sails.svg"
    film_of(sails(), Playback(2, 20, 0.5, True)).save(path)
    root = ElementTree.parse(path).getroot()
    assert root.tag.endswith("svg")
    text = path.read_text()
    assert "http" not in text.replace("http://www.w3.org/2000/svg", "")
    starts = [float(found) for found in re.findall(r"--ovlo-at:([0-9.]+)s", text)]
    assert 0 <= min(starts) < 1 < max(starts) <= 3.0


def test_a_browser_plays_that_svg(tmp_path, chromium):
    path = tmp_path / "sails.svg"
    film_of(sails(), Playback(2, 20, 0.5, True)).save(path)
    chromium.get(path.as_uri())
    marked = []
    for milliseconds in (600, 5000):
        chromium.execute_script(
            "for (const one of document.getAnimations()) { one.pause(); one.currentTime = arguments[0]; }",
            milliseconds,
        )
        shot = chromium.find_element("css selector", "svg").screenshot_as_png
        pixels = np.asarray(Image.open(io.BytesIO(shot)).convert("RGB")).astype(int)
        marked.append((abs(pixels - pixels[0, 0]).max(axis=2) > 32).sum())
    assert 100 < marked[0] < 0.5 * marked[1]


def test_the_command(ovlo_command, program, tmp_path):
    path = program("from ovlo import Sheet\nSheet(90, 60).new_nib().walk([20, 9], 9)\n")
    done = ovlo_command("animate", path, "-o", "kite.gif", "-o", "kite.svg", "--seconds", 1, "--fps", 10)
    assert done.returncode == 0, done.stderr
    assert "kite.gif: 10 frames, 2 s, 90 × 60 px" in done.stdout
    assert (tmp_path / "kite.svg").exists()
    wrong = ovlo_command("animate", path, "-o", "kite.mp4")
    assert (wrong.returncode, "there is no animation format '.mp4'" in wrong.stderr) == (2, True)
    zero = ovlo_command("animate", path, "--seconds", 0)
    assert zero.returncode == 2


def test_too_many_frames_are_refused():
    with pytest.raises(BadValue, match="fewer seconds"):
        film_of(sails(), Playback(seconds=3600, fps=60))


def test_a_mark_of_ones_own_is_a_motif():
    sheet = sails()
    kite = Motif.record(lambda nib: nib.polygon(4, radius=9, fill="navy"))
    sheet.nibs[0].pointer = kite
    assert sheet.nibs[0].pointer is kite
    pixels = np.asarray(film_of(sheet, Playback(1, 5, 0, True)).last())
    assert (pixels == (0, 0, 128)).all(axis=2).sum() > 50


@pytest.mark.parametrize("ending", [".gif", ".apng", ".webp", ".svg"])
def test_progress_goes_on_until_the_file_is_there(ending, tmp_path):
    sheet = Sheet(60, 40)
    sheet.new_nib().circle(15)
    film = film_of(sheet, Playback(1, 10, 0))
    told = []
    film.save(tmp_path / f"a{ending}", told.append)
    assert sum(told) == STAGES * len(film)
    if ending == ".webp":  # which is encoded frame by frame after all are painted
        assert told[: STAGES * len(film)] == [1] * STAGES * len(film)


def film_pixels(paper: str, name: str) -> list[np.ndarray]:
    sheet = Sheet(60, 40, paper=paper)
    nib = sheet.new_nib()
    nib.ink, nib.line_width = "tomato", 6
    nib.forward(20)
    nib.circle(8, fill="gold")
    sheet.animate(name, seconds=0.5, fps=6, pointer=True)
    with Image.open(name) as image:
        return [np.asarray(frame.convert("RGBA")) for frame in ImageSequence.Iterator(image)]


def test_a_gif_of_a_transparent_sheet_is_transparent():
    frames = film_pixels("transparent", "kite.gif")
    assert [frame[0, 0, 3] for frame in frames] == [0] * len(frames)
    # What the pointer covered becomes clear again.
    assert frames[0][..., 3].any()
    assert (frames[-1][20, 50] == [255, 215, 0, 255]).all()
    assert (frames[-1][..., 3] > 0).sum() < 1200


@pytest.mark.parametrize(("opacity", "words", "seen"), [(60, "opaque", 255), (30, "transparent", 0)])
def test_a_gif_of_a_translucent_sheet_says_what_becomes_of_its_paper(opacity, words, seen):
    with pytest.warns(OvloWarning, match=f"its paper is {words}"):
        frames = film_pixels(f"rgb(0 0 255 / {opacity}%)", "kite.gif")
    assert {int(frame[0, 0, 3]) for frame in frames} == {seen}
    assert {int(frame[0, 0, 3]) for frame in film_pixels(f"rgb(0 0 255 / {opacity}%)", "kite.webp")} == {
        round(255 * opacity / 100)
    }
