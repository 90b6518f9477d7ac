"""SVG files read back as shapes.

    shapes, losses = read("kite.svg", data)

Each element that draws becomes a Shape: its border as pieces in the units and with the origin of the file,
y up, and its looks. What is kept, approximated and left out stands in docs/reference/svg.md.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from math import cos, radians, sin
from typing import NamedTuple
from xml.etree.ElementTree import Element

import numpy as np

from ovlo.core.paint.mitres import MITER_LIMIT
from ovlo.core.trail.columns import STEP
from ovlo.core.trail.trail import Curve, Piece
from ovlo.core.values.arrays import Floats
from ovlo.core.values.colour import Colour
from ovlo.core.values.errors import FileError
from ovlo.render.formats.svg import PAPER
from ovlo.render.svg_reader.geometry import (
    PLAIN,
    Box,
    Length,
    Map,
    ellipse,
    fitted,
    length,
    rectangle,
    view_box,
)
from ovlo.render.svg_reader.losses import APPROXIMATED, LEFT_OUT, UNKNOWN, Losses
from ovlo.render.svg_reader.path_data import Subpath, points_of, subpaths_of
from ovlo.render.svg_reader.source import MOST_SHAPES, Refused, load, local_name
from ovlo.render.svg_reader.style import (
    HARMLESS,
    INITIAL,
    PROPERTIES,
    REFUSED,
    Cascade,
    PaintServer,
    Style,
    resolved,
)

SHAPES = {"path", "rect", "circle", "ellipse", "line", "polyline", "polygon"}
GROUPS = {"svg", "g", "a", "switch"}
NEVER_SHOWN = {
    *("title", "desc", "metadata", "defs", "symbol", "style", "linearGradient", "radialGradient", "pattern"),
    *("clipPath", "mask", "filter", "marker", "view", "font", "font-face", "color-profile", "cursor", "stop"),
}
"""Nothing by themselves; what refers to them is read or reported."""
LOST = {
    *("text", "image", "foreignObject", "script", "animate", "animateColor", "animateMotion", "set"),
    *("animateTransform", "audio", "video", "iframe", "canvas"),
}
"""Left out, and reported."""

LINK = "{http://www.w3.org/1999/xlink}href"
READ = {
    *("id", "class", "style", "points", "viewBox", "preserveAspectRatio", "href", LINK, "x1", "y1", "x2"),
    *("y2", "type", "media", "systemLanguage", "requiredExtensions", "requiredFeatures", "pathLength", "d"),
    *("version", "baseProfile", "contentStyleType", "contentScriptType", "zoomAndPan", "lang", "tabindex"),
    *("role", "target", "rel", "download", "hreflang", "ping", "referrerpolicy", "autofocus", "nonce"),
    *("externalResourcesRequired", "focusable", "slot", "name"),
}
"""Attributes that are read, or change nothing."""
KNOWN = READ | PROPERTIES.keys() | REFUSED.keys() | HARMLESS | {"font-size"}
USED_DEEP = 20
"""Uses inside what is used."""
DEFAULT_SIZE = Length(300.0), Length(150.0)
"""Of an outermost element without a size or a box (CSS 2, 10.3.2)."""


@dataclass(frozen=True)
class Shape:
    """One element: its pieces, what they are filled and drawn with, and the box around them."""

    pieces: list[Piece]
    fill: Colour | None
    ink: Colour | None
    fill_rule: str
    line_width: float
    line_dash: tuple[float, ...]
    line_cap: str
    line_join: str
    line_below: bool
    """Whether the line lies under the fill."""
    box: tuple[float, float, float, float]
    """Left, bottom, right and top, of the line too."""


class Place(NamedTuple):
    """Where an element stands: its parent's style, map and viewport, and what is used around it."""

    style: Style
    plane: Map
    port: Box
    used: tuple[Element, ...] = ()

    @property
    def scope(self) -> Element | None:
        """The innermost element that a `use` shows."""
        return self.used[-1] if self.used else None


