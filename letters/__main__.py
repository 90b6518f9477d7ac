"""Draw the alphabet of single strokes and write it down: `python -m letters`.

Each stroke is steered: a nib aims at the next corner, goes there, or turns on an arc before it where the
corner is rounded. The file holds, for each letter, how far it is to the next one and its strokes, in shares
of the font size: places, each with the sweep of the arc that leads there, in degrees.
"""

from __future__ import annotations

import json
import math
import re
import unicodedata
from collections.abc import Iterable, Mapping
from itertools import pairwise
from pathlib import Path
from typing import NamedTuple

import numpy as np

from letters import shapes
from ovlo import Motif, Nib

FILE = Path(__file__).parents[1] / "src/ovlo/core/pen/stroke_letters.json"

EM = 100
ROUNDEST = 28
"""The radius of a rounded corner, unless its lines are too short for it."""

SPACE, ROOM, NEAR = 32, 19, 0.42
"""How wide a space is; the room between two straight letters; how much of a hollow side they close up."""

OVERHANG = 5
"""How far an accent may reach over the side of its letter."""

DEEP = 22
"""Hollows are not deeper than this for the eye."""

DIGIT = 60
"""Digits are equally wide, so that numbers stand in columns."""

SMALL_SIZE, HIGH = 0.58, 31
"""The size of digits in ² and ½, and how far the high ones are raised."""

Stroke = list[tuple[float, float, float]]
"""Places, and the sweep of the arc that leads to each."""


class Letter(NamedTuple):
    """Strokes from the left edge on, and how far it is to the next letter."""

    advance: float
    strokes: list[Stroke]


def steered(words: str) -> Stroke:
    """A stroke as a nib goes along it."""
    skipped, corners, left_out = re.findall(r"^(?:(\d+)\|)?(.*?)(?:\|(\d+))?$", words)[0]
    return _without_ends(_walked(corners.split()), float(skipped or 0), float(left_out or 0))


def _walked(corners: list[str]) -> Stroke:
    """Steer a nib along corners; each step ends where the nib then is."""
    places = np.array([[float(n) for n in corner.lstrip("~").split(",")] for corner in corners])
    stroke: Stroke = []
    Motif.record(_steer, places, [corner.startswith("~") for corner in corners], stroke)
    return stroke


def _steer(nib: Nib, places: np.ndarray, is_round: list[bool], stroke: Stroke) -> None:
    nib.travel_to(*places[0].tolist())
    stroke.append((*nib.position, 0.0))
    lengths = np.hypot(*np.diff(places, axis=0).T).tolist()
    # What of each line the corners at its ends may take.
    shares = [length / (is_round[i] + is_round[i + 1] or 1) for i, length in enumerate(lengths)]
    for i, corner in enumerate(places[1:].tolist(), 1):
        nib.aim_at(*corner)
        turn = tangent = 0.0
        slope = 1.0
        if is_round[i]:
            dx, dy = (places[i + 1] - corner).tolist()
            turn = (math.degrees(math.atan2(dy, dx)) - nib.heading + 180) % 360 - 180
            slope = math.tan(math.radians(abs(turn) / 2))
            tangent = min(shares[i - 1], shares[i], ROUNDEST * slope)
        straight = nib.distance_to(*corner) - tangent
        if straight > 1e-9:
            nib.forward(straight)
            stroke.append((*nib.position, 0.0))
        if tangent:
            arc = nib.arc_left if turn > 0 else nib.arc_right
            arc(tangent / slope, abs(turn))
            stroke.append((*nib.position, turn))


def _without_ends(stroke: Stroke, first: float, last: float) -> Stroke:
    """A stroke without what comes before its nib has turned so far, and the same at its end."""
    for angle in (first, last):
        stroke = _from(stroke, angle) if angle else stroke
        stroke = _backwards(stroke)
    return stroke


