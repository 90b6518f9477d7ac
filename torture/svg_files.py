"""Odd but legal SVG files, read as motifs and compared with two independent renderers.

    fault_of(7)    # "" or what is wrong with file 7

A file that is drawn differently must say so. The renderers do not always agree; a file counts as wrong where
none of them paints what we paint.
"""

from __future__ import annotations

import contextlib
import io
import random
import shutil
import subprocess
import tempfile
import warnings
from collections.abc import Callable, Iterator
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from ovlo import Motif, PartsSkipped, Sheet

SIDE = 100
"""Units and pixels of a picture, a side."""
MOST_APART = 0.012
"""Of the pixels."""

Pixels = NDArray[np.uint8]


class Odd:
    """One random file."""

    def __init__(self, seed: int) -> None:
        self.dice = random.Random(seed)
        self._names = 0
        self._defined: list[str] = []

    def chance(self, share: float) -> bool:
        """Whether something happens."""
        return self.dice.random() < share

    def pick(self, *items: str) -> str:
        """One of some."""
        return self.dice.choice(items)

    def number(self, low: float = 0, high: float = SIDE) -> str:
        """A number, written in one of the ways there are."""
        value = round(self.dice.uniform(low, high), self.dice.choice([0, 1, 2]))
        text = f"{value:g}"
        return self.dice.choice(
            [
                text,
                text,
                f"{value:.3f}",
                f"{value / 10:g}e1",
                text.replace("0.", ".", 1) if abs(value) < 1 else text,
                f"+{text}" if value > 0 else text,
            ]
        )

    def length(self, low: float = 0, high: float = SIDE) -> str:
        """A length in one of the units."""
        value = self.dice.uniform(low, high)
        unit, size = self.dice.choice(
            [
                *[("", 1.0)] * 5,
                ("px", 1.0),
                ("%", 1.0),
                ("pt", 4 / 3),
                ("mm", 96 / 25.4),
                ("cm", 960 / 25.4),
                ("in", 96.0),
                ("pc", 16.0),
                ("em", 10.0),
            ]
        )
        return f"{value / size:.3f}{unit}"

    def colour(self) -> str:
        """A colour in one of the ways CSS has."""
        r, g, b = (self.dice.randrange(256) for _ in range(3))
        return self.pick(
            f"#{r:02x}{g:02x}{b:02x}",
            f"#{r % 16:x}{g % 16:x}{b % 16:x}",
            f"rgb({r},{g},{b})",
            f"rgb( {r * 100 // 255}% , {g * 100 // 255}% , {b * 100 // 255}% )",
            f"rgba({r}, {g}, {b}, 0.5)",
            f"hsl({r}, {g * 100 // 255}%, {20 + b * 60 // 255}%)",
            f"#{r:02x}{g:02x}{b:02x}80",
            f"rgb({r} {g} {b})",
            f"rgb({r} {g} {b} / 40%)",
            *("tomato", "NAVY", "gold", "RebeccaPurple", "currentColor", "teal", "transparent"),
        )

    def path(self) -> str:
        """Path data of all commands in any order."""
        parts = [self.pick("M", "m") + self._numbers(2)]
        for _ in range(self.dice.randrange(1, 8)):
            letter = self.pick(*"MLHVCSQTAZLCA")
            count = {"M": 2, "L": 2, "H": 1, "V": 1, "C": 6, "S": 4, "Q": 4, "T": 2, "A": 7, "Z": 0}[letter]
            is_relative = self.chance(0.5)
            low = -40 if is_relative else 0
            high = 40 if is_relative else SIDE
            repeats = self.dice.choice([1, 1, 2, 3]) if letter not in "ZM" else 1
            groups = []
            for _ in range(repeats):
                if letter == "A":
                    flags = self.pick("0 0", "01", "1,0", "11", "1 1")
                    groups.append(
                        f"{self.number(1, 40)} {self.number(1, 40)} {self.number(-90, 90)} {flags}"
                        f"{self.pick(' ', ',', '')}{self._numbers(2, low, high)}"
                    )
                else:
                    groups.append(self._numbers(count, low, high))
            parts.append((letter.lower() if is_relative else letter) + " ".join(groups))
        return self.pick("", " ", "\n").join(parts)

    def _numbers(self, count: int, low: float = 0, high: float = SIDE) -> str:
        text = ""
        for _ in range(count):
            number = self.number(low, high)
            gap = self.pick(" ", ",", " , ", "") if text else ""
            if not gap and number[0] not in "+-":
                gap = " "
            text += gap + number
        return text

    def transform(self) -> str:
        """One or two transforms."""
        kinds: list[Callable[[], str]] = [
            lambda: f"translate({self.number(-20, 20)}{self.pick(' ', ',')}{self.number(-20, 20)})",
            lambda: f"translate({self.number(-20, 20)})",
            lambda: f"rotate({self.number(-180, 180)})",
            lambda: f"rotate({self.number(-180, 180)} 50,50)",
            lambda: f"scale({self.number(0.4, 1.5)})",
            lambda: f"scale({self.number(-1.5, 1.5)} {self.number(0.4, 1.5)})",
            lambda: f"skewX({self.number(-40, 40)})",
            lambda: f"skewY({self.number(-40, 40)})",
            lambda: "matrix(" + " ".join(self.number(-1, 1) for _ in range(4)) + " 30 30)",
        ]
        return self.pick(" ", ", ", "").join(
            self.dice.choice(kinds)() for _ in range(self.dice.choice([1, 1, 2]))
        )

    def style(self) -> str:
        """Attributes and styles of an element."""
        options: dict[str, Callable[[], str]] = {
            "fill": lambda: self.pick(
                "none", self.colour(), self.colour(), "inherit", "url(#flat)", "url(#no) red"
            ),
            "stroke": lambda: self.pick("none", self.colour(), self.colour(), "inherit"),
            "stroke-width": lambda: self.pick("0", self.length(1, 8), self.length(1, 8), "inherit"),
            "fill-opacity": lambda: self.pick("0.5", "40%", "1"),
            "stroke-opacity": lambda: self.pick("0.5", "40%"),
            "opacity": lambda: self.pick("0.5", "30%", "1", "0"),
            "fill-rule": lambda: self.pick("evenodd", "nonzero"),
            "stroke-dasharray": lambda: self.pick("none", "6", "5 3", "8,2,3", "5%", "2mm 1mm", "0"),
            "stroke-dashoffset": lambda: self.pick("3", "-4", "10%"),
            "stroke-linecap": lambda: self.pick("butt", "round", "square"),
            "stroke-linejoin": lambda: self.pick("miter", "round", "bevel"),
            "stroke-miterlimit": lambda: self.pick("1", "2", "10", "20"),
            "color": self.colour,
            "visibility": lambda: self.pick("hidden", "visible", "collapse"),
            "display": lambda: self.pick("none", "inline", "block"),
            "paint-order": lambda: self.pick("stroke", "fill stroke", "normal"),
            "font-size": lambda: self.pick("10px", "20", "120%", "2em"),
        }
        rare = {"visibility", "display", "opacity"}
        chosen = [name for name in options if self.chance(0.07 if name in rare else 0.2)]
        attributes, styles = [], []
        for name in chosen:
            value = options[name]()
            if self.chance(0.35):
                important = " !important" if self.chance(0.15) else ""
                styles.append(f"{name}{self.pick(':', ' : ', ': /* so */ ')}{value}{important}")
            else:
                attributes.append(f'{name}="{value}"')
        if self.chance(0.3):
            attributes.append(f'transform="{self.transform()}"')
        if self.chance(0.2):
            attributes.append(f'class="{self.pick("a", "b", "a b")}"')
        if styles:
            attributes.append(f'style="{self.pick(";", " ; ").join(styles)}{self.pick("", ";")}"')
        self.dice.shuffle(attributes)
        return " ".join(attributes)

    def shape(self) -> str:
        """One shape."""
        style = self.style()
        x, y, w, h = self.length(), self.length(), self.length(1, 50), self.length(1, 50)
        corners = self.pick(
            "", f'rx="{self.length(0, 20)}"', f'ry="{self.length(0, 20)}" rx="{self.length(0, 9)}"'
        )
        points = " ".join(f"{self.number()},{self.number()}" for _ in range(self.dice.randrange(2, 6)))
        return self.pick(
            f'<path d="{self.path()}" {style}/>',
            f'<path d="{self.path()}" {style}/>',
            f'<rect x="{x}" y="{y}" width="{w}" height="{h}" {corners} {style}/>',
            f'<circle cx="{x}" cy="{y}" r="{w}" {style}/>',
            f'<ellipse cx="{x}" cy="{y}" rx="{w}" ry="{h}" {style}/>',
            f'<line x1="{x}" y1="{y}" x2="{w}" y2="{h}" {style}/>',
            f'<polyline points="{points}" {style}/>',
            f'<polygon points="{points}" {style}/>',
        )

    def elements(self, depth: int) -> Iterator[str]:
        """Some elements, groups among them."""
        for _ in range(self.dice.randrange(1, 4)):
            kind = self.dice.random()
            if depth and kind < 0.25:
                yield f"<g {self.style()}>{''.join(self.elements(depth - 1))}</g>"
            elif depth and kind < 0.33:
                aspect = self.aspect()
                box = f'viewBox="{self.number(-9, 9)} 0 {self.number(20, 90)},{self.number(20, 90)}"'
                size = self.pick("", f'width="{self.length(30, 90)}" height="{self.length(30, 90)}"')
                overflow = self.pick("", 'overflow="visible"')
                yield (
                    f'<svg x="{self.length(0, 30)}" {size} {box} {aspect} {overflow}>'
                    f"{''.join(self.elements(depth - 1))}</svg>"
                )
            elif kind < 0.42:
                yield self.use(depth)
            else:
                yield self.shape()

    def aspect(self) -> str:
        """How a view is fitted."""
        x, y = self.pick("xMin", "xMid", "xMax"), self.pick("YMin", "YMid", "YMax")
        value = self.pick("none", f"{x}{y}", f"{x}{y} slice", f"{x}{y} meet")
        return self.pick("", f'preserveAspectRatio="{value}"')

    def use(self, depth: int) -> str:
        """Something defined, and its use."""
        self._names += 1
        name = f"u{self._names}"
        place = f'x="{self.length(0, 20)}" y="{self.length(0, 20)}"'
        link = f'{self.pick("href", "xlink:href")}="#{name}"'
        if self.chance(0.4):
            size = self.pick("", f'width="{self.length(20, 60)}" height="{self.length(20, 60)}"')
            inner = "".join(self.elements(0))
            box = f'viewBox="0 0 {self.number(30, 90)} {self.number(30, 90)}"'
            defined = f'<symbol id="{name}" {box} {self.aspect()} overflow="visible">{inner}</symbol>'
            return f"<defs>{defined}</defs><use {link} {place} {size} {self.style()}/>"
        defined = f'<g id="{name}">{self.shape()}</g>'
        return f"<defs>{defined}</defs><use {link} {place} {self.style()}/>"

    def text(self) -> str:
        """The whole file."""
        rules = "".join(
            f"{self.pick('.a', '.b', 'path', 'g .a', '* > circle', '#x')}"
            f"{{{self.pick('fill', 'stroke')}:{self.colour()}{self.pick('', ' !important')}}}"
            for _ in range(self.dice.randrange(3))
        )
        sheet = f"<style>{rules}</style>" if rules else ""
        gradient = (
            '<defs><linearGradient id="flat"><stop stop-color="olive" stop-opacity="50%"/>'
            '<stop offset="1" stop-color="olive" stop-opacity=".5"/></linearGradient></defs>'
        )
        return (
            '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" '
            f'width="{SIDE}" height="{SIDE}" viewBox="0 0 {SIDE} {SIDE}" font-size="10px" '
            f'color="purple">{sheet}{gradient}{"".join(self.elements(2))}</svg>'
        )