def read(name: str, data: bytes) -> tuple[list[Shape], str]:
    """The shapes of an SVG file, the lowest first, and what of it they do not show.

    Numbers that are not finite raise ArithmeticError or ValueError.
    """
    root, lines = load(name, data)
    try:
        reader = _Reader(root, lines)
        shapes = reader.shapes()
    except Refused as error:
        raise FileError(f"from_svg: {name} {error}; it was not read.") from None
    return shapes, str(reader.losses)


class _Reader:
    """Walks down a file."""

    def __init__(self, root: Element, lines: dict[Element, int]) -> None:
        self.losses = Losses()
        self._root, self._lines = root, lines
        self._cascade = Cascade(root, lines, self.losses)
        self._by_name: dict[str, Element] = {}
        for element in root.iter():
            self._by_name.setdefault(element.get("id", ""), element)
        self._budget = MOST_SHAPES
        self._seen: set[Element] = set()

    def shapes(self) -> list[Shape]:
        """All of them."""
        root = self._root
        style = self._cascade.style_of(root, INITIAL)
        view = view_box(root.get("viewBox"))
        sides = [
            style[name] if isinstance(style[name], Length) and not style[name].is_share else None
            for name in ("width", "height")
        ]
        width, height = (side or default for side, default in zip(sides, DEFAULT_SIZE, strict=True))
        port = view or Box(0, 0, width.value, height.value)
        if style["transform"] != PLAIN:
            self.losses.add(LEFT_OUT, "transform of the outermost svg", self._lines[root])
        if view and all(sides) and view.height and "none" in root.get("preserveAspectRatio", ""):
            shapes_differ = abs(width.value * view.height - height.value * view.width) > 1e-6 * view.height
            if shapes_differ:
                self.losses.add(APPROXIMATED, "preserveAspectRatio='none'", self._lines[root])
        if style["display"] == "none":
            return []
        self._check_attributes(root)
        return self._faded(root, style, list(self._children(root, Place(style, PLAIN, port))))

    def _children(self, element: Element, place: Place) -> Iterator[Shape]:
        for child in element:
            yield from self._shapes_of(child, place)

    def _shapes_of(self, element: Element, place: Place) -> Iterator[Shape]:
        name = local_name(element)
        if not name or name in NEVER_SHOWN or element.get("class") == PAPER:
            return
        if name not in SHAPES | GROUPS | {"use"}:
            known = name in LOST or name.startswith("fe")
            self.losses.add(LEFT_OUT if known else UNKNOWN, name, self._lines[element])
            return
        if not self._is_chosen(element):
            return
        self._budget -= 1
        if self._budget < 0:
            raise Refused(f"uses too much: the limit is about {MOST_SHAPES:,} shapes")
        style = self._cascade.style_of(element, place.style, place.scope)
        if style["display"] == "none":
            return
        if element not in self._seen:
            self._seen.add(element)
            self._check_attributes(element)
        plane = place.plane.after(_transform(style, place.port)) if name != "svg" else place.plane
        place = Place(style, plane, place.port, place.used)
        if name in SHAPES:
            for child in element:
                if local_name(child) not in ("", "title", "desc", "metadata"):
                    self.losses.add(LEFT_OUT, local_name(child), self._lines[child])
            shapes = self._drawn(element, place)
        elif name == "use":
            shapes = self._used(element, place)
        elif name == "svg":
            shapes = self._nested(element, place, style["width"], style["height"])
        else:
            chosen = [child for child in element if name != "switch" or self._may_be_chosen(child)]
            within = chosen[:1] if name == "switch" else chosen
            shapes = (shape for child in within for shape in self._shapes_of(child, place))
        yield from self._faded(element, style, list(shapes))

    def _may_be_chosen(self, element: Element) -> bool:
        return bool(local_name(element)) and self._is_chosen(element)

    def _is_chosen(self, element: Element) -> bool:
        """Whether the conditions of an element hold, for one who reads English (SVG 2, 5.7)."""
        languages = element.get("systemLanguage")
        speaks = languages is None or any(
            language.strip().lower().partition("-")[0] == "en" for language in languages.split(",")
        )
        return speaks and element.get("requiredExtensions") is None

    def _faded(self, element: Element, style: Style, shapes: list[Shape]) -> list[Shape]:
        """Shapes with the opacity of the element they are in: exact where no two of its marks overlap."""
        opacity = style["opacity"]
        if opacity >= 1 or not shapes:
            return shapes
        if not opacity:
            return []
        if any(shape.fill and shape.ink for shape in shapes) or _overlap(shapes):
            self.losses.add(APPROXIMATED, "opacity of marks that overlap", self._lines[element])
        return [
            replace(shape, fill=_thinned(shape.fill, opacity), ink=_thinned(shape.ink, opacity))
            for shape in shapes
        ]

    def _nested(
        self, element: Element, place: Place, width: Length | None, height: Length | None
    ) -> Iterator[Shape]:
        """What is in an `svg`, or in a symbol that is used."""
        outer, style, line = place.port, place.style, self._lines[element]
        is_symbol = local_name(element) == "symbol"
        x, y = (0.0 if is_symbol else style[name].of(side)
                for name, side in (("x", outer.width), ("y", outer.height)))  # fmt: skip
        port = Box(
            x,
            y,
            outer.width if width is None else width.of(outer.width),
            outer.height if height is None else height.of(outer.height),
        )
        if port.width <= 0 or port.height <= 0:
            return
        view = view_box(element.get("viewBox"))
        if view is not None and (view.width == 0 or view.height == 0):
            return
        if view is None and element.get("viewBox"):
            self.losses.add(UNKNOWN, f"viewBox {element.get('viewBox')!r}", line)
        inner = fitted(view, port, element.get("preserveAspectRatio")) if view else Map(complex(x, y))
        plane = place.plane
        if local_name(element) == "svg" and style["transform"] != PLAIN:
            plane = plane.after(_transform(style, outer))
        inside = view or Box(0, 0, port.width, port.height)
        shapes = list(self._children(element, Place(style, plane.after(inner), inside, place.used)))
        if style["overflow"] not in ("visible", "auto") and any(
            _reaches_out(shape, plane, port) for shape in shapes
        ):
            self.losses.add(LEFT_OUT, "clipping at the edge of a viewBox", line)
        yield from shapes

    def _used(self, element: Element, place: Place) -> Iterator[Shape]:
        """What a `use` shows (SVG 2, 5.5)."""
        style, port, line = place.style, place.port, self._lines[element]
        link = element.get("href", element.get(LINK, "")).strip()
        target = self._by_name.get(link[1:]) if link.startswith("#") else None
        if target is None:
            self.losses.add(LEFT_OUT, "use of what is not in the file", line)
            return
        name = local_name(target)
        if name not in SHAPES | GROUPS | {"symbol", "use"}:
            self.losses.add(LEFT_OUT, f"use of {name or 'a foreign element'}", line)
            return
        if target in place.used:
            raise Refused(f"uses {link[1:]!r} inside itself")
        if len(place.used) >= USED_DEEP:
            raise Refused(f"has uses nested more than {USED_DEEP} deep")
        shift = Map(complex(style["x"].of(port.width), style["y"].of(port.height)))
        inner = Place(style, place.plane.after(shift), port, (*place.used, target))
        if name not in ("symbol", "svg"):
            yield from self._shapes_of(target, inner)
            return
        own = self._cascade.style_of(target, style, target)
        if own["display"] == "none" and name == "svg":
            return
        sides = (style[side] if style[side] is not None else own[side] for side in ("width", "height"))
        if target not in self._seen:
            self._seen.add(target)
            self._check_attributes(target)
        plane = inner.plane.after(_transform(own, port)) if name == "symbol" else inner.plane
        shapes = list(self._nested(target, inner._replace(style=own, plane=plane), *sides))
        yield from self._faded(target, own, shapes)

    def _drawn(self, element: Element, place: Place) -> Iterator[Shape]:
        style, plane, line = place.style, place.plane, self._lines[element]
        subpaths = self._outline(element, style, place.port)
        if not subpaths or style["visibility"] != "visible":
            return
        fill = None if local_name(element) == "line" else self._colour("fill", style, line)
        width = style["stroke-width"].of(place.port.diagonal)
        ink = self._colour("stroke", style, line) if width > 0 else None
        if (fill is None and ink is None) or not plane.scale:
            return
        pieces = [_piece(subpath, plane) for subpath in subpaths]
        dash: tuple[float, ...] = ()
        join = "miter"
        if ink is not None:
            if not plane.is_similarity:
                self.losses.add(APPROXIMATED, "stroke-width under a transform that distorts it", line)
            dash = self._dash(element, style, place.port, line)
            join = self._join(style, subpaths, line)
        reach = width * plane.scale * (2 if join == "miter" else 0.75) if ink is not None else 0.0
        yield Shape(
            pieces,
            fill,
            ink,
            style["fill-rule"],
            width * plane.scale,
            tuple(part * plane.scale for part in dash),
            style["stroke-linecap"],
            join,
            style["paint-order"],
            _box_around(subpaths, plane, reach),
        )

    def _outline(self, element: Element, style: Style, port: Box) -> list[Subpath]:
        """The border of an element in its own units; none where the standard says that it is not shown."""
        name, line = local_name(element), self._lines[element]
        if name in ("path", "polyline", "polygon"):
            key = "d" if name == "path" else "points"
            data = element.get(key, "")
            if name == "path":
                subpaths, is_valid = subpaths_of("" if data.strip() == "none" else data)
            else:
                subpaths, is_valid = points_of(data, name == "polygon")
            if not is_valid:
                self.losses.add(UNKNOWN, f"{key}, read up to its first error" if subpaths else key, line)
            return subpaths
        if name == "line":
            em = style["font-size"]
            points = []
            for x, y in (("x1", "y1"), ("x2", "y2")):
                found = [length(element.get(key, "0"), em, em) for key in (x, y)]
                if None in found:
                    self.losses.add(UNKNOWN, f"{x} or {y} of a line", line)
                across, along = (part or Length(0.0) for part in found)
                points.append(complex(across.of(port.width), along.of(port.height)))
            return [Subpath(points[0], points[1:], [], False)]
        width = None if style["width"] is None else style["width"].of(port.width)
        height = None if style["height"] is None else style["height"].of(port.height)
        rx = None if style["rx"] is None else style["rx"].of(port.width)
        ry = None if style["ry"] is None else style["ry"].of(port.height)
        if name == "rect":
            if not width or not height:
                return []
            box = Box(style["x"].of(port.width), style["y"].of(port.height), width, height)
            rounded = rx if rx is not None else ry or 0.0, ry if ry is not None else rx or 0.0
            return [rectangle(box, *rounded)]
        centre = complex(style["cx"].of(port.width), style["cy"].of(port.height))
        if name == "circle":
            rx = ry = style["r"].of(port.diagonal)
        rx, ry = rx if rx is not None else ry or 0.0, ry if ry is not None else rx or 0.0
        return [ellipse(centre, rx, ry)] if rx > 0 and ry > 0 else []

    def _colour(self, name: str, style: Style, line: int) -> Colour | None:
        """The colour of a fill or stroke, its opacity in it; None where there is none to see."""
        paint = resolved(style[name], style)
        if isinstance(paint, PaintServer):
            paint = self._served(paint, name, line)
        return _thinned(paint, style[f"{name}-opacity"])

    def _served(self, server: PaintServer, name: str, line: int) -> Colour | None:
        target = self._by_name.get(server.name)
        kind = local_name(target) if target is not None else ""
        if target is None or kind not in ("linearGradient", "radialGradient", "pattern"):
            # SVG 2, 13.2: a server that is not there gives the colour behind it, or none.
            fallback = server.fallback
            return fallback if isinstance(fallback, Colour) else None
        stops = self._stops(target, set())
        if kind == "pattern":
            self.losses.add(LEFT_OUT, f"{name} with a pattern", line)
            return None
        if not stops:
            return None
        if len(set(stops)) > 1:
            self.losses.add(APPROXIMATED, f"{name} with a gradient, by its mean colour", line)
        sums = [sum(channel) / len(stops) for channel in zip(*stops, strict=True)]
        return Colour(*sums)

    def _stops(self, gradient: Element, seen: set[Element]) -> list[Colour]:
        """The colours of a gradient's stops, or of the gradient that it refers to (SVG 2, 14.2)."""
        seen.add(gradient)
        style = self._cascade.style_of(gradient, INITIAL)
        colours = []
        for stop in gradient:
            if local_name(stop) == "stop":
                own = self._cascade.style_of(stop, style)
                colour = resolved(own["stop-color"], own)
                assert isinstance(colour, Colour)
                colours.append(replace(colour, opacity=colour.opacity * own["stop-opacity"]))
        link = gradient.get("href", gradient.get(LINK, "")).strip()
        other = self._by_name.get(link[1:]) if link.startswith("#") else None
        if not colours and other is not None and other not in seen:
            return self._stops(other, seen)
        return colours

    def _dash(self, element: Element, style: Style, port: Box, line: int) -> tuple[float, ...]:
        """Dashes and gaps in the element's units, begun where `stroke-dashoffset` says."""
        parts: list[float] = [part.of(port.diagonal) for part in style["stroke-dasharray"]]
        if not any(parts):
            return ()
        if element.get("pathLength"):
            self.losses.add(APPROXIMATED, "pathLength of a dashed line", line)
        dash = parts * 2 if len(parts) % 2 else parts
        offset = style["stroke-dashoffset"].of(port.diagonal) % sum(dash)
        if not offset:
            return tuple(dash)
        k = 0
        while offset >= dash[k]:
            offset -= dash[k]
            k = (k + 1) % len(dash)
        rest, turned = dash[k] - offset, dash[k + 1 :] + dash[:k]
        if k % 2 == 0:
            # The beginning of the dash follows its end without a gap.
            return (rest, *turned, offset, 0.0) if offset else (rest, *turned)
        if style["stroke-linecap"] != "butt":
            self.losses.add(APPROXIMATED, "stroke-dashoffset that begins in a gap", line)
        return (0.0, rest, *turned, offset)

    def _join(self, style: Style, subpaths: list[Subpath], line: int) -> str:
        """How lines meet; Ovlo cuts a mitre off where it is MITER_LIMIT widths long."""
        join, limit = style["stroke-linejoin"], style["stroke-miterlimit"]
        if join in ("miter-clip", "arcs"):
            self.losses.add(APPROXIMATED, f"stroke-linejoin {join!r}", line)
        if join not in ("miter", "miter-clip", "arcs"):
            return str(join)
        ratios = np.concatenate([np.empty(0), *map(_mitre_ratios, subpaths)])
        cut_there, cut_here = ratios > limit, ratios > MITER_LIMIT
        if (cut_there == cut_here).all():
            return "miter"
        if cut_there[ratios > 1.001].all():
            return "bevel"
        self.losses.add(APPROXIMATED, f"stroke-miterlimit {limit:g}", line)
        return "miter"

    def _check_attributes(self, element: Element) -> None:
        line = self._lines[element]
        if "systemLanguage" in element.attrib:
            self.losses.add(APPROXIMATED, "systemLanguage, as if it were English", line)
        for name in element.attrib.keys() - KNOWN:
            if not name.startswith(("on", "data-", "aria-", "{")):
                self.losses.add(UNKNOWN, f"attribute {name!r}", line)


