"""Machines that draw what a file tells them: independent interpreters of G-code, HP-GL/2 and plotters' SVG.

Each gives what its pens drew, as lists of points in millimetres by the number of the pen, and is strict: what
it does not know, and a line that leads elsewhere than it says, is an error.
"""

from __future__ import annotations

import math
import re
from collections import defaultdict

import numpy as np
import svgelements

Lines = dict[int, list[list[tuple[float, float]]]]


class Head:
    """A pen over paper."""

    def __init__(self) -> None:
        self.place = (0.0, 0.0)
        self.pen = 1
        self.is_down = False
        self.drawn: Lines = defaultdict(list)
        self.travelled: list[tuple[float, float]] = [self.place]

    def go(self, x: float, y: float) -> None:
        """Go straight, drawing if the pen is down."""
        self.place = (x, y)
        if self.is_down:
            self.drawn[self.pen][-1].append(self.place)
        else:
            self.travelled.append(self.place)

    def lower(self) -> None:
        if not self.is_down:
            self.drawn[self.pen].append([self.place])
        self.is_down = True

    def arc(self, centre: tuple[float, float], sweep: float) -> None:
        """Go around a centre by an angle in degrees, to the left above 0."""
        x, y = self.place[0] - centre[0], self.place[1] - centre[1]
        pieces = max(2, math.ceil(abs(sweep)))
        for i in range(1, pieces + 1):
            angle = math.radians(sweep * i / pieces)
            turned = x * math.cos(angle) - y * math.sin(angle), x * math.sin(angle) + y * math.cos(angle)
            self.go(centre[0] + turned[0], centre[1] + turned[1])


def gcode(text: str) -> Head:
    """What a machine with a pen on its Z axis draws: down at 0, up above (ISO 6983-1)."""
    head, codes, feed = Head(), set(), None
    lines = text.splitlines()
    assert lines[0] == lines[-1] == "%"
    for line in lines[1:-1]:
        words = re.findall(r"([A-Z])(-?\d+(?:\.\d+)?)", re.sub(r"\(.*?\)", "", line))
        assert re.sub(r"\(.*?\)", "", line).split() == [a + b for a, b in words], line
        values = {letter: float(value) for letter, value in words}
        if not words:
            continue
        code = words[0][0] + words[0][1]
        codes.add(code)
        if code == "M0":
            assert not head.is_down
            head.pen += 1
        elif code in ("G0", "G1") and "Z" in values:
            if values["Z"] > 0:
                head.is_down = False
            else:
                head.lower()
                # A feed of its own, and none of what is drawn after it at that feed.
                assert code == "G0" or "F" in values, line
                feed = None
        elif code in ("G0", "G1"):
            assert head.is_down == (code == "G1"), line
            feed = values.get("F", feed)
            assert code == "G0" or feed, line
            head.go(values["X"], values["Y"])
        elif code in ("G2", "G3"):
            feed = values.get("F", feed)
            assert head.is_down, line
            assert feed, line
            _arc_to(head, values, code == "G3", line)
        else:
            assert code in ("G21", "G90", "G17", "M2"), line
    assert codes >= {"G21", "G90", "M2"}
    assert not head.is_down
    return head


def _arc_to(head: Head, values: dict[str, float], is_left: bool, line: str) -> None:
    x, y = head.place
    centre = x + values["I"], y + values["J"]
    radius, other = math.dist(head.place, centre), math.dist((values["X"], values["Y"]), centre)
    assert abs(radius - other) < 0.005, line
    begin = math.atan2(y - centre[1], x - centre[0])
    end = math.atan2(values["Y"] - centre[1], values["X"] - centre[0])
    sweep = math.degrees(end - begin) % 360
    head.arc(centre, sweep if is_left else sweep - 360)
    head.drawn[head.pen][-1].pop()  # where it ends is said, and not worked out
    head.go(values["X"], values["Y"])


def hpgl(text: str) -> Head:
    """What a plotter with 40 units in a millimetre draws."""
    head = Head()
    head.pen = 0
    for instruction in re.findall(r'CO".*?"|[A-Z]{2}[^;]*', text.replace("\n", "")):
        name, rest = instruction[:2], instruction[2:]
        if name in ("CO", "IN", "VS", "PW"):
            continue
        numbers = [float(number) for number in rest.split(",") if number]
        if name == "SP":
            assert not head.is_down
            head.pen = int(numbers[0])
        elif name in ("PU", "PD"):
            if name == "PD":
                head.lower()
            else:
                head.is_down = False
            for x, y in zip(numbers[::2], numbers[1::2], strict=True):
                head.go(x / 40, y / 40)
        else:
            assert name == "AA", instruction
            assert len(numbers) == 4, instruction
            radius = math.dist(head.place, (numbers[0] / 40, numbers[1] / 40))
            assert radius * (1 - math.cos(math.radians(numbers[3] / 2))) < 0.06, instruction
            head.arc((numbers[0] / 40, numbers[1] / 40), numbers[2])
    assert not head.is_down
    return head


def svg(text: str) -> Head:
    """What stands in the groups of an SVG, with one unit a millimetre."""
    head = Head()
    width, height = map(float, re.search(r'viewBox="0 0 ([\d.]+) ([\d.]+)"', text).groups())
    assert f'width="{width:g}mm" height="{height:g}mm"' in text
    for pen, group in enumerate(re.findall(r'<g id="pen-\d+".*?</g>', text, re.S), 1):
        assert 'fill="none"' in group
        for data in re.findall(r'<path d="(.*?)"', group):
            points: list[tuple[float, float]] = []
            for segment in svgelements.Path(data):
                if isinstance(segment, svgelements.Arc):
                    points += segment.npoint(np.arange(1, 61) / 60).tolist()
                else:
                    points.append((segment.end.x, segment.end.y))
            up = [(x, height - y) for x, y in points]
            head.travelled.append(up[0])
            head.drawn[pen].append(up)
    return head
