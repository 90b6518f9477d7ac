"""SVG files read back as shapes.

    shapes = read(*svg_source("kite.svg"))
    draw_into(nib, shapes)

The file is first walked through by expat, which stops at the first entity declaration, so that nothing is
ever expanded; what we cannot keep is then taken out, and svgelements reads the rest.
"""

from __future__ import annotations

import copy
import io
import re
import warnings
import xml.etree.ElementTree as ElementTree
from math import atan2, cos, degrees, pi, sin
from typing import Any
from xml.parsers import expat

from ovlo.core.sheet.nib import Nib
from ovlo.core.trail.trail import PACK_STEP, Curve, Piece
from ovlo.core.values.arguments import brief, method
from ovlo.core.values.colour import Colour
from ovlo.core.values.degrees import normal
from ovlo.core.values.errors import FileError, PartsSkipped
from ovlo.render.files import checked_path
from ovlo.render.formats.svg import PAPER
from ovlo.render.formats.svg_data import LONG, Subpath, corners_of, pieces_of, subpaths_of

NAMESPACE = "http://www.w3.org/2000/svg"
LARGEST = 50_000_000
"""Bytes."""
DEEPEST = 200
"""Elements inside elements."""
LONGEST = 2_000
"""Characters of an attribute that holds no path: with some, the time taken grows with their square."""
MOST = 5_000_000
"""Characters of paths, where a shape counts as PER_SHAPE more, and a piece of a path as PER_PIECE: what is
read in some 20 seconds."""
PER_SHAPE, PER_PIECE, PER_ARC = 100, 20, 3

SHAPES = {"path", "rect", "circle", "ellipse", "line", "polyline", "polygon"}
KEPT = SHAPES | {"svg", "g", "a"}
HREF = ("href", "{http://www.w3.org/1999/xlink}href")
USED_DEEP = 20
"""Uses inside what is used."""
PATHS = {"d", "points"}
"""Attributes that may be long."""
ATTRIBUTES = PATHS | {
    *("x", "y", "width", "height", "rx", "ry", "r", "cx", "cy", "x1", "y1", "x2", "y2", "transform", "style"),
    *("fill", "fill-rule", "fill-opacity", "opacity", "color", "display", "visibility"),
    *("stroke", "stroke-width", "stroke-opacity", "stroke-dasharray", "stroke-linecap", "stroke-linejoin"),
}
"""What is read of an element; all else is taken out before the library sees it."""

VALID = re.compile(r"[\sMmLlHhVvCcSsQqTtAaZz0-9eE.,+-]*")
"""Path data that can be right."""

SILENT = {"title", "desc", "metadata", "defs", "symbol"}
"""Left out without a word: they show nothing by themselves."""

LINE_WORDS = {"stroke-linecap": ("line_cap", "butt"), "stroke-linejoin": ("line_join", "miter")}


DAMAGES = (ValueError, TypeError, IndexError, KeyError, AttributeError, ArithmeticError, RecursionError)
"""What the library raises on values that are none."""


class _Refused(Exception):
    """Why a file is not read."""


def svg_source(source: object) -> tuple[str, bytes]:
    """A name for messages, and the bytes, of a path, a file object or a text that begins with "<"."""
    if isinstance(source, str) and source.lstrip("\ufeff \t\r\n").startswith("<"):
        return "the text", source.encode("utf-8", "surrogatepass")
    if read := method(source, "read"):
        data = read(LARGEST + 1)
        return "the file", data.encode("utf-8", "surrogatepass") if isinstance(data, str) else bytes(data)
    path = checked_path(source, "from_svg")
    try:
        if path.exists() and not path.is_file():
            raise FileError(f"from_svg: {path} is not a readable file; name an SVG file.")
        with path.open("rb") as file:
            return str(path), file.read(LARGEST + 1)
    except FileError:
        raise
    except OSError as error:
        raise FileError(f"from_svg: {path} cannot be read ({error.strerror}).") from error