def _transform(style: Style, port: Box) -> Map:
    plane: Map = style["transform"]
    across, along = style["transform-origin"]
    if plane == PLAIN or not (across.value or along.value):
        return plane
    x = across.of(port.width) + (port.x if across.is_share else 0.0)
    y = along.of(port.height) + (port.y if along.is_share else 0.0)
    return Map(complex(x, y)).after(plane).after(Map(complex(-x, -y)))


def _thinned(colour: Colour | None, opacity: float) -> Colour | None:
    """A colour with an opacity; None where there is nothing to see."""
    if colour is None or opacity >= 1:
        return colour if colour is None or colour.opacity else None
    return replace(colour, opacity=colour.opacity * opacity) if colour.opacity * opacity else None


def _piece(subpath: Subpath, plane: Map) -> Piece:
    """A subpath as a piece: y is turned over."""
    points = np.array([subpath.start, *subpath.ends])
    if not np.isfinite(points).all():
        raise ArithmeticError
    points = (plane.origin + points.real * plane.x_axis + points.imag * plane.y_axis).conj()
    steps = np.empty(len(points) - 1, STEP)
    steps["x"], steps["y"] = points[1:].real, points[1:].imag
    steps["heading"] = np.degrees(np.angle(np.diff(points))) % 360
    steps["heading"][steps["heading"] >= 360] = 0
    curves: list[Curve] = []
    for number, u, v, sweep in subpath.curves:
        u, v = plane.vector(u).conjugate(), plane.vector(v).conjugate()
        curves.append((number, u.real, u.imag, v.real, v.imag, sweep))
    start = complex(points[0])
    return (start.real, start.imag), steps.tobytes(), curves, subpath.is_closed


