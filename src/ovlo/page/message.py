"""What a page receives of a drawing: the one message format, in a file and over a socket alike.

    data = message(sheet, sheet.check())

Its bytes are the length of a head (four bytes, the lowest first), the head itself (JSON, UTF-8), and arrays,
each of which begins at a multiple of eight. docs/reference/message.md describes them.
"""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.order import paint_order
from ovlo.core.paint.outlines import MOVE, Outline, borders, dash_offsets, strokes
from ovlo.core.paint.stretch import Parts
from ovlo.core.sheet.motif import Motif, default_pointer
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.sheet.step_table import CallTotal, call_totals, turns_before
from ovlo.core.trail.columns import FILL_RULES, Columns, Style, Text
from ovlo.core.trail.curves import step_lengths
from ovlo.core.trail.origins import Origins
from ovlo.core.values.arrays import Floats
from ovlo.core.values.choices import Slant, Weight
from ovlo.core.values.finding import Finding
from ovlo.page.source import source_of
from ovlo.render import lettering
from ovlo.render.page import plain

VERSION = 1

Arrays = dict[str, NDArray[Any]]

TYPES = {"f8": "Float64Array", "i4": "Int32Array", "u1": "Uint8Array"}
"""What arrays are in the page; the page's machine and ours both put the lowest byte first."""


Nibs = Sequence[tuple[tuple[float, float, float], Motif | None]]
"""The pose and the pointer of each nib."""


def message(
    sheet: Sheet, findings: Sequence[Finding] | None = (), start: dict[str, Any] | None = None
) -> bytes:
    """A drawing with all that is known of it; see `parts`."""
    return packed(*parts(sheet, findings, start))


def parts(
    sheet: Sheet,
    findings: Sequence[Finding] | None = (),
    start: dict[str, Any] | None = None,
    columns: Columns | None = None,
    nibs: Nibs | None = None,
    with_source: bool = True,
) -> tuple[dict[str, Any], Arrays]:
    """The head and the arrays of a drawing's message.

    Parameters
    ----------
    findings : sequence of Finding or None
        None when nobody looked for any.
    start : dict
        How the page begins: what `fit`, `overlays`, `only`, `play` and `follows` are.
    columns, nibs
        What is drawn, and the nibs, where they are read beside a program that goes on drawing.
    with_source : bool
        Whether the message has the program too, as coloured lines.
    """
    columns = sheet._columns if columns is None else columns
    if nibs is None:
        nibs = [((nib.pose.x, nib.pose.y, nib.pose.heading), nib.pointer) for nib in sheet.nibs]
    origins = sheet._origins
    arrays: Arrays = {}
    head: dict[str, Any] = {
        "version": VERSION,
        "kind": "drawing",
        "title": sheet.title,
        "description": sheet._description,
        "width": sheet.width,
        "height": sheet.height,
        "unit": sheet.unit,
        "pixelsPerUnit": sheet._pixels_per_unit,
        "paper": sheet.paper.css,
        "parameters": {name: plain(value) for name, value in sheet.parameters.items()},
        "seed": sheet.seed if sheet.dice._is_used else None,
        "drawing": _marks(columns, "", arrays),
        "pointers": _pointers(nibs, arrays),
        "poses": [list(pose) for pose, _ in nibs],
        "pauses": columns.pauses.tolist(),
        "findings": None if findings is None else [told_finding(one) for one in findings],
        "start": start or {},
        "calls": [] if origins is None else [_call(*one) for one in call_totals(columns, origins)],
        "source": None,
    }
    _steps(columns, origins, arrays)
    if origins is not None:
        head["source"] = source_of(origins) if with_source else None
        arrays["lines"] = _lines_of(origins)
        arrays["calls"] = _call_numbers(origins)
    return head, arrays


