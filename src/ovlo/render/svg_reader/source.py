"""The tree of an SVG file that is safe to read.

    name, data = svg_source("kite.svg")
    root, lines = load(name, data)

The file is first walked through by expat, which stops at the first entity declaration, so that nothing is
ever expanded, and counts what reading would take.
"""

from __future__ import annotations

import xml.etree.ElementTree as ElementTree
from xml.etree.ElementTree import Element
from xml.parsers import expat

from ovlo.core.values.arguments import method
from ovlo.core.values.errors import FileError
from ovlo.render.files import checked_path

NAMESPACE = "http://www.w3.org/2000/svg"
LARGEST = 50_000_000
"""Bytes."""
DEEPEST = 200
"""Elements inside elements."""
LONGEST = {"transform": 2_000, "style": 20_000}
"""Characters of an attribute."""
MOST = 5_000_000
"""Characters of paths, where a shape counts as PER_SHAPE more, and a piece of a path as PER_PIECE: what is
read in some ten seconds."""
PER_SHAPE, PER_PIECE, PER_ARC = 100, 20, 3
MOST_SHAPES = MOST // PER_SHAPE


class Refused(Exception):
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


def load(name: str, data: bytes) -> tuple[Element, dict[Element, int]]:
    """The outermost element, and the line of each."""
    try:
        if len(data) > LARGEST:
            raise Refused(f"is larger than {LARGEST // 1_000_000} MB")
        lines = _look_over(data)
        root = ElementTree.fromstring(data)
    except Refused as error:
        raise FileError(f"from_svg: {name} {error}; it was not read.") from None
    except (expat.ExpatError, ElementTree.ParseError, ValueError, LookupError) as error:
        raise FileError(f"from_svg: {name} is damaged or not XML ({error}); it was not read.") from None
    return root, dict(zip(root.iter(), lines, strict=True))


def local_name(element: Element) -> str:
    """The name of an SVG element without its namespace; empty for those of other namespaces."""
    namespace, _, name = element.tag.rpartition("}")
    return name if namespace in ("", f"{{{NAMESPACE}") else ""


def _look_over(data: bytes) -> list[int]:
    """The line of each element; what is not SVG, or would grow when it is read, is refused."""
    parser = expat.ParserCreate(namespace_separator=" ")
    depth = work = 0
    lines: list[int] = []

    def start(name: str, attributes: dict[str, str]) -> None:
        nonlocal depth, work
        lines.append(parser.CurrentLineNumber)
        if depth == 0 and name not in (f"{NAMESPACE} svg", "svg"):
            raise Refused(f"is not SVG: its outermost element is {name.rpartition(' ')[2]!r}")
        depth += 1
        if depth > DEEPEST:
            raise Refused(f"has elements nested more than {DEEPEST} deep")
        work += PER_SHAPE
        for attribute, value in attributes.items():
            if len(value) > LONGEST.get(attribute, LARGEST):
                raise Refused(f"has a {attribute!r} of more than {LONGEST[attribute]:,} characters")
            if attribute in ("d", "points"):
                work += len(value) * (PER_ARC if "a" in value or "A" in value else 1)
                work += PER_PIECE * (value.count("M") + value.count("m"))
        if work > MOST:
            raise Refused(
                f"holds too much: the limits are about {MOST_SHAPES:,} shapes or "
                f"{MOST // 1_000_000} MB of paths"
            )

    def end(name: str) -> None:
        nonlocal depth
        depth -= 1

    def entity(*_: object) -> None:
        raise Refused("declares entities, which could grow without limit")

    def declaration(*_: object) -> None:
        raise Refused("declares a document type of its own")

    parser.StartElementHandler = start
    parser.EndElementHandler = end
    parser.EntityDeclHandler = entity
    parser.AttlistDeclHandler = parser.ElementDeclHandler = parser.NotationDeclHandler = declaration
    parser.Parse(data, True)
    return lines
