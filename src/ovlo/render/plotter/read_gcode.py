"""What a machine does that follows G-code (ISO 6983-1).

drawn = follow(text, machine, (210, 297))
"""

from __future__ import annotations

import re
from math import atan2, degrees, dist, hypot, sqrt

from ovlo.render.plotter.machine import Machine
from ovlo.render.plotter.simulation import Head, Point, Simulated, Size

INCH = 25.4

ARC_SLACK = 0.05
"""Millimetres by which the radius at the end of an arc may differ from that at its beginning."""

MODES = {"G17", "G40", "G49", "G54", "G61", "G64", "G80", "G94", "M0", "M1", "M2", "M6", "M30", "G4"}
"""Codes that are known, and draw nothing by themselves."""

MOTIONS = {"G0", "G1", "G2", "G3"}


def follow(text: str, machine: Machine, size: Size | None) -> Simulated:
    """What the machine draws; without a size the page is as large as what it reaches, or as it has to be."""
    if size is None and machine.width and machine.height:
        size = machine.width, machine.height
    head = Head(machine.travel_feed, machine.feed)
    reader = _GcodeReader(head, machine, size)
    for number, line in enumerate(text.splitlines(), 1):
        head.where = f"line {number:,}"
        if reader.is_ended:
            break
        reader.follow(line)
    return head.simulated(size)


class _GcodeReader:
    """Follows lines of G-code: motions stay until another one is named."""

    def __init__(self, head: Head, machine: Machine, size: Size | None) -> None:
        self._head, self._machine = head, machine
        differ = zip(machine.lift, machine.lower, strict=False)
        lift, lower = next(((a, b) for a, b in differ if a != b), (machine.lift[0], machine.lower[0]))
        self._lift, self._lower = _words(lift), _words(lower)
        self._origin, self._up = machine.frame(size or (0.0, 0.0))
        self._motion = "G0"
        self._unit, self._is_absolute = 1.0, True
        self._feed: float | None = None
        self._place = (0.0, 0.0)
        """In the machine's own coordinates."""
        self._place_head()
        self.is_ended = False

    def _place_head(self) -> None:
        (left, bottom), (x, y) = self._origin, self._place
        self._head.place = left + x, bottom + self._up * y

    def follow(self, line: str) -> None:
        """Do what one line says."""
        self._do(_words(line))
        if "(" in line or ";" in line:
            self._head.note_look(line)

    def _do(self, words: list[str]) -> None:
        head = self._head
        without_feed = [word for word in words if word[0] != "F"]
        for known, is_down in ((self._lift, False), (self._lower, True)):
            if words and without_feed == [word for word in known if word[0] != "F"]:
                self._note_feed(words)
                if is_down and "G1" in words and not self._feed:
                    head.note("the pen is lowered at a feed that is not set")
                head.set_down(is_down)
                return
        values: dict[str, float] = {}
        for word in words:
            if word[0] in "GM":
                self._take(word, {w[0]: float(w[1:]) for w in words if w[0] not in "GM"})
            else:
                values[word[0]] = float(word[1:])
        self._note_feed(words)
        if "Z" in values:
            head.set_down(values["Z"] <= 0)
        if values.keys() & {"X", "Y", "I", "J", "R"} and "G92" not in words:
            self._move(values)

    def _note_feed(self, words: list[str]) -> None:
        for word in words:
            if word[0] == "F":
                self._feed = float(word[1:]) * self._unit
                self._head.speed = self._feed or self._head.speed

    def _take(self, code: str, values: dict[str, float]) -> None:
        head = self._head
        if code in MOTIONS:
            self._motion = code
        elif code in ("G20", "G21"):
            self._unit = INCH if code == "G20" else 1.0
        elif code in ("G90", "G91"):
            self._is_absolute = code == "G90"
        elif code in ("M0", "M1", "M6"):
            head.set_pen(head.pen + bool(head.moves))
        elif code in ("M2", "M30"):
            self.is_ended = True
        elif code in ("M3", "M4"):
            head.set_down(values.get("S", 1) > 0)
        elif code == "M5":
            head.set_down(False)
        elif code == "G28":
            self._place = (0.0, 0.0)
            head.go(*self._origin, self._machine.travel_feed)
        elif code == "G92":
            x, y = self._place
            there = values.get("X", x), values.get("Y", y)
            left, bottom = self._origin
            self._origin = left + x - there[0], bottom + self._up * (y - there[1])
            self._place = there
        elif code not in MODES:
            head.note(f"{code} is not known to this machine and was passed over")

    def _move(self, values: dict[str, float]) -> None:
        head, motion = self._head, self._motion
        x, y = self._place
        old = self._place
        if self._is_absolute:
            x, y = values.get("X", x / self._unit) * self._unit, values.get("Y", y / self._unit) * self._unit
        else:
            x, y = x + values.get("X", 0) * self._unit, y + values.get("Y", 0) * self._unit
        self._place = x, y
        (left, bottom), up = self._origin, self._up
        end = left + x, bottom + up * y
        if motion != "G0" and not self._feed:
            head.note("the feed (F) is not set before the first move at a feed")
            self._feed = self._machine.feed
        if motion in ("G0", "G1"):
            head.go(*end, self._machine.travel_feed if motion == "G0" else self._feed)
            return
        is_left = motion == "G3"
        if "R" in values:
            centre = _centre(old, (x, y), values["R"] * self._unit, is_left)
        else:
            centre = (old[0] + values.get("I", 0) * self._unit, old[1] + values.get("J", 0) * self._unit)
        if centre is None or abs(dist(old, centre) - dist((x, y), centre)) > ARC_SLACK:
            head.note("an arc does not end on its circle")
            head.go(*end)
            return
        begin = degrees(atan2(old[1] - centre[1], old[0] - centre[0]))
        stop = degrees(atan2(y - centre[1], x - centre[0]))
        sweep = (stop - begin) % 360 or 360.0
        sweep = sweep if is_left else (sweep - 360 or -360.0)
        head.arc((left + centre[0], bottom + up * centre[1]), up * sweep, end)


def _words(line: str) -> list[str]:
    """The words of a line of G-code: a letter and a number each, G01 as G1."""
    code = re.sub(r"\(.*?\)|;.*|^\s*/?\s*N\d+", "", line).upper()
    found = re.findall(r"([A-Z])\s*([-+]?(?:\d+\.?\d*|\.\d+))", code)
    return [letter + f"{float(number):g}" if letter in "GM" else letter + number for letter, number in found]


def _centre(start: Point, end: Point, radius: float, is_left: bool) -> Point | None:
    """The centre of an arc by its radius: below 0 it is the longer one (ISO 6983-1)."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    chord = hypot(dx, dy)
    if not chord or chord > 2 * abs(radius) + ARC_SLACK:
        return None
    off = sqrt(max(radius * radius - chord * chord / 4, 0)) / chord
    side = off if is_left == (radius > 0) else -off
    return start[0] + dx / 2 - dy * side, start[1] + dy / 2 + dx * side
