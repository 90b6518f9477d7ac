"""The style of each element of an SVG file: attributes, style sheets, inheritance (CSS Cascade 4, SVG 2, 6).

    cascade = Cascade(root, lines, losses)
    style = cascade.style_of(element, parent_style)
    style["stroke-width"]           # Length(value=2.0, is_share=False)

A value that is not valid gives way to the one below it, and is reported.
"""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from math import isfinite
from typing import Any, NamedTuple
from xml.etree.ElementTree import Element

import cssselect2
import tinycss2

from ovlo.core.values import colour
from ovlo.core.values.colour import BLACK, Colour
from ovlo.core.values.errors import BadValue
from ovlo.render.svg_reader.geometry import Length, length, matrix
from ovlo.render.svg_reader.losses import LEFT_OUT, UNKNOWN, Losses
from ovlo.render.svg_reader.source import local_name

Style = dict[str, Any]
"""The computed value of each property."""

FONT_SIZES = {
    "xx-small": 9,
    "x-small": 10,
    "small": 13,
    "medium": 16,
    "large": 18,
    "x-large": 24,
    "xx-large": 32,
}
"""Pixels (CSS Fonts 4, 2.5)."""


class PaintServer(NamedTuple):
    """A gradient or pattern by its name, and what is painted where there is none."""

    name: str
    fallback: Any


CURRENT = "currentColor"


class _Context(NamedTuple):
    em: float
    root_em: float
    is_css: bool


class _Invalid(Exception):
    """A value that its property does not have."""


def _words(*words: str) -> Callable[[str, _Context], str]:
    def read(text: str, context: _Context) -> str:
        if text.lower() not in words:
            raise _Invalid
        return text.lower()

    return read


def _colour(text: str, context: _Context) -> Any:
    if text.lower() == "currentcolor":
        return CURRENT
    try:
        return colour.parse(text, "from_svg")
    except BadValue:
        raise _Invalid from None


COMMENT = re.compile(r"/\*.*?\*/", re.DOTALL)
URL = re.compile(r"url\(\s*[\"']?#([^\"')]*)[\"']?\s*\)\s*(.*)$", re.DOTALL | re.IGNORECASE)
ICC = re.compile(r"\s+icc-color\([^)]*\)$")


def _paint(text: str, context: _Context) -> Any:
    if text.lower() == "none":
        return None
    if match := URL.match(text):
        return PaintServer(match[1], _paint(match[2], context) if match[2] else None)
    return _colour(ICC.sub("", text), context)


def _number(text: str, context: _Context) -> float:
    try:
        number = float(text)
    except ValueError:
        raise _Invalid from None
    if not isfinite(number) or "_" in text:
        raise _Invalid
    return number


def _share(text: str, context: _Context) -> float:
    whole = 100 if text.endswith("%") else 1
    return min(max(_number(text.removesuffix("%"), context) / whole, 0.0), 1.0)


def _limit(text: str, context: _Context) -> float:
    if (number := _number(text, context)) < 1:
        raise _Invalid
    return number


def _length(text: str, context: _Context) -> Length:
    found = length(text, context.em, context.root_em)
    if found is None:
        raise _Invalid
    return found


def _size(text: str, context: _Context) -> Length:
    found = _length(text, context)
    if found.value < 0:
        raise _Invalid
    return found


def _place(text: str, context: _Context) -> Length:
    found = length(text, context.em, context.root_em, needs_unit=context.is_css)
    if found is None:
        raise _Invalid
    return found


def _side(text: str, context: _Context) -> Length | None:
    if text.lower() == "auto":
        return None
    if (found := _place(text, context)).value < 0:
        raise _Invalid
    return found


def _dashes(text: str, context: _Context) -> tuple[Length, ...]:
    if text.lower() == "none":
        return ()
    return tuple(_size(part, context) for part in re.split(r"\s*,\s*|\s+", text))


def _transform(text: str, context: _Context) -> Any:
    found = matrix(text)
    if found is None:
        raise _Invalid
    return found


