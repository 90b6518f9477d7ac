"""What one waits for: processes that start, calls of a nib, pictures of many marks, films, variations."""

from __future__ import annotations

import io
import random
import subprocess
import sys
import warnings
from collections.abc import Callable, Iterator
from itertools import pairwise
from pathlib import Path

import numpy as np

from bench.animations import walk
from bench.harness import Ratio, temporary_folder
from bench.starting import EXAMPLES, process_runner
from ovlo import Colour, Nib, Sheet
from ovlo.core.paint.order import painted
from ovlo.core.trail.columns import Style
from ovlo.outlets import as_bytes
from ovlo.program.loading import load
from ovlo.render.formats import agg
from ovlo.render.formats.animation import Playback, film_of

CALLS = 20_000
SIDE = 1000

SMALL = """
from ovlo import drawing

@drawing()
def small(nib, number=1):
    for i in range(20_000):
        nib.forward(number)
        nib.left(i % 7)
"""


STRAIGHT = """
import math
from ovlo import drawing

@drawing(width=1600, height=1200)
def walk(nib):
    for i in range(300_000):
        nib.forward(2)
        nib.left(90 * math.sin(i * i))
"""

CIRCLES = """
from ovlo import drawing

@drawing(width=1000, height=1000)
def circles(nib):
    dice = nib.dice
    for _ in range(20_000):
        nib.travel_to(dice.point(20))
        nib.circle(dice.number(3, 20), fill=dice.colour())
"""


def ratios() -> Iterator[Ratio]:
    """The rows of the table."""
    yield from _processes()
    yield from _calls()
    yield from _pictures()
    yield from _films()


def _processes() -> Iterator[Ratio]:
    folder = temporary_folder()
    process, ovlo = process_runner(folder)
    python, program = sys.executable, str(EXAMPLES / "row_of_kites.py")
    svg = process(ovlo, "draw", program, "-o", "kites.svg")
    png = process(ovlo, "draw", program, "-o", "kites.png")
    click, numpy = process(python, "-c", "import click"), process(python, "-c", "import numpy")
    both = process(python, "-c", "import numpy, click")
    yield Ratio("ovlo draw to SVG", "import numpy, click", 1.5, both, svg)
    yield Ratio("ovlo draw to PNG", "the same to SVG", 1.5, svg, png)
    yield Ratio("import ovlo", "import numpy", 1.2, numpy, process(python, "-c", "import ovlo"))
    used = process(python, "-c", "from ovlo import Sheet, drawing")
    yield Ratio("from ovlo import Sheet, drawing", "import numpy", 1.2, numpy, used)
    yield Ratio("ovlo --help", "import click", 1.5, click, process(ovlo, "--help"))
    (folder / "walk.py").write_text(STRAIGHT)
    (folder / "circles.py").write_text(CIRCLES)
    walked, page = (process(ovlo, "draw", "walk.py", "-o", name) for name in ("walk.svg", "walk.html"))
    yield Ratio("page of 300,000 straight steps", "the same to SVG", 3.5, walked, page)
    drawn = process(ovlo, "draw", "circles.py", "--seed", "3", "-o", "circles.png")
    checked = process(ovlo, "check", "circles.py", "--seed", "3")
    yield Ratio("check of 20,000 filled circles", "the same to PNG", 2, drawn, checked)
    (folder / "small.py").write_text(SMALL)
    small = load(str(folder / "small.py")).drawing()

    def alone() -> None:
        for number in range(1, 101):
            as_bytes(small.run(number=number), ".svg")

    vary = process(ovlo, "vary", "small.py", "--values", "number=1..100", "--workers", "2", "-o", "all.svg")
    yield Ratio(
        "vary of 100 small pictures, two workers", "each drawn alone, in one process", 0.9, alone, vary
    )


def _calls() -> Iterator[Ratio]:
    def walk() -> None:
        nib = Sheet(640, 480).new_nib()
        for _ in range(CALLS):
            nib.forward(1.5)
            nib.left(1.1)

    def repeated(work: Callable[[Nib], object]) -> Callable[[], None]:
        def run() -> None:
            nib = Sheet(640, 480).new_nib()
            with warnings.catch_warnings():
                warnings.simplefilter("ignore")
                for _ in range(CALLS):
                    work(nib)

        return run

    def back(nib: Nib) -> None:
        with nib.returning():
            pass

    def area(nib: Nib) -> None:
        with nib.area("gold"):
            pass

    def ink(nib: Nib) -> None:
        nib.ink = "tomato" if nib.ink.red == 0 else "black"

    works: tuple[tuple[str, float, Callable[[Nib], object]], ...] = (
        ("with returning()", 4, back),
        ("with area()", 6, area),
        ("ink changed", 1.7, ink),
        ("circle", 4, lambda nib: nib.circle(5)),
        ("polygon(6)", 8, lambda nib: nib.polygon(6, radius=9)),
        ("text", 5, lambda nib: nib.text("Bay")),
    )
    for what, most, work in works:
        yield Ratio(what, "forward and left", most, walk, repeated(work))
    chance, dice = random.Random(1), Sheet(seed=1).dice

    def twice() -> None:
        for _ in range(CALLS):
            chance.random()
            chance.random()

    for what, throw in (("dice.colour", lambda: dice.colour("vivid")), ("dice.point", dice.point)):
        count = CALLS // (20 if what == "dice.colour" else 1)

        def thrown(throw: Callable[[], object] = throw, count: int = count) -> None:
            for _ in range(count):
                throw()

        yield Ratio(what, "random() twice", 12, twice, thrown, CALLS, count)
    points, scattered = (lambda: [dice.point() for _ in range(30)]), (lambda: dice.scattered(30))
    yield Ratio("dice.scattered(30)", "thirty dice.point", 20, points, scattered)