def _box_around(subpaths: list[Subpath], plane: Map, reach: float) -> tuple[float, float, float, float]:
    """A box around subpaths on the plane, y down: of what their curves lie between."""
    points: list[complex] = []
    for subpath in subpaths:
        ends = [subpath.start, *subpath.ends]
        points += ends
        for number, u, v, sweep in subpath.curves:
            here = ends[number]
            # An arc lies within the parallelogram of its conjugate half-axes.
            points += (
                [here - u + p * u + q * v for p in (-1, 1) for q in (-1, 1)]
                if sweep
                else [here + u, here + v]
            )
    there = np.array([plane.point(point) for point in points])
    left, right = there.real.min() - reach, there.real.max() + reach
    return float(left), float(there.imag.min() - reach), float(right), float(there.imag.max() + reach)


def _overlap(shapes: list[Shape]) -> bool:
    """Whether the boxes of two shapes overlap."""
    boxes = np.array([shape.box for shape in shapes])
    boxes = boxes[np.argsort(boxes[:, 0])]
    for number, (_, low, right, high) in enumerate(boxes):
        later = boxes[number + 1 : np.searchsorted(boxes[:, 0], right)]
        if ((later[:, 1] < high) & (later[:, 3] > low)).any():
            return True
    return False


def _reaches_out(shape: Shape, plane: Map, port: Box) -> bool:
    """Whether a shape may lie in part outside of the box of a viewport."""
    corners = np.array(
        [
            plane.point(complex(x, y))
            for x in (port.x, port.x + port.width)
            for y in (port.y, port.y + port.height)
        ]
    )
    # The box is turned: only the upright box between its inner corners is surely within it.
    low, high = (0, 3) if not (plane.x_axis.real and plane.x_axis.imag) and plane.is_similarity else (1, 2)
    xs, ys = np.sort(corners.real), np.sort(corners.imag)
    slack = 1e-6 * float(xs[3] - xs[0] + ys[3] - ys[0])
    x0, y0, x1, y1 = shape.box
    return bool(
        x0 < xs[low] - slack or y0 < ys[low] - slack or x1 > xs[high] + slack or y1 > ys[high] + slack
    )