def packed(head: dict[str, Any], arrays: Arrays, before: Arrays | None = None) -> bytes:
    """A head and arrays as bytes; of arrays that begin as those sent before, only the rest."""
    parts: list[bytes | memoryview] = []
    offset, places = 0, {}
    for name, array in arrays.items():
        kind = array.dtype.str[1:]
        flat = np.ascontiguousarray(array, f"<{kind}").ravel()
        kept = _same(flat, before[name].ravel()) if before and name in before else 0
        new = flat[kept:]
        places[name] = [TYPES[kind], offset, new.size, *([kept] if kept else [])]
        padding = -new.nbytes % 8
        parts += [new.data.cast("B") if new.size else b"", bytes(padding)]
        offset += new.nbytes + padding
    text = json.dumps(head | {"arrays": places}, ensure_ascii=False, separators=(",", ":")).encode()
    text += b" " * (-(len(text) + 4) % 8)
    return b"".join([len(text).to_bytes(4, "little"), text, *parts])


def _same(array: NDArray[Any], before: NDArray[Any]) -> int:
    """How many numbers two arrays have in common from their beginning."""
    count = min(len(array), len(before))
    differing = np.flatnonzero(array[:count] != before[:count])
    return int(differing[0]) if len(differing) else count


# ── what is drawn ─────────────────────────────────────────────────────────────────────────────────────────


def _marks(columns: Columns, prefix: str, arrays: Arrays) -> dict[str, Any]:
    """The marks of a trail in the order they are painted; their arrays' names begin with a prefix."""
    lines, areas = strokes(columns), borders(columns)
    order = paint_order(columns, areas.keys, lines.steps)
    for name, outline in (("lines", lines), ("areas", areas)):
        if prefix or not _is_of_steps(outline, columns):
            arrays[f"{prefix}{name}.vertices"] = outline.vertices.ravel()
        _outline(outline, f"{prefix}{name}", arrays)
    arrays[f"{prefix}order"] = order.astype(np.int32)
    rows = columns.areas[areas.keys]
    ends = Parts(columns).area_ends[areas.keys]
    arrays[f"{prefix}areaSpans"] = np.column_stack([rows["step"], np.minimum(ends, len(columns))]).astype(
        "i4"
    )
    fills = [
        f"rgb({red:g} {green:g} {blue:g} / {opacity:g})"
        for red, green, blue, opacity in rows[["red", "green", "blue", "opacity"]].tolist()
    ]
    shapes: dict[tuple[str, str, Weight, Slant], int] = {}
    texts = [_text(text, shapes) for text in columns.texts]
    for number, shape in enumerate(shapes):
        _shape(shape, number, prefix, arrays)
    return {
        "steps": len(columns),
        "styles": [_style(style) for style in columns.styles],
        "dashOffsets": _dash_offsets(columns, lines),
        "fills": fills,
        "rules": [FILL_RULES[rule] for rule in rows["fill_rule"].tolist()],
        "texts": texts,
        "shapes": [words for words, *_ in shapes],
    }


def _dash_offsets(columns: Columns, lines: Outline) -> dict[int, float]:
    """Of paths that go on with the dashes of another one: how far into them they begin."""
    offsets = dash_offsets(columns)
    if not offsets.any():
        return {}
    of_paths = offsets[np.searchsorted(columns.runs["start"], lines.steps, "right") - 1]
    return {number: float(of_paths[number]) for number in np.flatnonzero(of_paths).tolist()}


def _is_of_steps(outline: Outline, columns: Columns) -> bool:
    """Whether each vertex is where its step ends, or begins if it is moved to: then the page knows it."""
    ends, begins = columns.points[outline.vertex_steps], columns.starts[outline.vertex_steps]
    return np.array_equal(outline.vertices, np.where((outline.codes == MOVE)[:, np.newaxis], begins, ends))


def _outline(outline: Outline, name: str, arrays: Arrays) -> None:
    """All of an outline but its vertices, which steps may already say."""
    arrays[f"{name}.codes"] = outline.codes
    arrays[f"{name}.steps"] = outline.vertex_steps.astype(np.int32)
    arrays[f"{name}.firsts"] = outline.firsts.astype(np.int32)
    arrays[f"{name}.keys"] = outline.keys.astype(np.int32)
    arrays[f"{name}.arcVertices"], arrays[f"{name}.arcs"] = _curves(outline.arcs)


def _curves(arcs: NDArray[np.void]) -> tuple[NDArray[np.int32], Floats]:
    """Where curves lead to, and five numbers of each: u, v and the sweep."""
    parts = [arcs[part] for part in ("ux", "uy", "vx", "vy", "sweep")]
    return arcs["step"].astype(np.int32), np.column_stack(parts).ravel()