def _pictures() -> Iterator[Ratio]:
    chance = random.Random(1)
    circles, words, lines = Sheet(SIDE, SIDE), Sheet(SIDE, SIDE), Sheet(SIDE, SIDE)
    for sheet in (circles, words, lines):
        nib = sheet.new_nib()
        for i in range({id(circles): 20_000, id(words): 3000, id(lines): 60_000}[id(sheet)]):
            place = chance.uniform(-480, 480), chance.uniform(-480, 480)
            if sheet is lines:
                nib.line_to(place)
                continue
            nib.travel_to(place)
            if sheet is circles:
                ink = Colour.from_rgb(i % 256, i * 7 % 256, i // 256 * 3)
                nib.circle(chance.uniform(3, 20), fill=ink)
            else:
                nib.text(chance.choice(["kite", "bay", "harbour", "wind", "string", "tail", "gull"]))
    for what, sheet, most in (("20,000 filled circles", circles, 1.5), ("3,000 words", words, 2)):
        yield Ratio(
            f"PDF of {what}", "PNG of the same", most, _written(sheet, ".png"), _written(sheet, ".pdf")
        )
    yield Ratio(
        "PNG of 60,000 lines across the sheet",
        "Agg, a few lines at a time",
        1.1,
        _bare_lines(lines),
        _written(lines, ".png"),
    )
    short, long = _walked(1_000_000), _walked(10_000_000)
    for ending in (".svg", ".png"):
        what = f"{ending[1:].upper()} of 10,000,000 steps"
        yield Ratio(what, "of 1,000,000", 11, _written(short, ending), _written(long, ending))


def _written(sheet: Sheet, ending: str) -> Callable[[], object]:
    target = temporary_folder() / f"picture{ending}"
    return lambda: sheet.save(target)


def _walked(count: int) -> Sheet:
    sheet = Sheet(SIDE, SIDE)
    generator = np.random.default_rng(1)
    nib = sheet.new_nib()
    for _ in range(count // 1_000_000):
        nib.walk(generator.uniform(1, 2, 1_000_000), generator.uniform(-170, 170, 1_000_000))
    return sheet


def _bare_lines(sheet: Sheet) -> Callable[[], None]:
    """The fastest way found: two points to eight of them at a time."""
    strokes = painted(sheet._columns).strokes
    bounds = [*range(0, len(strokes.vertices), 3), len(strokes.vertices)]

    def draw() -> None:
        from PIL import Image

        canvas = agg.new_agg(SIDE, SIDE)
        manner, matrix = agg.Manner(Style(), 1.0), agg.matrix(-SIDE / 2, -SIDE / 2, 1.0)
        for first, stop in pairwise(bounds):
            canvas.draw_path(manner, agg.Path(strokes.vertices[max(first - 1, 0) : stop], None), matrix, None)
        Image.fromarray(np.asarray(canvas)).convert("RGB").save(io.BytesIO(), "png")

    return draw


def _films() -> Iterator[Ratio]:
    sheet = Sheet(640, 480, paper="aliceblue")
    walk(sheet.new_nib())
    film = film_of(sheet, Playback(seconds=4, fps=25, hold=0))
    first, *others = list(film)
    folder = temporary_folder()
    for ending, name in ((".gif", "GIF"), (".apng", "PNG")):

        def encode(name: str = name) -> None:
            first.save(io.BytesIO(), name, save_all=True, append_images=others, duration=40, loop=0)

        def save(target: Path = folder / f"film{ending}") -> None:
            film.save(target)

        what = f"{ending[1:].upper()} of 100 frames, 640 × 480"
        yield Ratio(what, "Pillow encoding them", 1.5, encode, save)


def bytes_at_the_peak() -> float:
    """Bytes of memory a step of ten million takes while its SVG is written, above an empty sheet."""
    code = (
        "import sys; from bench.quick import _walked, _written; "
        "_written(_walked(int(sys.argv[1])), '.svg')(); "
        "print(open('/proc/self/status').read().split('VmHWM:')[1].split()[0])"
    )
    peaks = []
    for count in (0, 10_000_000):
        command = [sys.executable, "-c", code, str(count)]
        peaks.append(int(subprocess.run(command, capture_output=True, text=True, check=True).stdout))
    return (peaks[1] - peaks[0]) * 1024 / 10_000_000
