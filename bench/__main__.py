"""Measure figures and print the table: `python -m bench [WORD …]`.

Without words, the rows of what one waits for, in under five minutes; with words, of all rows those that hold
them, and `python -m bench all` every row.
"""

from __future__ import annotations

import sys

from rich.console import Console
from rich.table import Table

from bench import animations, checks, page, pictures, quick, scenes, stamping, starting, steering

RUNS = 5
PEAK = "memory of a step at the peak, 10,000,000 to SVG"


def main(words: list[str]) -> None:
    """Measure and print."""
    table = Table(title=f"Medians of {RUNS} alternating runs")
    for heading in ("what", "floor", "floor takes", "ours takes", "ratio", "at most", "reached"):
        table.add_column(heading)
    everything = words == ["all"]
    older = (steering, pictures, scenes, stamping, starting, checks, animations)
    rows = [next(steering.ratios()), *quick.ratios()] if not words else []
    wanted = rows or [ratio for module in (quick, *older) for ratio in module.ratios()]
    for ratio in wanted:
        if everything or all(word in ratio.what for word in words):
            table.add_row(*ratio.measured(RUNS).row())
    if everything or all(word in PEAK for word in words):
        peak = quick.bytes_at_the_peak()
        table.add_row(PEAK, "", "", f"{peak:.0f} bytes", "", "100", "yes" if peak <= 100 else "NO")
    if everything or words == ["page"]:
        for measured in page.measured():
            table.add_row(*measured.row())
    if everything:
        most = steering.bytes_per_step()
        reached = "yes" if most <= steering.BYTES_PER_STEP else "NO"
        table.add_row("memory of a straight step", "", "", f"{most:.2f} bytes", "", "28 bytes", reached)
        place = checks.bytes_per_origin()
        reached = "yes" if place <= checks.BYTES_PER_ORIGIN else "NO"
        table.add_row("memory of where it came from", "", "", f"{place:.2f} bytes", "", "16 bytes", reached)
    Console(width=120).print(table)


if __name__ == "__main__":
    main(sys.argv[1:])