def _backwards(stroke: Stroke) -> Stroke:
    sweeps = [*(-sweep for _, _, sweep in stroke[:0:-1])]
    return [(*place[:2], sweep) for place, sweep in zip(stroke[::-1], [0.0, *sweeps], strict=True)]


def _from(stroke: Stroke, angle: float) -> Stroke:
    """A stroke from where its first arcs have turned by an angle."""
    for i, (x, y, sweep) in enumerate(stroke):
        if abs(sweep) > angle:
            share = 1 - angle / abs(sweep)
            here = np.array([x, y]) - _chord(stroke[i - 1], stroke[i], share)
            return [(*here.tolist(), 0.0), (x, y, sweep * share), *stroke[i + 1 :]]
        angle -= abs(sweep)
    raise ValueError("A stroke does not turn so far.")


def _chord(start: tuple[float, ...], end: tuple[float, ...], share: float) -> np.ndarray:
    """The chord of the last share of an arc."""
    whole = complex(end[0] - start[0], end[1] - start[1])
    sweep = math.radians(end[2])
    radius = abs(whole) / (2 * math.sin(abs(sweep) / 2))
    length = 2 * radius * math.sin(abs(sweep) * share / 2)
    turned = whole / abs(whole) * length * complex(math.cos(d := sweep * (1 - share) / 2), math.sin(d))
    return np.array([turned.real, turned.imag])


def points(strokes: Iterable[Stroke]) -> np.ndarray:
    """Places along strokes, near to each other."""
    found = []
    for stroke in strokes:
        for start, end in pairwise(stroke):
            shares = np.linspace(0, 1, 40)
            if end[2]:
                found += [np.array(end[:2]) - _chord(start, end, share) for share in shares[1:]]
            else:
                found += [(1 - share) * np.array(start[:2]) + share * np.array(end[:2]) for share in shares]
    return np.array(found)


def moved(strokes: Iterable[Stroke], dx: float, dy: float = 0, scale: float = 1) -> list[Stroke]:
    """Strokes elsewhere, after they were scaled about the foot of their left edge."""
    return [[(x * scale + dx, y * scale + dy, sweep) for x, y, sweep in stroke] for stroke in strokes]


def spaced(strokes: list[Stroke], like: list[Stroke] | None = None, width: float | None = None) -> Letter:
    """Strokes with room on both sides: less where a side is hollow or slants away.

    Accents are as far from their neighbours as the letter `like` that they stand on.
    """
    ink, whole = points(like or strokes), points(strokes)
    left = min(ink[:, 0].min(), whole[:, 0].min() + OVERHANG)
    right = max(ink[:, 0].max(), whole[:, 0].max() - OVERHANG)
    body = ink[(ink[:, 1] >= -2) & (ink[:, 1] <= shapes.CAP + 4)]
    body = body if len(body) else ink
    rows = np.arange(body[:, 1].min(), body[:, 1].max() + 1, 4)
    near = [row for at in rows if len(row := body[np.abs(body[:, 1] - at) <= 4, 0])]
    hollows = [
        np.mean([min(abs(side(row) - edge), DEEP) for row in near])
        for side, edge in ((np.min, left), (np.max, right))
    ]
    rooms = [ROOM / 2 - NEAR * hollow for hollow in hollows]
    advance = right - left + sum(rooms)
    if width is not None:
        rooms[0], advance = (width - (right - left)) / 2, width
    return Letter(advance, moved(strokes, rooms[0] - left))


def plain(table: Mapping[str, tuple[str, ...]]) -> dict[str, list[Stroke]]:
    """The strokes of a table of letters."""
    return {name: [steered(stroke) for stroke in strokes] for name, strokes in table.items()}


