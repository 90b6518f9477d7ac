"""Draws the icons of the page, each by its own small program, into `src/ovlo/page/assets/icons.svg`.

python docs/icons.py
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from xml.etree import ElementTree

from ovlo import Sheet

ICONS = Path(__file__).parents[1] / "src" / "ovlo" / "page" / "assets" / "icons.svg"

SIDE = 24
"""Units across an icon; its lines are two wide."""

Draw = Callable[..., None]
ICON_PROGRAMS: dict[str, Draw] = {}


def icon(draw: Draw) -> Draw:
    """Declare an icon, named as its function."""
    ICON_PROGRAMS[draw.__name__.replace("_", "-")] = draw
    return draw


def line(nib, *points) -> None:
    """A line from point to point."""
    nib.travel_to(points[0])
    nib.polyline(points[1:])


def filled(nib, *points) -> None:
    """An area with corners at the points."""
    nib.travel_to(points[0])
    with nib.area("black", outline=False):
        nib.polyline(points[1:])


def dot(nib, x, y, radius=1.4) -> None:
    """A dot."""
    nib.travel_to(x, y)
    nib.circle(radius, fill="black", outline=False)


def frame(nib, x, y, width, height) -> None:
    """A rectangle around a point."""
    nib.travel_to(x, y)
    nib.turn_to(0)
    nib.rectangle(width, height)


@icon
def play(nib):
    filled(nib, (-6, -8), (8, 0), (-6, 8))


@icon
def pause(nib):
    for x in (-5.5, 1.5):
        filled(nib, (x, -8), (x + 4, -8), (x + 4, 8), (x, 8))


@icon
def step_forward(nib):
    filled(nib, (-7, -7), (3, 0), (-7, 7))
    line(nib, (6, -7), (6, 7))


@icon
def step_back(nib):
    filled(nib, (7, -7), (-3, 0), (7, 7))
    line(nib, (-6, -7), (-6, 7))


@icon
def loop(nib):
    nib.travel_to(7.5, 0)
    nib.turn_to(90)
    nib.arc_left(7.5, 300)
    x, y = nib.position
    filled(nib, (x - 4.5, y - 1.5), (x + 2.5, y - 2), (x + 1, y + 4.5))


@icon
def zoom_in(nib):
    zoom_out(nib)
    line(nib, (-2, -1), (-2, 5))


@icon
def zoom_out(nib):
    nib.travel_to(-2, 2)
    nib.circle(7)
    line(nib, (3.2, -3.2), (9, -9))
    line(nib, (-5, 2), (1, 2))


@icon
def fit_sheet(nib):
    frame(nib, 0, 0, 18, 14)
    for x, y in ((-1, -1), (1, 1)):
        line(nib, (5 * x, 0.5 * y), (5 * x, 3 * y), (2 * x, 3 * y))


@icon
def fit_drawing(nib):
    for x, y in ((-1, -1), (-1, 1), (1, 1), (1, -1)):
        line(nib, (9 * x, 4 * y), (9 * x, 8 * y), (5 * x, 8 * y))
    nib.travel_to(0, 0)
    nib.turn_to(90)
    nib.star(5, radius=5, inner_radius=2.2)


@icon
def full_screen(nib):
    for x, y in ((-1, -1), (-1, 1), (1, 1), (1, -1)):
        line(nib, (8 * x, 2.5 * y), (8 * x, 8 * y), (2.5 * x, 8 * y))


@icon
def grid(nib):
    for at in (-6, 0, 6):
        line(nib, (at, -9), (at, 9))
        line(nib, (-9, at), (9, at))


@icon
def axes(nib):
    line(nib, (-9, -4), (9, -4))
    line(nib, (-4, -9), (-4, 9))
    line(nib, (6, -7), (9, -4), (6, -1))
    line(nib, (-7, 6), (-4, 9), (-1, 6))


@icon
def angles(nib):
    line(nib, (8, -7), (-8, -7), (4, 8))
    nib.travel_to(1, -7)
    nib.turn_to(90)
    nib.arc_left(9, 51)


@icon
def steps(nib):
    line(nib, (-9, -7), (-3, -7), (-3, 0), (3, 0), (3, 7), (9, 7))


@icon
def pointer(nib):
    filled(nib, (-8, -7), (9, 0), (-8, 7), (-4, 0))


@icon
def findings(nib):
    nib.travel_to(0, -1)
    nib.turn_to(90)
    line(nib, (0, 9), (-9.5, -8), (9.5, -8), (0, 9))
    line(nib, (0, 3), (0, -2))
    dot(nib, 0, -5.2)


@icon
def share(nib):
    line(nib, (5.5, 6), (-5.5, 0), (5.5, -6))
    for x, y in ((6, 6), (-6, 0), (6, -6)):
        dot(nib, x, y, 3)


@icon
def shortcuts(nib):
    frame(nib, 0, 0, 20, 13)
    for x in (-6, -2, 2, 6):
        dot(nib, x, 2.2, 1.1)
    line(nib, (-4, -2.6), (4, -2.6))


@icon
def save(nib):
    line(nib, (0, 9), (0, -3))
    line(nib, (-4.5, 1.5), (0, -3), (4.5, 1.5))
    line(nib, (-8, -4), (-8, -8), (8, -8), (8, -4))


@icon
def search(nib):
    nib.travel_to(-2, 2)
    nib.circle(7)
    line(nib, (3.2, -3.2), (9, -9))


def drawn(draw: Draw) -> list[str]:
    """The marks of an icon as elements of SVG in the colour of the text around them."""
    sheet = Sheet(SIDE, SIDE)
    draw(sheet.new_nib())
    root = ElementTree.fromstring(sheet.to_bytes("svg"))
    found = []
    for path in root.iter("{http://www.w3.org/2000/svg}path"):
        kind = 'class="area"' if path.get("stroke") is None else ""
        found.append(" ".join(filter(None, ("<path", kind, f'd="{path.get("d")}"/>'))))
    return found


def main() -> None:
    """Write the icons."""
    box = f"{-SIDE // 2} {-SIDE // 2} {SIDE} {SIDE}"
    symbols = [
        f'<symbol id="icon-{name}" viewBox="{box}">{"".join(drawn(draw))}</symbol>'
        for name, draw in ICON_PROGRAMS.items()
    ]
    text = "\n".join(["<svg hidden>", *symbols, "</svg>", ""])
    ICONS.write_text(text, encoding="utf-8")
    print(f"{len(symbols)} icons: {len(text):,} bytes")


if __name__ == "__main__":
    main()