def ours(text: str) -> tuple[Pixels, list[str]]:
    """Our picture of a file, and what is said of it."""
    with warnings.catch_warnings(record=True) as caught:
        warnings.simplefilter("always")
        motif = Motif.from_svg(text)
        sheet = Sheet(SIDE, SIDE)
        sheet.new_nib(-SIDE / 2, SIDE / 2).stamp(motif)
        picture = sheet.to_array()
    return picture[..., :3], [str(one.message) for one in caught if one.category is PartsSkipped]


def theirs(text: str) -> Iterator[Pixels]:
    """The pictures of the independent renderers that are here and read the file, the quick ones first."""
    import resvg_py

    with contextlib.suppress(ValueError):
        yield _pixels(bytes(resvg_py.svg_to_bytes(svg_string=text, background="white", dpi=96)))
    if program := shutil.which("rsvg-convert"):
        command = [program, "--background-color=white"]
        done = subprocess.run(command, input=text.encode(), capture_output=True, timeout=60, check=False)
        if not done.returncode:
            yield _pixels(done.stdout)
    if program := shutil.which("chromium"):
        with tempfile.TemporaryDirectory() as folder:
            path, picture = Path(folder) / "it.svg", Path(folder) / "it.png"
            path.write_text(text)
            command = [program, "--headless=new", "--no-sandbox", "--disable-gpu"]
            command += ["--disable-background-networking", f"--user-data-dir={folder}/data"]
            command += ["--window-size=600,600", "--hide-scrollbars", f"--screenshot={picture}"]
            subprocess.run([*command, path.as_uri()], capture_output=True, timeout=120, check=True)
            yield _pixels(picture.read_bytes())[:SIDE, :SIDE]


def _pixels(data: bytes) -> Pixels:
    with Image.open(io.BytesIO(data)) as image:
        return np.asarray(image.convert("RGB"))


def fault_of(seed: int) -> str:
    """What is wrong with one random file, and is not reported; empty if nothing is."""
    text = Odd(seed).text()
    picture, reported = ours(text)
    if reported:
        return ""
    least = 1.0
    for other in theirs(text):
        least = min(least, float((np.abs(picture.astype(int) - other).max(axis=2) > 80).mean()))
        if least <= MOST_APART:
            return ""
    return f"silently different: {least:.1%} of the pixels"
