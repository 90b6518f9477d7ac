"""The choices that calls offer, each declared once: an editor offers the words, and checks read them with
`get_args`.

def area(self, fill: Fill, *, fill_rule: FillRule = "nonzero") -> Block: ...
arguments.choice(fill_rule, "area", "fill_rule", get_args(FillRule))
"""

from __future__ import annotations

from typing import Literal

Unit = Literal["px", "mm"]
"""CSS pixels (1/96 inch) or millimetres."""

FillRule = Literal["nonzero", "evenodd"]
"""SVG's `fill-rule`."""

LineCap = Literal["butt", "round", "square"]
LineJoin = Literal["miter", "round", "bevel"]
"""SVG's `stroke-linecap` and `stroke-linejoin`."""

Weight = Literal["normal", "bold"]
Slant = Literal["normal", "italic", "oblique"]
TextAlign = Literal["start", "middle", "end"]
Baseline = Literal["alphabetic", "middle", "hanging"]
"""CSS's font properties, and SVG's `text-anchor` and `dominant-baseline`."""

ANCHOR = {"start": 0.0, "middle": 0.5, "end": 1.0}
"""How much of the words is behind the nib, as a share of their width."""

RISE = {"alphabetic": 0.0, "middle": 0.35, "hanging": 0.75}
"""How far above the foot of the letters the nib is, as a share of the size. The same in every format, since
what viewers make of SVG's own baselines differs."""

Growth = Literal["linear", "exponential"]
Anchor = Literal["centre", "corner"]
"""How a spiral grows, and which part of a rectangle lies at the nib."""

RowAlign = Literal["bottom", "middle", "top", "origin"]
ColumnAlign = Literal["left", "middle", "right", "origin"]
"""How motifs in a row or a column are aligned."""

Tone = Literal["pale", "vivid", "deep"]
"""The tone of a random colour."""

TextOutput = Literal["editable", "outlines"]
"""Whether a file holds text as text or as the outlines of its letters."""

Hatch = Literal["parallel", "crosshatch", "concentric", "none"]
HiddenLines = Literal["remove", "keep"]
StrokeOrder = Literal["short-travel", "as-drawn"]
PenOrder = Literal["light-first", "as-drawn"]
PlotText = Literal["outlines", "stroke"]
DryFrame = Literal["none", "drawing", "page"]
"""How a plot fills areas, treats covered lines and words, and orders its strokes and pens."""
