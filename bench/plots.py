"""Plots: how far the lifted pen goes, how long ordering and hiding take, and whether the picture is the same:
`python -m bench.plots`.
"""

from __future__ import annotations

import random
from dataclasses import replace
from statistics import median
from time import perf_counter

import numpy as np
from numpy.typing import NDArray
from rich.console import Console
from rich.table import Table
from scipy.sparse import coo_array
from scipy.sparse.csgraph import minimum_spanning_tree
from scipy.spatial import Delaunay, cKDTree

from ovlo import Sheet
from ovlo.core.plot.hidden_lines import hiding, seen
from ovlo.core.plot.inked import Inked
from ovlo.core.plot.placing import placed
from ovlo.core.plot.plot import Plotted, Wishes, plot
from ovlo.core.plot.routing import ordered, travel
from ovlo.core.trail.columns import Columns
from ovlo.core.values.choices import StrokeOrder
from ovlo.outlets import as_bytes
from ovlo.program.examples import example_files
from ovlo.program.loading import load
from ovlo.program.running import Limits, load_drawing
from ovlo.render import lettering
from ovlo.render.formats.png import rasterise
from ovlo.render.page import Page
from ovlo.render.plotter import read_svg, svg
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine
from ovlo.render.plotter.preview import preview

RUNS = 7
HOME = (0.0, 0.0)
Floats = NDArray[np.float64]

SEEN = 32
"""Of 255, by which a pixel must differ."""


def main() -> None:
    """Measure and print."""
    table = Table(title=f"Plots (times: medians of {RUNS})")
    for heading in ("what", "floor", "the floor", "ours", "ratio", "at most"):
        table.add_column(heading)
    for row in (*_travels(), *_hundred_thousand(), *_works(), *_hidden()):
        table.add_row(*row)
    Console(width=140).print(table)


def _row(what: str, floor: str, bare: float, ours: float, most: float, unit: str) -> tuple[str, ...]:
    return what, floor, f"{bare:,.3g} {unit}", f"{ours:,.3g} {unit}", f"{ours / bare:.3f}", f"{most}"


def _strokes(count: int, share: float, seed: int) -> tuple[Floats, Floats, Floats]:
    """Middles, starts and ends of scattered strokes, `share` of their spacing long."""
    chance = np.random.default_rng(seed)
    middles = chance.random((count, 2)) * 400
    angles = chance.random(count) * 2 * np.pi
    reach = np.column_stack([np.cos(angles), np.sin(angles)]) * share * 400 / np.sqrt(count) / 2
    return middles, middles - reach, middles + reach


def _tree(points: Floats) -> float:
    """The length of the minimum spanning tree."""
    corners = Delaunay(points).simplices
    edges = np.vstack([corners[:, [0, 1]], corners[:, [1, 2]], corners[:, [2, 0]]])
    edges = np.unique(np.sort(edges, axis=1), axis=0)
    lengths = np.hypot(*(points[edges[:, 0]] - points[edges[:, 1]]).T)
    return float(minimum_spanning_tree(coo_array((lengths, edges.T), shape=(len(points),) * 2)).sum())


def _nearest(starts: Floats, ends: Floats, home: tuple[float, float]) -> float:
    """The travel when the pen always goes to the nearest end that is left, by a KD-tree."""
    count, tree = len(starts), cKDTree(np.vstack([starts, ends]))
    is_done, here, way = np.zeros(count, bool), np.array(home), 0.0
    for _ in range(count):
        wanted = 8
        while True:
            apart, found = tree.query(here, k=min(wanted, 2 * count))
            left = np.flatnonzero(~is_done[found % count])
            if len(left):
                break
            wanted *= 4
        end = int(found[left[0]])
        way += float(apart[left[0]])
        is_done[end % count] = True
        here = ends[end] if end < count else starts[end - count]
    return way


def _walked(starts: Floats, ends: Floats) -> float:
    order, backwards = ordered(starts, ends, HOME)
    back = backwards[:, None]
    return travel(
        np.where(back, ends[order], starts[order]), np.where(back, starts[order], ends[order]), HOME
    )


def _travels() -> list[tuple[str, ...]]:
    rows = []
    for what, share, most in (
        ("scattered dots", 0.0, 1.25),
        ("strokes, a third of their spacing", 1 / 3, 1.05),
    ):
        trees, ways = [], []
        for seed in range(RUNS):
            middles, starts, ends = _strokes(2000, share, seed)
            trees.append(_tree(middles))
            ways.append(_walked(starts, ends))
        worst = int(np.argmax(np.array(ways) / trees))
        what = f"travel, 2,000 {what} (the worst of {RUNS})"
        rows.append(_row(what, "the minimum spanning tree", trees[worst], ways[worst], most, "mm"))
    return rows


