"""What of an SVG file is not drawn as it says, with the lines it stands in.

losses.add("left out", "image", 7)
"""

from __future__ import annotations

from collections import defaultdict

LEFT_OUT, APPROXIMATED, UNKNOWN = "left out", "approximated", "not recognised"
MOST_LINES = 3
"""Lines that are named of each loss."""
MOST_KINDS = 12
"""Losses of a kind that are named."""


class Losses:
    """What is lost, by kind and name."""

    def __init__(self) -> None:
        self._lines: dict[str, dict[str, list[int]]] = {
            LEFT_OUT: defaultdict(list),
            APPROXIMATED: defaultdict(list),
            UNKNOWN: defaultdict(list),
        }

    def add(self, kind: str, name: str, line: int) -> None:
        """Add a loss."""
        lines = self._lines[kind][name]
        if line not in lines[-1:]:
            lines.append(line)

    def __str__(self) -> str:
        """All of them: `left out: image (line 7), text (lines 3, 4 and 9 more)`; empty without any."""
        parts = []
        for kind, names in self._lines.items():
            listed = [f"{name} ({_numbered(sorted(set(lines)))})" for name, lines in sorted(names.items())]
            if len(listed) > MOST_KINDS:
                listed[MOST_KINDS:] = [f"{len(listed) - MOST_KINDS} more"]
            if listed:
                parts.append(f"{kind}: {', '.join(listed)}")
        return "; ".join(parts)


def _numbered(lines: list[int]) -> str:
    if len(lines) == 1:
        return f"line {lines[0]}"
    if len(lines) <= MOST_LINES + 1:
        return f"lines {', '.join(map(str, lines[:-1]))} and {lines[-1]}"
    return f"lines {', '.join(map(str, lines[:MOST_LINES]))} and {len(lines) - MOST_LINES} more"