ORIGINS = {"left": "0%", "top": "0%", "center": "50%", "right": "100%", "bottom": "100%"}


def _origin(text: str, context: _Context) -> tuple[Length, Length]:
    words = text.lower().split()
    if words and words[0] in ("top", "bottom"):
        words = [*words[1:2], words[0]] if words[1:] else ["center", words[0]]
    if len(words) not in (1, 2):
        raise _Invalid
    first, second = [*words, "center"][:2]
    return _length(ORIGINS.get(first, first), context), _length(ORIGINS.get(second, second), context)


def _order(text: str, context: _Context) -> bool:
    """Whether the line lies below the fill."""
    words = text.lower().split()
    if words == ["normal"]:
        return False
    if not words or len(set(words)) < len(words) or not {*words} <= {"fill", "stroke", "markers"}:
        raise _Invalid
    return next((word == "stroke" for word in words if word != "markers"), False)


class Property(NamedTuple):
    """How a property is read, what it is where nobody says, and whether children inherit it."""

    read: Callable[[str, _Context], Any]
    initial: Any
    is_inherited: bool = False


NO_LENGTH = Length(0.0)

PROPERTIES: dict[str, Property] = {
    "color": Property(_colour, BLACK, True),
    "fill": Property(_paint, BLACK, True),
    "stroke": Property(_paint, None, True),
    "stop-color": Property(_colour, BLACK),
    "fill-opacity": Property(_share, 1.0, True),
    "stroke-opacity": Property(_share, 1.0, True),
    "stop-opacity": Property(_share, 1.0),
    "opacity": Property(_share, 1.0),
    "fill-rule": Property(_words("nonzero", "evenodd"), "nonzero", True),
    "stroke-width": Property(_size, Length(1.0), True),
    "stroke-dasharray": Property(_dashes, (), True),
    "stroke-dashoffset": Property(_length, NO_LENGTH, True),
    "stroke-linecap": Property(_words("butt", "round", "square"), "butt", True),
    "stroke-linejoin": Property(_words("miter", "round", "bevel", "miter-clip", "arcs"), "miter", True),
    "stroke-miterlimit": Property(_limit, 4.0, True),
    "paint-order": Property(_order, False, True),
    "visibility": Property(_words("visible", "hidden", "collapse"), "visible", True),
    "display": Property(lambda text, context: text.lower(), "inline"),
    "overflow": Property(lambda text, context: text.lower(), "hidden"),
    "transform": Property(_transform, matrix("")),
    "transform-origin": Property(_origin, (NO_LENGTH, NO_LENGTH)),
    **{name: Property(_place, NO_LENGTH) for name in ("x", "y", "cx", "cy", "r")},
    **{name: Property(_side, None) for name in ("width", "height", "rx", "ry")},
}
"""What is kept."""

REFUSED = {
    **dict.fromkeys(
        ("clip-path", "mask", "filter", "marker-start", "marker-mid", "marker-end", "marker"), "none"
    ),
    "mix-blend-mode": "normal",
    "vector-effect": "none",
    "transform-box": "view-box",
    "clip": "auto",
    **dict.fromkeys(("rotate", "scale", "translate"), "none"),
    "d": "none",
    "zoom": "1",
    "font": "",
    "all": "",
    "stroke-alignment": "center",
    "content-visibility": "",
}
"""What is left out and reported, unless it has the value that changes nothing."""

NOT_ATTRIBUTES = {"d", "rotate", "scale", "translate", "font", "all", "marker", "zoom"}
"""Properties that no attribute stands for; `d` is path data there."""