def read(path: str, data: bytes) -> list[Any]:
    """The shapes of an SVG file, as svgelements gives them, the lowest first."""
    try:
        if len(data) > LARGEST:
            raise _Refused(f"is larger than {LARGEST // 1_000_000} MB")
        _look_over(data)
        root = ElementTree.fromstring(data)
    except (_Refused, expat.ExpatError, ElementTree.ParseError, ValueError, LookupError) as error:
        raise FileError(f"from_svg: {path} {_reason(error)}; it was not read.") from None
    try:
        _expand_uses(root)
    except _Refused as error:
        raise FileError(f"from_svg: {path} {error}; it was not read.") from None
    left_out = set(_prune(root))
    long_data = _take_long_data(root)
    # The file's own units and origin, whatever size it is to be shown at.
    for name in root.attrib.keys() - ATTRIBUTES | {"width", "height", "x", "y"}:
        root.attrib.pop(name, None)
    from svgelements import SVG, Shape

    try:
        svg = SVG.parse(io.BytesIO(ElementTree.tostring(root)), reify=True)
        shapes = [element for element in svg.elements() if isinstance(element, Shape)]
    except DAMAGES as error:
        raise FileError(f"from_svg: {path} is damaged ({brief(error)}); it was not read.") from error
    for shape in shapes:
        shape.subpaths = long_data.get(str(shape.values.get("id", "")))
        for name in ("fill", "stroke"):
            if str(shape.values.get(name, "")).startswith("url("):
                left_out.add("gradient or pattern")
    if left_out:
        warnings.warn(
            f"{path}: not supported and left out: {', '.join(sorted(left_out))}.", PartsSkipped, stacklevel=4
        )
    return shapes


def _reason(error: Exception) -> str:
    return str(error) if isinstance(error, _Refused) else f"is damaged or not XML ({error})"


def _look_over(data: bytes) -> None:
    """Refuse what is no SVG, or would grow when it is read."""
    parser = expat.ParserCreate(namespace_separator=" ")
    depth = work = 0

    def start(name: str, attributes: dict[str, str]) -> None:
        nonlocal depth, work
        if depth == 0 and name not in (f"{NAMESPACE} svg", "svg"):
            raise _Refused(f"is not SVG: its outermost element is {name.rpartition(' ')[2]!r}")
        depth += 1
        if depth > DEEPEST:
            raise _Refused(f"has elements nested more than {DEEPEST} deep")
        work += PER_SHAPE
        for attribute, value in attributes.items():
            if attribute in PATHS:
                work += len(value) * (PER_ARC if "a" in value or "A" in value else 1)
                work += PER_PIECE * (value.count("M") + value.count("m"))
            elif attribute in ATTRIBUTES and len(value) > LONGEST:
                raise _Refused(f"has a {attribute!r} of more than {LONGEST:,} characters")
        if work > MOST:
            raise _Refused(
                f"holds too much: the limits are about {MOST // PER_SHAPE:,} shapes or "
                f"{MOST // 1_000_000} MB of paths"
            )

    def end(name: str) -> None:
        nonlocal depth
        depth -= 1

    def entity(*_: object) -> None:
        raise _Refused("declares entities, which could grow without limit")

    def declaration(*_: object) -> None:
        raise _Refused("declares a document type of its own")

    parser.StartElementHandler = start
    parser.EndElementHandler = end
    parser.EntityDeclHandler = entity
    parser.AttlistDeclHandler = parser.ElementDeclHandler = parser.NotationDeclHandler = declaration
    parser.Parse(data, True)