def accented(base: str, marks: str, known: dict[str, list[Stroke]]) -> list[Stroke]:
    """A letter with its marks, each over those before it."""
    base = {"i": "ı", "j": "ȷ"}.get(base, base) if any(mark not in "\u0327\u0328" for mark in marks) else base
    strokes = list(known[base])
    ink = points(strokes)
    middle = (ink[:, 0].min() + ink[:, 0].max()) / 2
    rise = 0.0 if ink[:, 1].max() <= shapes.MIDDLE + 1 else ink[:, 1].max() - shapes.MIDDLE
    for mark in marks:
        if mark == "\u030c" and base in "dtlL":
            strokes += moved([steered(stroke) for stroke in shapes.BESIDE], ink[:, 0].max() + 5)
            continue
        if mark == "\u0301" and "Α" <= base <= "Ω":
            strokes += moved([steered(stroke) for stroke in shapes.ACCENTS[mark]], ink[:, 0].min() - 12, 4)
            continue
        if mark == "\u0327" and base in "GKLNRklnr":
            mark = "\u0326"
        elif mark == "\u0327" and base == "g":
            mark = "\u0312"
        is_over = mark not in "\u0326\u0327\u0328"
        side = middle + 8 if mark == "\u0328" else middle
        strokes += moved([steered(stroke) for stroke in shapes.ACCENTS[mark]], side, rise if is_over else 0)
        rise += 16 * is_over
    return strokes


def alphabet() -> dict[str, Letter]:
    """Every letter, by its character."""
    known = plain(shapes.CAPITALS | shapes.SMALL | shapes.GREEK | shapes.SIGNS)
    digits = plain(shapes.DIGITS)
    known |= {name: known[other] for name, other in shapes.ALIKE.items()}
    letters = {name: spaced(strokes) for name, strokes in known.items()}
    letters |= {name: spaced(strokes, width=DIGIT) for name, strokes in digits.items()}
    small = {name: spaced(moved(strokes, 0, 0, SMALL_SIZE)) for name, strokes in digits.items()}
    for name, digit in zip("¹²³⁴", "1234", strict=True):
        letters[name] = Letter(small[digit].advance, moved(small[digit].strokes, 0, HIGH))
    bar = steered("0,-2 34,72")
    for name, over, under in (("¼", "1", "4"), ("½", "1", "2"), ("¾", "3", "4")):
        high, low = small[over], small[under]
        at = high.advance - 4
        strokes = [
            *moved(high.strokes, 0, HIGH),
            *moved([bar], at - 8),
            *moved(low.strokes, at + 16),
        ]
        letters[name] = spaced(strokes)
    for name, letter in (("ª", "a"), ("º", "o")):
        letters[name] = spaced([*moved(known[letter], 0, 42, SMALL_SIZE), steered("2,34 22,34")])
    letters["ŉ"] = spaced([*known["’"], *moved(known["n"], 14)])
    for number in (*range(0x00C0, 0x0180), *range(0x0384, 0x03CF), 0x0218, 0x0219, 0x021A, 0x021B, 0x1E9E):
        name = chr(number)
        base, *marks = list(unicodedata.normalize("NFD", name))
        if name not in letters and base in known and marks:
            strokes = accented(base, "".join(marks), known)
            letters[name] = spaced(strokes, known[base] if not "Ά" <= name <= "Ώ" else None)
    letters["\u1e9e"] = letters["ß"]
    letters[" "] = letters["\u00a0"] = Letter(SPACE, [])
    letters["\u00ad"] = letters["-"]
    return letters


def written(letters: dict[str, Letter]) -> str:
    """The file: a line a letter."""
    rows = []
    for name, letter in sorted(letters.items()):
        strokes = [[_row(place) for place in stroke] for stroke in letter.strokes]
        value = json.dumps([_share(letter.advance), *strokes], separators=(",", ":"))
        rows.append(f"{json.dumps(name, ensure_ascii=False)}:{value}")
    return "{\n" + ",\n".join(rows) + "\n}\n"


def _row(place: tuple[float, float, float]) -> list[float]:
    x, y, sweep = place
    row = [_share(x), _share(y)]
    return [*row, round(sweep, 2)] if sweep else row


def _share(value: float) -> float:
    return round(value / EM, 4) + 0.0


if __name__ == "__main__":
    FILE.write_text(written(alphabet()), encoding="utf-8")