def _style(style: Style) -> dict[str, Any]:
    red, green, blue = style.ink._rgb
    return {
        "ink": f"rgb({red:g} {green:g} {blue:g})",
        "opacity": style.ink.opacity,
        "width": style.line_width,
        "dash": list(style.line_dash),
        "cap": style.line_cap,
        "join": style.line_join,
    }


def _text(text: Text, shapes: dict[tuple[str, str, Weight, Slant], int]) -> dict[str, Any]:
    shape = text.words, text.font, text.weight, text.slant
    x, y = lettering.beginning(text)
    return {
        "step": text.step,
        "words": text.words,
        "x": x,
        "y": y,
        "heading": text.heading,
        "size": text.size,
        "width": lettering.width(text),
        "ink": text.ink.css,
        "shape": shapes.setdefault(shape, len(shapes)),
    }


def _shape(shape: tuple[str, str, Weight, Slant], number: int, prefix: str, arrays: Arrays) -> None:
    """The letters of some words, one unit high."""
    words, font, weight, slant = shape
    blank = Text(0, 0, 0, 0, 0, words, 1.0, font, weight, slant, "start", "alphabetic", _BLACK)
    vertices, codes = lettering.glyphs(blank)
    arrays[f"{prefix}shape{number}.vertices"] = np.asarray(vertices, float).ravel()
    arrays[f"{prefix}shape{number}.codes"] = codes


_BLACK = Style().ink


def _pointers(nibs: Nibs, arrays: Arrays) -> list[dict[str, Any] | None]:
    """What shows where each nib is; one of Ovlo's own is as large at every zoom."""
    default = default_pointer()
    found: list[dict[str, Any] | None] = []
    for number, (_, pointer) in enumerate(nibs):
        if pointer is None:
            found.append(None)
            continue
        marks = _marks(pointer._columns, f"pointer{number}.", arrays)
        found.append({"marks": marks, "isDefault": pointer is default})
    return found


# ── what is known of it ───────────────────────────────────────────────────────────────────────────────────


def _steps(columns: Columns, origins: Origins | None, arrays: Arrays) -> None:
    """Where each step begins and ends, and what the page says of it."""
    points, starts = columns.points, columns.starts
    goes_on = np.zeros(len(points), bool)
    goes_on[1:] = (starts[1:] == points[:-1]).all(axis=1)
    arrays["points"] = points.ravel()
    arrays["breaks"] = np.flatnonzero(~goes_on).astype(np.int32)
    arrays["breakStarts"] = starts[~goes_on].ravel()
    arrays["headings"] = np.ascontiguousarray(columns.steps["heading"])
    arrays["turns"] = turns_before(columns)
    arrays["lengths"] = np.asarray(step_lengths(columns), float)
    arrays["pens"] = columns.of_steps("pen").astype(np.uint8)
    arrays["nibs"] = columns.of_steps("nib").astype(np.int32)
    arrays["stepArcs"], arrays["stepArcParts"] = _curves(columns.arcs)


def _lines_of(origins: Origins) -> NDArray[np.int32]:
    """The line of each step in the first file of the program; 0 where there is none."""
    first = origins.places[0].file if origins.places else ""
    lines = np.array([place.line if place.file == first else 0 for place in origins.places] + [0], np.int32)
    return lines[origins.steps]


def _call_numbers(origins: Origins) -> NDArray[np.int32]:
    """The number of the call each step was made in, as counted in the origins; -1 where there is none."""
    calls = np.array([place.call for place in origins.places] + [-1], np.int32)
    return calls[origins.steps]


def _call(number: int, row: CallTotal) -> dict[str, Any]:
    return {
        "number": number,
        **row._asdict(),
    }


def told_finding(finding: Finding) -> dict[str, Any]:
    """A finding as the page shows it."""
    return {
        "rule": finding.rule,
        "severity": finding.severity,
        "message": finding.message,
        "fix": finding.fix,
        "place": None if finding.place is None else list(finding.place),
        "lines": list(finding.lines),
        "count": finding.count,
    }
