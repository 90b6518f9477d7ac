"""Everyday words, grouped by meaning, and Ovlo's name for each.

    answer("setLineColour")     # 'nib.ink = "tomato" colours lines, fill="tomato" areas'

A name somebody tried is taken apart into its words. The row that knows most of them answers.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from functools import lru_cache

from ovlo.core.values.arguments import nearest

COLOUR = "colour color colours colors tint paint stroke shade"
FILL = "fill filled filling"
BACKGROUND = "background backdrop bg canvas"
AHEAD = "move go ahead step advance run drive straight"

Rows = tuple[tuple[tuple[str, ...], str], ...]

MEANINGS: Rows = (
    # to look
    ((BACKGROUND,), 'the colour behind a picture is its paper: Sheet(paper="aliceblue")'),
    ((FILL,), '`with nib.area("gold"):` fills an area, fill="gold" a shape'),
    ((COLOUR,), 'nib.ink = "tomato" colours lines, fill="tomato" areas'),
    (("thick thickness thin width weight size stroke_width",), "nib.line_width = 4 sets the width of lines"),
    (("dashed dotted dashes pattern",), "nib.line_dash = (6, 4) makes dashes of 6 and gaps of 4"),
    (("opacity alpha transparency",), 'opacity is part of the colour: nib.ink = "#ff634780"'),
    (("ends endings",), 'nib.line_cap = "round" sets how lines end'),
    (("corners",), 'nib.line_join = "round" sets how lines meet at corners'),
    (
        ("style",),
        'nib.ink and nib.line_width set the style; `with nib.styled(ink="tomato"):` sets it for a block',
    ),
    # to move
    (("backward backwards reverse retreat",), "nib.back(90) moves backwards"),
    (
        (AHEAD, "to at"),
        "nib.line_to(x, y) draws a line to a point, nib.travel_to(x, y) moves there without a line",
    ),
    (("hop jump leap teleport warp place put",), "nib.travel_to(x, y) moves without a line"),
    (("up raise",), "nib.lift() takes the pen off the paper"),
    (("down drop",), "nib.lower() puts the pen on the paper"),
    (("home origin start",), "nib.travel_to(0, 0) moves to the centre of the sheet"),
    (("curve bend bow arc",), "nib.arc_left(radius, sweep) walks along a circle"),
    (
        ("shape icon",),
        "nib.pointer = a motif sets what shows the nib in replays; nib.circle(30) and others draw shapes",
    ),
    (("line",), "nib.forward(90) draws a line ahead, nib.line_to(x, y) one to a point"),
    ((AHEAD,), "nib.forward(90) moves ahead"),
    # to turn
    (("turn rotate spin steer", "right clockwise"), "nib.right(90) turns right"),
    (("turn rotate spin steer", "left anticlockwise"), "nib.left(90) turns left"),
    (("set", "heading direction bearing orientation angle"), "nib.turn_to(90) sets the heading"),
    (("face point towards toward aim look",), "nib.aim_at(x, y) turns towards a point"),
    (
        ("direction bearing orientation angle",),
        "nib.heading is the direction it points in, nib.turn_to(90) sets it",
    ),
    (("rotate spin steer turn pivot veer swivel",), "nib.left(90) and nib.right(90) turn by an angle"),
    (("radians",), "angles are in degrees; math.degrees(…) converts radians"),
    # to show
    (
        ("hide hidden invisible cursor arrow",),
        "nib.pointer = None hides the pointer, which appears only in replays",
    ),
    (
        ("show display view window open watch page",),
        "sheet.show() or kite.show() replays the picture",
    ),
    (("screen surface board",), "Sheet(640, 480) is the surface that nibs draw on"),
    (("export store",), 'sheet.save("kite.svg") writes the picture'),
    # to write
    (("write print label say letter caption words",), 'nib.text("Kite day") writes at the nib'),
    # to wait
    (("wait sleep delay hold",), "nib.pause(0.5) holds replays for half a second"),
    (("fast slow speed pace quick tempo",), "sheet.show(seconds=10) sets how long the replay takes"),
    # to repeat
    (
        ("repeat times loop again",),
        "`for _ in nib.full_turn(4):` repeats the lines below it, with a turn after each round",
    ),
    # to draw
    (("square rect box quadrilateral",), "nib.rectangle(60, 60) draws a square around the nib"),
    (("triangle",), "nib.polygon(3, radius=60) draws a triangle around the nib"),
    (("pentagon",), "nib.polygon(5, radius=60) draws a pentagon around the nib"),
    (("hexagon",), "nib.polygon(6, radius=60) draws a hexagon around the nib"),
    (("octagon",), "nib.polygon(8, radius=60) draws an octagon around the nib"),
    (("oval",), "nib.ellipse(90, 60) draws an oval around the nib"),
    (("ring round disc disk",), "nib.circle(30) draws a circle around the nib"),
    (("dot spot",), 'nib.circle(2, fill="black", outline=False) draws a dot'),
    (("draw",), "nib.forward(90) draws a line, nib.circle(30) a circle"),
    (("image picture icon",), 'nib.stamp(Motif.from_svg("gull.svg")) stamps a picture'),
    # to undo
    (("erase wipe reset undo delete remove empty",), "sheet.clear() removes all marks"),
    # chance
    (
        ("random rand shuffle choice chance",),
        "nib.dice has random numbers: nib.dice.integer(1, 6), nib.dice.pick(…), nib.dice.shuffled(…)",
    ),
    # beside and above
    (("beside next alongside",), "row([a, b]) puts motifs beside each other: from ovlo import row"),
    (
        ("above below beneath under stack",),
        "column([a, b]) puts motifs above each other: from ovlo import column",
    ),
    # middle
    (("center centre middle",), "(0, 0) is the centre of the sheet; shapes are drawn around the nib"),
    (("position pos coordinates location x y xy",), "nib.position is the position of the nib, (x, y)"),
    (("pen pencil brush",), "sheet.new_nib() makes a nib, which is the pen"),
)
"""Rows of one or more groups of words, of each of which a name must have one; and the answer."""

SINGLE = tuple(
    dict.fromkeys(word for groups, _ in MEANINGS if len(groups) == 1 for word in groups[0].split())
)
"""Words that are answered when they stand alone."""


OWN: dict[str, Rows] = {
    "motif": (
        (("rotate turn spin tilt",), "motif.turned(90) is the motif turned"),
        (("flip mirror reflect reverse",), "motif.mirrored() is its mirror image"),
        (("scale resize size enlarge shrink zoom bigger smaller",), "motif.scaled(2) is twice as large"),
        (("move shift translate offset position place",), "motif.moved(10, 20) is moved"),
        (("colour color recolour recolor ink fill tint paint",), 'motif.styled(ink="navy") has another ink'),
        (("center centre middle",), "motif.centred() has its origin in its middle"),
        (("draw show stamp put display",), "nib.stamp(motif) draws it; motif.save(…) writes it to a file"),
        (("width height box size extent",), "motif.bounds is (left, bottom, right, top)"),
        (("beside next alongside",), "row([a, b]) puts motifs beside each other: from ovlo import row"),
        (("above below under stack",), "column([a, b]) puts one above the other: from ovlo import column"),
        (("repeat copy join chain",), "row, column and end_to_end join motifs: from ovlo import row"),
    ),
    "dice": (
        (("colour color hue tint",), "dice.colour() is a random colour"),
        (("roll throw int randint integer whole range",), "dice.integer(1, 6) is a whole number"),
        (("float uniform real decimal random rand",), "dice.number(0, 1) is any number between two"),
        (("choice choose select sample item one",), "dice.pick(items) picks one"),
        (("mix shuffle",), "dice.shuffled(items) gives them in another order"),
        (("coin flip bool maybe happens",), "dice.chance(0.5) is True half of the time"),
        (("place position location coordinates xy",), "dice.point() is a point on the sheet"),
        (("spread scatter places points",), "dice.scattered(30) are points spread over the sheet"),
    ),
    "sheet": (
        (("nib pen pencil brush",), "sheet.new_nib() makes a nib"),
        (("resize size scale",), "a sheet has its size from the beginning: Sheet(640, 480); "
         'sheet.save("kite.png", scale=2) writes it larger'),
        (("gif film movie video animation",), 'sheet.animate("kite.gif") writes an animation'),
        (("plot plotter cutter gcode",), 'sheet.save_plot("kite.gcode") writes plotter output'),
        (("bytes data",), 'sheet.to_bytes("svg") returns what a file would hold'),
        (("pixels image array numpy",), "sheet.to_array() is the picture as pixels"),
        (("undo back",), "sheet.undo() takes back the last thing drawn"),
        (("redo",), "what undo took back is drawn again by its call"),
        (("zoom fit",), 'sheet.save("kite.png", fit=True) shows all marks, scale=2 draws twice as large'),
        (("left right",), "x goes from -sheet.width / 2 to sheet.width / 2"),
        (("top bottom",), "y goes from -sheet.height / 2 to sheet.height / 2"),
    ),
    "nib": (
        (("undo redo",), "nib.sheet.undo() takes back the last thing drawn"),
        (("towards toward",), "nib.heading_to(x, y) is the heading to a point, nib.aim_at(x, y) turns to it"),
        (("clear",), "nib.sheet.clear() removes all marks"),
        (("save",), 'nib.sheet.save("kite.svg") writes the picture'),
        (("show",), "nib.sheet.show() replays the picture"),
        (("stop exit quit",), "return leaves a function, and break a loop"),
        (("font",), 'nib.text("Kite day", font="serif") chooses a font'),
        (("width",), "nib.line_width = 4 sets the width of lines; nib.sheet.width is that of the sheet"),
        (("height",), "nib.sheet.height is the height of the sheet"),
    ),
    "drawing": (
        (("draw make render start sheet",), "kite.run() draws it on a new sheet"),
        (("film movie gif animate",), 'kite.run().animate("kite.gif") writes an animation'),
    ),
}  # fmt: skip
"""The same for what one kind of thing has; these answers come first."""

USUAL = {
    "nib": "forward, left, right, travel_to and circle",
    "sheet": "new_nib, save, show, check and paper",
    "motif": "turned, scaled, moved, mirrored and styled",
    "dice": "integer, number, pick, chance and colour",
    "drawing": "run, save, show, live and vary",
    "ovlo": "Sheet, drawing, Motif, Span and Colour",
}
"""What is used most of each kind of thing."""


@lru_cache(maxsize=1024)
def answer(name: str, owner: str = "") -> str:
    """Ovlo's way of doing what a name says; "" if the meaning is not known."""
    words = set(words_of(name))
    return _best(OWN.get(owner, ()), words) or _best(MEANINGS, words)