HARMLESS = frozenset(
    """
    alignment-baseline baseline-shift block-progression clip-rule color-interpolation
    color-interpolation-filters color-profile color-rendering cursor direction dominant-baseline
    enable-background flood-color flood-opacity font-family font-feature-settings font-kerning
    font-size-adjust font-stretch font-style font-variant font-variant-alternates font-variant-caps
    font-variant-east-asian font-variant-ligatures font-variant-numeric font-variant-position
    font-variation-settings font-weight glyph-orientation-horizontal glyph-orientation-vertical
    image-rendering inline-size isolation kerning letter-spacing lighting-color line-height
    mask-type outline pointer-events shape-inside shape-margin shape-padding shape-rendering
    shape-subtract solid-color solid-opacity text-align text-align-last text-anchor text-decoration
    text-decoration-color text-decoration-line text-decoration-style text-indent text-orientation
    text-overflow text-rendering text-transform touch-action transition unicode-bidi user-select
    white-space will-change word-spacing writing-mode background background-color margin padding
    box-sizing
    """.split()  # noqa: SIM905
)
"""What changes nothing in lines and areas; words are left out whole."""

IDENTITIES = {"inherit", "initial", "unset", "revert", "revert-layer"}


@dataclass(frozen=True)
class Declaration:
    """A value as it is written."""

    text: str
    is_css: bool


