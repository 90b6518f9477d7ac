"""SVG: a trail as text that any browser shows (https://www.w3.org/TR/SVG2/).

    b"".join(render(columns, page))    # b'<svg xmlns=…'

Coordinates in the file are those of the program, y turned over, with two decimals of a pixel; which part
of the plane is seen is said by `viewBox` alone.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from itertools import chain
from math import ceil, log10

from ovlo.core.paint.cutting import without_fine_dashes
from ovlo.core.paint.groups import Group, common, groups_of, kept_apart
from ovlo.core.paint.mitres import MITER_LIMIT
from ovlo.core.paint.order import Mark, painted
from ovlo.core.paint.outlines import CLOSE, CUBIC, LINE, MOVE, QUADRATIC
from ovlo.core.trail.columns import Columns, Style, Text
from ovlo.core.trail.origins import Origins
from ovlo.core.values.arrays import Bytes, Floats
from ovlo.core.values.colour import Colour
from ovlo.render import lettering
from ovlo.render.formats.svg_paths import path_pieces
from ovlo.render.numbers import number
from ovlo.render.page import Page

PAPER = "ovlo-paper"
"""The class of the rectangle that is the paper, by which it is told from the picture when read back."""

LETTER_COMMANDS = {MOVE: "M", LINE: "L", QUADRATIC: "Q", CUBIC: "C", CLOSE: "Z"}

DECIMALS = 2
"""Of a pixel of the picture."""


def render(columns: Columns, page: Page) -> Iterator[bytes]:
    """The picture as SVG."""
    places = decimals(page)
    origins = page.origins
    if origins is not None:
        columns = kept_apart(columns, origins)
    marks = elements(columns, places, page.text == "outlines", origins)
    return (piece.encode() for piece in chain([head(page, places)], marks, ["</svg>\n"]))


def decimals(page: Page) -> int:
    """How many decimals of a sheet unit are DECIMALS of a pixel."""
    return max(0, DECIMALS + ceil(log10(page.pixels_per_unit)))


def framed(columns: Columns, page: Page) -> bytes:
    """The picture with a thin frame, for grounds on which nobody would see where a white sheet ends."""
    frame = (
        f'<rect {_box(page, decimals(page))} fill="none" stroke="#808080" stroke-opacity="0.5" '
        'stroke-width="2" vector-effect="non-scaling-stroke"/>\n'
    )
    return b"".join(render(columns, page)).removesuffix(b"</svg>\n") + f"{frame}</svg>\n".encode()


def elements(
    columns: Columns, places: int, has_shapes: bool = False, origins: Origins | None = None
) -> Iterator[str]:
    """The marks of a trail in pieces, the lowest first, words as text or as the shapes of their letters.

    With origins, the marks of each call of a function are a group.
    """
    painting = painted(columns)
    groups = _Groups(origins)
    paths = [()] * len(painting.marks) if origins is None else groups_of(painting, columns, origins)
    data = {id(outline): path_pieces(outline, places) for outline in (painting.strokes, painting.borders)}
    drawn = {style: stroke(style, places) for style in columns.styles}
    for mark, path in zip(painting.marks, paths, strict=True):
        yield from groups.entered(path)
        if isinstance(mark, Text):
            yield letters_element(mark, places) if has_shapes else text_element(mark, places)
            continue
        yield '<path d="'
        yield from data[id(painting.outline_of(mark))][mark.number]
        paint = fill(mark) if mark.fill else ' fill="none"'
        yield f'"{paint}{drawn[mark.style] if mark.style else ""}{dash_offset(mark, places)}/>\n'
    yield from groups.entered(())


class _Groups:
    """The groups of a file: one for each call of a function, with an id of its own and the name as title."""

    def __init__(self, origins: Origins | None) -> None:
        self._origins = origins
        self._open: Group = ()
        self._names: dict[int, str] = {}
        self._counts: Counter[str] = Counter()

    def entered(self, path: Group) -> Iterator[str]:
        """What closes the groups that a mark is not in, and opens those that it is in."""
        if path == self._open:
            return
        shared = len(common(path, self._open))
        yield "</g>\n" * (len(self._open) - shared)
        for entry in path[shared:]:
            assert self._origins is not None
            function = self._origins.calls[self._origins.entry_calls[entry]].function.strip("<>")
            # A call whose marks lie on both sides of others has two groups.
            name = self._names.setdefault(entry, f"{function}-{self._counts[function] + 1}")
            self._counts[name] += 1
            self._counts[function] += self._counts[name] == 1
            again = f"-part-{self._counts[name]}" if self._counts[name] > 1 else ""
            yield f'<g id="{name}{again}">\n<title>{function}</title>\n'
        self._open = path


def head(page: Page, places: int) -> str:
    """What stands before the marks: size, title, details and paper."""
    width, height = (number(side, 4) for side in (page.shown_width, page.shown_height))
    about = f"<metadata>{escape(page.details)}</metadata>\n" if page.details else ""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}{page.unit}" '
        f'height="{height}{page.unit}" viewBox="{" ".join(_sides(page, places))}">\n'
        f"<title>{escape(page.title)}</title>\n"
        f"{about}"
        f'<rect class="{PAPER}" {_box(page, places)}{_paint("fill", page.paper)}/>\n'
    )


def _sides(page: Page, places: int) -> list[str]:
    """Left, top, width and height of what is seen; y points down."""
    top = -page.bottom - page.height
    return [number(side, places + 2) for side in (page.left, top, page.width, page.height)]


def _box(page: Page, places: int) -> str:
    x, y, width, height = _sides(page, places)
    return f'x="{x}" y="{y}" width="{width}" height="{height}"'


def text_element(text: Text, places: int, more: str = "") -> str:
    """A text, with further attributes."""
    across, up = lettering.foot(text)
    x, y = number(across, places), number(-up, places)
    turn = f' transform="rotate({number(-text.heading % 360, 4)} {x} {y})"' if text.heading else ""
    parts = {
        "font-family": text.font,
        "font-size": number(text.size, places + 2),
        "font-weight": text.weight,
        "font-style": text.slant,
        "text-anchor": text.align,
    }
    plain = {"normal", "start"}
    quoted = {name: escape(value).replace('"', "&quot;") for name, value in parts.items()}
    written = "".join(f' {name}="{value}"' for name, value in quoted.items() if value not in plain)
    return (
        f'<text{more} x="{x}" y="{y}"{turn}{written}{_paint("fill", text.ink)} xml:space="preserve">'
        f"{escape(text.words)}</text>\n"
    )


def letters_element(text: Text, places: int) -> str:
    """A text as the shapes of its letters."""
    vertices, codes = lettering.glyphs(text)
    words = f"<title>{escape(text.words)}</title>"
    return f'<path d="{letters_data(vertices, codes, places)}"{_paint("fill", text.ink)}>{words}</path>\n'


def letters_data(vertices: Floats, codes: Bytes, places: int) -> str:
    """Letters as path data: Matplotlib's codes are SVG's commands."""
    parts = []
    last = 0
    for (x, y), code in zip(vertices.tolist(), codes.tolist(), strict=True):
        command = LETTER_COMMANDS[code]
        # The control points of a curve, and its end, share one command.
        parts.append(command if code != last or code not in (QUADRATIC, CUBIC) else " ")
        last = code
        if command != "Z":
            parts.append(f"{number(x, places)} {number(-y, places)}")
    return "".join(parts)


def fill(mark: Mark) -> str:
    """The attributes of a painted area."""
    assert mark.fill is not None
    rule = ' fill-rule="evenodd"' if mark.fill_rule == "evenodd" else ""
    return f"{_paint('fill', mark.fill)}{rule}"


def dash_offset(mark: Mark, places: int) -> str:
    """The attribute of dashes that do not begin at their beginning."""
    offset = number(mark.dash_offset, places + 2) if mark.style and mark.style.line_dash else "0"
    return "" if offset == "0" else f' stroke-dashoffset="{offset}"'


def stroke(style: Style, places: int) -> str:
    """The attributes of a drawn line."""
    style = without_fine_dashes(style, 5 * 10.0**-places)
    parts = [_paint("stroke", style.ink), f' stroke-width="{_width(style.line_width, places)}"']
    if style.line_dash:
        lengths = " ".join(number(length, places + 2) for length in style.line_dash)
        parts.append(f' stroke-dasharray="{lengths}"')
    if style.line_cap != "butt":
        parts.append(f' stroke-linecap="{style.line_cap}"')
    if style.line_join == "miter":
        parts.append(f' stroke-miterlimit="{MITER_LIMIT}"')
    else:
        parts.append(f' stroke-linejoin="{style.line_join}"')
    return "".join(parts)


def _width(width: float, places: int) -> str:
    """A width, which is never 0, however thin."""
    written = number(width, places + 2)
    return written if written != "0" else f"{width:.3g}"


def escape(words: str) -> str:
    """Words as text of a file (XML 1.0, 2.4); the library's way loads a client of the web."""
    return words.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def _paint(attribute: str, colour: Colour) -> str:
    opacity = f' {attribute}-opacity="{number(colour.opacity, 4)}"' if colour.opacity < 1 else ""
    return f' {attribute}="{colour.hex}"{opacity}'
