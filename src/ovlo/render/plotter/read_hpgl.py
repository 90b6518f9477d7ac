"""What a plotter does that follows HP-GL/2.

drawn = follow(text, machine, (210, 297))
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from ovlo.core.values.colour import Colour
from ovlo.render.plotter.hpgl import UNITS
from ovlo.render.plotter.machine import Machine
from ovlo.render.plotter.simulation import LINE_WIDTH, Head, Simulated, Size

CHORD = 5.0
"""Degrees of the chords of an arc, unless it says otherwise."""

KNOWN = {"IN", "DF", "CO", "PW", "PS", "PG", "WU", "LT", "LA", "BP"}
"""Instructions that draw nothing by themselves."""


def follow(text: str, machine: Machine, size: Size | None) -> Simulated:
    """What the plotter draws; without a size the page is as large as it has to be."""
    head = Head(machine.travel_feed, machine.feed)
    is_absolute = True
    for name, numbers in _instructions(text, head):
        if name == "PC" and len(numbers) >= 4:
            ink = Colour(*(min(max(part, 0.0), 255.0) for part in numbers[1:4]))
            head.looks[int(numbers[0])] = ink, LINE_WIDTH
        elif name == "SP":
            head.set_pen(int(numbers[0]) if numbers else 0)
        elif name == "VS" and numbers:
            head.speed = 600 * numbers[0]  # centimetres a second
        elif name in ("PU", "PD", "PA", "PR"):
            if name in ("PU", "PD"):
                head.set_down(name == "PD")
            else:
                is_absolute = name == "PA"
            for x, y in zip(numbers[::2], numbers[1::2], strict=False):
                begin = (0.0, 0.0) if is_absolute else head.place
                head.go(begin[0] + x / UNITS, begin[1] + y / UNITS)
        elif name in ("AA", "AR") and len(numbers) >= 3:
            begin = (0.0, 0.0) if name == "AA" else head.place
            centre = begin[0] + numbers[0] / UNITS, begin[1] + numbers[1] / UNITS
            head.arc(centre, numbers[2], chord=numbers[3] if numbers[3:] and numbers[3] > 0 else CHORD)
        elif name == "CI" and numbers:
            centre, was_down, radius = head.place, head.is_down, abs(numbers[0]) / UNITS
            head.set_down(False)
            head.go(centre[0] + radius, centre[1])
            head.set_down(True)
            head.arc(centre, 360, chord=numbers[1] if numbers[1:] and numbers[1] > 0 else CHORD)
            head.set_down(False)
            head.go(*centre)
            head.set_down(was_down)
        elif name not in KNOWN:
            head.note(f"{name} is not known to this machine and was passed over")
    return head.simulated(size)


def _instructions(text: str, head: Head) -> Iterator[tuple[str, list[float]]]:
    """The instructions of HP-GL: two letters and numbers; text and comments are passed over."""
    pattern = r'CO\s*"[^"]*"|LB[^\x03]*\x03?|([A-Za-z]{2})\s*([-+\d.,\s]*)'
    for count, found in enumerate(re.finditer(pattern, text), 1):
        head.where = f"instruction {count:,}"
        if found[1]:
            yield found[1].upper(), [float(n) for n in re.findall(r"[-+]?(?:\d+\.?\d*|\.\d+)", found[2])]
        elif found[0][:2].upper() == "CO":
            head.note_look(found[0])
        elif found[0].startswith("LB"):
            head.note("LB, words in the plotter's own letters, was passed over")