class Cascade:
    """The declarations of a file: attributes, sheets, and the styles of elements."""

    def __init__(self, root: Element, lines: dict[Element, int], losses: Losses) -> None:
        self._lines, self._losses = lines, losses
        self._root_em = 16.0
        self._declared: dict[tuple[Element, Element], dict[str, list[Declaration]]] = {}
        self._root, self._matcher = root, self._sheets(root)
        self._matches: dict[Element, dict[Element, list[list[Any]]]] = {}

    def _sheets(self, root: Element) -> Any:
        """What the rules of all style sheets match."""
        matcher = cssselect2.Matcher()
        for element in root.iter():
            if local_name(element) != "style" or element.get("type", "text/css").strip() != "text/css":
                continue
            if element.get("media", "all").strip().lower() not in ("", "all", "screen"):
                self._losses.add(LEFT_OUT, "style for another medium", self._lines[element])
                continue
            for rule in tinycss2.parse_stylesheet("".join(element.itertext()), True, True):
                self._add_rule(matcher, rule, self._lines[element])
        return matcher

    def _matching(self, element: Element, scope: Element) -> list[list[Any]]:
        """The declarations of the rules that match an element, the weakest first.

        What a `use` shows is a tree of its own for selectors (SVG 2, 5.5.3).
        """
        if not self._matcher.order:
            return []
        if scope not in self._matches:
            self._matches[scope] = {
                wrapped.etree_element: [match[-1] for match in matches if match[2] is None]
                for wrapped in cssselect2.ElementWrapper.from_xml_root(scope).iter_subtree()
                if (matches := self._matcher.match(wrapped))
            }
        return self._matches[scope].get(element, [])

    def _add_rule(self, matcher: Any, rule: Any, first: int) -> None:
        line = first + rule.source_line - 1
        if rule.type == "at-rule":
            if rule.lower_at_keyword not in ("charset", "font-face", "namespace"):
                self._losses.add(LEFT_OUT, f"@{rule.at_keyword}", line)
        elif rule.type == "error":
            self._losses.add(UNKNOWN, f"style ({rule.message})", line)
        else:
            try:
                selectors = cssselect2.compile_selector_list(rule.prelude)
            except cssselect2.SelectorError:
                self._losses.add(UNKNOWN, f"selector {tinycss2.serialize(rule.prelude).strip()!r}", line)
                return
            declarations = tinycss2.parse_blocks_contents(rule.content, True, True)
            for selector in selectors:
                matcher.add_selector(selector, declarations)

    def style_of(self, element: Element, parent: Style, scope: Element | None = None) -> Style:
        """The computed style of an element whose parent's is given; the root's parent has INITIAL.

        `scope` is the element that a `use` shows, if it is shown by one.
        """
        key = element, self._root if scope is None else scope
        declared = self._declared.get(key)
        if declared is None:
            declared = self._declared[key] = self._declarations(*key)
        style: Style = {
            name: parent[name] if entry.is_inherited else entry.initial for name, entry in PROPERTIES.items()
        }
        em = style["font-size"] = self._font_size(declared.get("font-size", []), parent["font-size"])
        if parent is INITIAL:
            self._root_em = em
        for name in declared.keys() & PROPERTIES.keys():
            style[name] = self._value(element, name, PROPERTIES[name], declared[name], parent, em)
        if style["color"] is CURRENT:
            style["color"] = parent["color"]
        return style

    def _value(
        self,
        element: Element,
        name: str,
        entry: Property,
        declarations: list[Declaration],
        parent: Style,
        em: float,
    ) -> Any:
        for declaration in declarations:
            word = declaration.text.lower()
            if word in IDENTITIES:
                inherits = word == "inherit" or (word != "initial" and entry.is_inherited)
                return parent[name] if inherits else entry.initial
            try:
                return entry.read(declaration.text, _Context(em, self._root_em, declaration.is_css))
            except _Invalid:
                self._losses.add(UNKNOWN, f"{name} {declaration.text[:40]!r}", self._lines[element])
        return parent[name] if entry.is_inherited else entry.initial

    def _font_size(self, declarations: list[Declaration], above: float) -> float:
        for declaration in declarations:
            word = declaration.text.lower()
            if word in FONT_SIZES:
                return float(FONT_SIZES[word])
            if word in ("larger", "smaller"):
                return above * 1.2 if word == "larger" else above / 1.2
            if word == "initial":
                return 16.0
            if word in IDENTITIES:
                return above
            found = length(word, above, self._root_em)
            if found is not None and found.value >= 0:
                return found.of(above)
        return above

    def _declarations(self, element: Element, scope: Element) -> dict[str, list[Declaration]]:
        """The values of each property, the one that counts most first."""
        line = self._lines[element]
        normal: defaultdict[str, list[Declaration]] = defaultdict(list)
        important: defaultdict[str, list[Declaration]] = defaultdict(list)
        for name in element.attrib.keys() & (PROPERTIES.keys() | REFUSED.keys() | {"font-size"}):
            if name in NOT_ATTRIBUTES:
                continue
            text = COMMENT.sub(" ", element.attrib[name]).strip()
            normal[name].append(Declaration(text, False))
        for written in (*self._matching(element, scope), _inline(element.get("style", ""))):
            for entry in written:
                if entry.type == "declaration":
                    tokens = [token for token in entry.value if token.type != "comment"]
                    declared = important if entry.important else normal
                    declared[entry.lower_name].append(Declaration(tinycss2.serialize(tokens).strip(), True))
                else:
                    self._losses.add(UNKNOWN, "a part of a style", line)
        declarations = {
            name: [*reversed(important[name]), *reversed(normal[name])]
            for name in [*normal, *(important.keys() - normal.keys())]
        }
        for name, (first, *_) in declarations.items():
            self._report(name, first, line)
        return declarations

    def _report(self, name: str, declaration: Declaration, line: int) -> None:
        if name in REFUSED:
            if declaration.text.lower() not in (REFUSED[name], *IDENTITIES):
                self._losses.add(LEFT_OUT, name, line)
        elif name not in PROPERTIES and name not in HARMLESS and name != "font-size" and name[0] != "-":
            self._losses.add(UNKNOWN, f"property {name!r}", line)


@lru_cache(maxsize=512)
def _inline(text: str) -> list[Any]:
    return tinycss2.parse_blocks_contents(text, True, True) if text.strip() else []


INITIAL: Style = {name: entry.initial for name, entry in PROPERTIES.items()} | {"font-size": 16.0}
"""The style above the outermost element."""


def resolved(paint: Any, style: Style) -> Colour | PaintServer | None:
    """A paint whose `currentColor` is that of the element it is used on."""
    if isinstance(paint, PaintServer):
        return paint._replace(fallback=resolved(paint.fallback, style))
    if paint is CURRENT or paint == CURRENT:
        return style["color"]  # type: ignore[no-any-return]
    return paint  # type: ignore[no-any-return]