def _mitre_ratios(subpath: Subpath) -> Floats:
    """The length of the mitre at each corner in widths of the line (SVG 2, 13.5.5)."""
    ends = [subpath.start, *subpath.ends]
    curves = {number: (u, v, sweep) for number, u, v, sweep in subpath.curves}
    leaving, arriving = [], []
    for number, (here, there) in enumerate(pairwise(ends)):
        out = into = there - here
        if number in curves:
            u, v, sweep = curves[number]
            if sweep:
                turn, sign = radians(sweep), 1 if sweep > 0 else -1
                out, into = v * sign, (v * cos(turn) - u * sin(turn)) * sign
            else:
                w = there - here
                out = next((way for way in (u, v, w) if way), w)
                into = next((way for way in (w - v, w - u, w) if way), w)
        if out and into:
            leaving.append(out / abs(out))
            arriving.append(into / abs(into))
    if not leaving:
        return np.empty(0)
    before, after = np.array(arriving), np.roll(np.array(leaving), -1)
    if not subpath.is_closed:
        before, after = before[:-1], after[:-1]
    cosine = (before.conj() * after).real
    with np.errstate(divide="ignore"):
        ratios: Floats = 1 / np.sqrt(np.maximum((1 + cosine) / 2, 0.0))
    return ratios