def _best(rows: Rows, words: set[str]) -> str:
    """The answer of the row that knows most of some words."""
    best, most = "", 0
    for groups, found in rows:
        hits = sum(bool(words & set(group.split())) for group in groups)
        if hits == len(groups) > most:
            best, most = found, hits
    return best


def words_of(name: str) -> list[str]:
    """`setLineColour` and `set_line_colour` as set, line, colour."""
    parted = re.sub(r"(?<=[a-z0-9])(?=[A-Z])", "_", name)
    words = [word.lower() for word in re.split(r"[_\W\d]+", parted) if word]
    return [part for word in words for part in _parts(word)]


def _parts(word: str) -> list[str]:
    """A word, or the two known words that it joins, or the known word that it is a form of."""
    known = _vocabulary()
    if word in known:
        return [word]
    for i in range(2, len(word) - 1):
        if word[:i] in known and word[i:] in known:
            return [word[:i], word[i:]]
    stem = re.sub(r"(.)\1$", r"\1", re.sub(r"(ed|ing|er|s)$", "", word))
    forms = [form for form in (stem, f"{stem}e") if form in known]
    return forms[:1] or [word]


@lru_cache(maxsize=1)
def _vocabulary() -> frozenset[str]:
    """All words that rows know."""
    rows = [*MEANINGS, *(row for rows in OWN.values() for row in rows)]
    return frozenset(word for groups, _ in rows for group in groups for word in group.split())