def _expand_uses(root: ElementTree.Element) -> None:
    """Put copies of what is used in the place of each `use` (SVG 2, 5.5), loops and floods refused."""
    by_name = {element.get("id"): element for element in root.iter() if element.get("id")}
    view = [_number(side, 0.0) for side in root.get("viewBox", "").replace(",", " ").split()]
    size = view[2:] if len(view) == 4 else [_number(root.get("width"), 100), _number(root.get("height"), 100)]
    budget = [MOST // PER_SHAPE]
    _expand_in(root, by_name, (), size, budget)


def _expand_in(
    element: ElementTree.Element,
    by_name: dict[str | None, ElementTree.Element],
    used: tuple[str, ...],
    size: list[float],
    budget: list[int],
) -> None:
    for number, child in enumerate(list(element)):
        name = _local_name(child)
        if name != "use":
            if name not in ("defs", "symbol"):  # shown only where they are used
                _expand_in(child, by_name, used, size, budget)
            continue
        wanted = next((link[1:] for key in HREF if (link := child.get(key, "")).startswith("#")), "")
        target = by_name.get(wanted)
        if target is None or _local_name(target) not in KEPT | {"symbol", "use"}:
            continue
        if wanted in used:
            raise _Refused(f"uses {wanted!r} inside itself")
        if len(used) >= USED_DEEP:
            raise _Refused(f"has uses nested more than {USED_DEEP} deep")
        budget[0] -= sum(1 for _ in target.iter())
        if budget[0] < 0:
            raise _Refused(f"uses too much: the limit is about {MOST // PER_SHAPE:,} shapes")
        group = ElementTree.Element(
            f"{{{NAMESPACE}}}g", {k: v for k, v in child.attrib.items() if k in ATTRIBUTES}
        )
        for key in ("x", "y", "width", "height"):
            group.attrib.pop(key, None)
        shift = f"translate({_number(child.get('x'), 0.0)},{_number(child.get('y'), 0.0)})"
        group.set("transform", f"{child.get('transform', '')} {shift}".strip())
        copied = copy.deepcopy(target)
        if _local_name(target) in ("symbol", "svg"):
            inner = ElementTree.SubElement(group, f"{{{NAMESPACE}}}g", dict(copied.attrib))
            inner.set("transform", _fitted(target, child, size))
            inner.extend(list(copied))
        else:
            group.append(copied)
        element[number] = group
        _expand_in(group, by_name, (*used, wanted), size, budget)


def _fitted(symbol: ElementTree.Element, use: ElementTree.Element, size: list[float]) -> str:
    """The transform that fits the view of a symbol into the box of its use (SVG 2, 8.2, xMidYMid meet)."""
    view = [_number(side, 0.0) for side in symbol.get("viewBox", "").replace(",", " ").split()]
    if len(view) != 4 or min(view[2:]) <= 0:
        return "translate(0,0)"
    box = [
        _number(use.get(key) or symbol.get(key) or "100%", 1.0)
        * (side if str(use.get(key) or symbol.get(key) or "100%").endswith("%") else 1)
        for key, side in zip(("width", "height"), size, strict=True)
    ]
    scale = min(box[0] / view[2], box[1] / view[3])
    x, y = (
        (side - scale * whole) / 2 - scale * first
        for side, whole, first in zip(box, view[2:], view[:2], strict=True)
    )
    return f"translate({x},{y}) scale({scale})"


def _local_name(element: ElementTree.Element) -> str:
    return element.tag.rpartition("}")[2] if isinstance(element.tag, str) else ""


def _take_long_data(root: ElementTree.Element) -> dict[str, list[Subpath]]:
    """Long path data, read and taken out; three points stand for it, which say how it is transformed."""
    found: dict[str, list[Subpath]] = {}
    for element in root.iter():
        name = _local_name(element)
        key = "d" if name == "path" else "points" if name in ("polyline", "polygon") else ""
        data = element.get(key, "")
        if not key or len(data) < LONG:
            continue
        subpaths = subpaths_of(data) if key == "d" else corners_of(data, name == "polygon")
        if subpaths is not None:
            number = f"data-{len(found)}"
            found[number] = subpaths
            element.tag = f"{{{NAMESPACE}}}path"
            element.attrib.pop("points", None)
            element.set("d", "M0 0L1 0L0 1")
            element.set("id", number)
    return found


def _prune(element: ElementTree.Element) -> list[str]:
    """Take out what is not kept, and name it."""
    left_out = []
    for child in list(element):
        name = _local_name(child)
        if name == "path" and not VALID.fullmatch(child.get("d", "")):
            left_out.append("path data that is not valid")
        foreign = isinstance(child.tag, str) and "}" in child.tag and NAMESPACE not in child.tag
        if name in KEPT and not foreign and child.get("class") != PAPER:
            left_out += _prune(child)
            left_out += [effect for effect in ("filter", "mask", "clip-path") if child.get(effect)]
            for attribute in child.attrib.keys() - ATTRIBUTES:
                del child.attrib[attribute]
            continue
        element.remove(child)
        if name and name not in SILENT and not foreign and child.get("class") != PAPER:
            left_out.append(name)
    return left_out


def draw_into(nib: Nib, shapes: list[Any]) -> None:
    """Draw the shapes of a file."""
    from svgelements import Path as Segments

    for shape in shapes:
        fill, stroke = _colour(shape, "fill"), _colour(shape, "stroke")
        if fill is None and stroke is None:
            continue
        _style(nib, shape, stroke)
        # abs: an ellipse in a turned group still carries its transform; paths do not.
        path = shape if isinstance(shape, Segments) else abs(Segments(shape))
        if shape.subpaths is None:
            pieces = [piece for subpath in path.as_subpaths() for piece in _piece(subpath)]
        else:
            # What stands for long data says where the origin and the axes are.
            origin, x, y = (_point(segment.end) for segment in path[:3])
            pieces = pieces_of(shape.subpaths, origin, x - origin, y - origin)
        rule = "evenodd" if shape.values.get("fill-rule") == "evenodd" else "nonzero"
        nib._lay_pieces(pieces, fill, stroke is not None, rule)


def _colour(shape: Any, name: str) -> Colour | None:
    """The colour of a shape's fill or stroke, its opacity in it; None when it has none."""
    given = getattr(shape, name)
    if given is None or given.value is None or str(shape.values.get(name, "")).startswith("url("):
        return None
    opacity = given.alpha / 255 * _number(shape.values.get("opacity"), 1.0)
    return Colour(given.red, given.green, given.blue, min(max(opacity, 0.0), 1.0)) if opacity else None


def _number(text: object, default: float) -> float:
    try:
        return float(str(text).rstrip("%")) / (100 if str(text).endswith("%") else 1)
    except ValueError:
        return default


def _style(nib: Nib, shape: Any, stroke: Colour | None) -> None:
    if stroke is None:
        return
    nib.ink = stroke
    nib.line_width = max(float(shape.implicit_stroke_width or 1.0), 1e-6)
    for attribute, (name, default) in LINE_WORDS.items():
        word = shape.values.get(attribute)
        setattr(nib, name, word if word in ("butt", "round", "square", "miter", "bevel") else default)
    own = _number(shape.values.get("stroke-width"), 1.0) or 1.0
    lengths = str(shape.values.get("stroke-dasharray", "")).replace(",", " ").split()
    dash = [_number(length, 0.0) * nib.line_width / own for length in lengths]
    nib.line_dash = dash if any(dash) and min(dash) >= 0 else ()


def _piece(subpath: Any) -> list[Piece]:
    """One subpath as a piece: y is turned over."""
    from svgelements import Arc, Close, CubicBezier, Move, QuadraticBezier

    start: complex | None = None
    here, is_closed = 0j, False
    steps: list[bytes] = []
    arcs: list[Curve] = []
    for segment in subpath:
        end = _point(segment.end) if segment.end is not None else start
        if isinstance(segment, Move) or start is None:
            start = here = end if end is not None else 0j
            continue
        if end is None:
            continue
        is_closed = isinstance(segment, Close)
        if is_closed and steps and abs(end - here) == 0:
            break  # the last step already came back
        curve: tuple[complex, complex, float] | None = None
        if isinstance(segment, Arc):
            curve = _arc(segment, here)
        elif isinstance(segment, CubicBezier):
            curve = _point(segment.control1) - here, _point(segment.control2) - here, 0.0
        elif isinstance(segment, QuadraticBezier):
            # A quadratic curve is the cubic with its control points two thirds of the way.
            control = _point(segment.control)
            curve = (control - here) * 2 / 3, end + (control - end) * 2 / 3 - here, 0.0
        if curve is not None:
            u, v, sweep = curve
            arcs.append((len(steps), u.real, u.imag, v.real, v.imag, sweep))
        going = end - here
        steps.append(PACK_STEP(end.real, end.imag, normal(degrees(atan2(going.imag, going.real)))))
        here = end
    if start is None or not steps:
        return []
    return [((start.real, start.imag), b"".join(steps), arcs, is_closed)]


def _point(point: Any) -> complex:
    return complex(point.x, -point.y)


def _arc(segment: Any, start: complex) -> tuple[complex, complex, float] | None:
    """u, v and the sweep of an arc that starts at a point of its ellipse."""
    centre = _point(segment.center)
    a, b = _point(segment.prx) - centre, _point(segment.pry) - centre
    sweep = float(segment.sweep)
    area = a.real * b.imag - a.imag * b.real
    if area == 0 or sweep == 0:
        return None
    if area > 0:
        # Mirrored by a transform, which turned the sweep over too: its sense is that of the page.
        b, area = -b, -area
    u = start - centre
    # The start's angle on the ellipse, by its coordinates along the two half-axes.
    angle = atan2((a.real * u.imag - a.imag * u.real) / area, (u.real * b.imag - u.imag * b.real) / area)
    v = b * cos(angle) - a * sin(angle)
    return u, v, sweep * 180 / pi