def _hundred_thousand() -> list[tuple[str, ...]]:
    middles, starts, ends = _strokes(100_000, 1 / 3, 1)
    bare, ours, way = [], [], 0.0
    for _ in range(3):
        begin = perf_counter()
        _nearest(starts, ends, HOME)
        bare.append(perf_counter() - begin)
        begin = perf_counter()
        way = _walked(starts, ends)
        ours.append(perf_counter() - begin)
    return [
        _row("travel, 100,000 strokes", "the minimum spanning tree", _tree(middles), way, 1.1, "mm"),
        _row("ordering them (medians of 3)", "nearest by a KD-tree", median(bare), median(ours), 3, "s"),
    ]


def _works() -> list[tuple[str, ...]]:
    """Travel of the gallery's works, and what of their picture is another in the plot."""
    shares, apart, names = [], [], []
    for path in example_files():
        program = load(str(path))
        if not program.declares:
            continue
        chance = {"seed": 4} if "dice" in path.read_text() else {}
        sheet = next(iter(program.drawings().values())).run(**chance)
        plotted = _plotted(sheet)
        if sum(run.lifts for run in plotted.runs) >= 50:
            here, bare = HOME, 0.0
            for run in _plotted(sheet, stroke_order="as-drawn").runs:
                bare += _nearest(run.strokes.starts, run.strokes.ends, here)
                x, y = run.strokes.ends[-1].tolist()
                here = x, y
            shares.append(sum(run.travel for run in plotted.runs) / bare)
        apart.append(_unlike(sheet))
        names.append(path.stem)
    worst = int(np.argmax(apart))
    what = f"travel of {len(shares)} works with 50 lifts or more, median"
    return [
        (what, "nearest neighbour", "", "", f"{median(shares):.3f}", "0.9"),
        ("pixels of a work's plot, worst", names[worst], "", f"{max(apart):.2%}", "", "0.5 %"),
        ("the same, median", f"of {len(apart)} works", "", f"{median(apart):.2%}", "", "0.5 %"),
    ]


def _plotted(
    sheet: Sheet, columns: Columns | None = None, stroke_order: StrokeOrder = "short-travel"
) -> Plotted:
    placing = placed((sheet.width, sheet.height), sheet.unit, None, 0.0, None, "bench")
    drawn = sheet._columns if columns is None else columns
    return plot(
        drawn,
        placing,
        Wishes(hatch="none", stroke_order=stroke_order),
        lettering.glyphs,
        sheet.paper,
        "bench",
    )


def _unlike(sheet: Sheet) -> float:
    """The share of pixels that differ between a plot and the PNG of the same lines, areas as blank paper."""
    columns = sheet._columns
    areas = columns.areas.copy()
    for name in ("red", "green", "blue"):
        areas[name] = getattr(sheet.paper, name)
    areas["opacity"] = np.where(areas["opacity"] == 1, 1.0, 0.0)
    bare = replace(columns, areas=areas, texts=())
    about = PlotDetails(paper=sheet.paper)
    file = svg.render(_plotted(sheet, replace(columns, texts=())), Machine(), about).decode()
    plotted = preview(read_svg.follow(file, Machine(), None), {}, about, has_travel=False)
    ours = rasterise(plotted._columns, Page.of(plotted))
    theirs = rasterise(bare, Page.of(sheet))
    height, width = (min(a, b) for a, b in zip(ours.shape[:2], theirs.shape[:2], strict=True))
    apart = np.abs(ours[:height, :width, :3].astype(int) - theirs[:height, :width, :3])
    return float((apart.max(axis=2) > SEEN).mean())


def _hidden() -> list[tuple[str, ...]]:
    program = next(path for path in example_files() if path.stem == "harbour")
    harbour = load_drawing(load(str(program)), Limits()).run(seed=4)
    circles = Sheet(1000, 1000)
    nib, chance = circles.new_nib(), random.Random(3)
    for _ in range(5000):
        nib.travel_to(chance.uniform(-480, 480), chance.uniform(-480, 480))
        nib.circle(chance.uniform(10, 40), fill=chance.choice(["tomato", "gold", "teal"]))
    rows = []
    for what, sheet, most in (
        ("the harbour", harbour, 10),
        ("5,000 overlapping filled circles", circles, 20),
    ):
        bare, ours = [], []
        for _ in range(RUNS):
            begin = perf_counter()
            as_bytes(sheet, ".png")
            bare.append(perf_counter() - begin)
            begin = perf_counter()
            placing = placed((sheet.width, sheet.height), sheet.unit, None, 0.0, None, "bench")
            inked = Inked.of(sheet._columns, placing, lettering.glyphs, sheet.paper, 0.05, "outlines")
            seen(inked.lines, hiding(inked))
            ours.append(perf_counter() - begin)
        rows.append(_row(f"hidden lines of {what}", "its PNG", median(bare), median(ours), most, "s"))
    return rows


if __name__ == "__main__":
    main()