def in_short(name: str, known: Iterable[str]) -> str:
    """The one known name that a few letters are short for: its first and last letter, and others in order."""
    short = name.lower()
    if not 2 <= len(short) <= 4 or not short.isalpha():
        return ""
    pattern = re.compile(".*".join(map(re.escape, short)))
    found = [word for word in known if len(word) > len(short) and pattern.fullmatch(word)]
    return min(found, key=len) if found else ""


def is_slip(name: str, known: str) -> bool:
    """Whether a name is a slip of the fingers: one letter off, or two that changed places."""
    from difflib import SequenceMatcher  # only a mistake needs it

    return SequenceMatcher(None, name.lower(), known.lower()).ratio() > 0.85


def unknown(owner: str, name: str, known: Iterable[str]) -> str:
    """A sentence for a name that does not exist: the nearest name, or the way to do what it says."""
    known = [word for word in known if not word.startswith("_")]
    near = nearest(name, known)
    if name in known:
        return f"{owner}.{name} is called with brackets, not set: {owner}.{name}(…)"
    if found := _best(OWN.get(owner, ()), {name.lower()}):
        return f"{owner} has no {name!r}; {found}."
    if near and is_slip(name, near[0]):
        return f"{owner} has no {name!r}; did you mean {near[0]}?"
    if found := answer(name, owner):
        return f"{owner} has no {name!r}; {found}."
    if near or (near := [word for word in [in_short(name, known)] if word]):
        return f"{owner} has no {name!r}; did you mean {' or '.join(near)}?"
    if usual := USUAL.get(owner):
        return f"{owner} has no {name!r}; used most are {usual}, and help({owner}) lists all."
    return f"{owner} has no {name!r}."
