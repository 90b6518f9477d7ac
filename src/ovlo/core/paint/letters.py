"""Letters as chords, for whoever takes no curves.

vertices, codes = flat_letters(*glyphs(text), tolerance)
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from ovlo.core.paint.outlines import CUBIC, LINE, MOVE, QUADRATIC
from ovlo.core.values.arrays import Bytes, Floats


def flat_letters(vertices: Floats, codes: Bytes, tolerance: float) -> tuple[Floats, Bytes]:
    """Letters with their quadratic and cubic curves as chords.

    A curve with the second differences d is off a chord over the share h of it by at most d·h²/8 times its
    degree · (degree - 1) (Wang, cited in Sederberg, Computer Aided Geometric Design, 2012, 10.6).
    """
    points, kinds = [], []
    i = 0
    while i < len(codes):
        degree = {QUADRATIC: 2, CUBIC: 3}.get(int(codes[i]), 1)
        if degree == 1:
            points.append(vertices[i : i + 1])
            kinds.append(MOVE if codes[i] == MOVE else LINE)
            i += 1
            continue
        control: list[Floats] = list(vertices[i - 1 : i + degree])
        bend = np.abs(np.diff(control, 2, axis=0)).max()
        count = max(1, int(np.ceil(np.sqrt(degree * (degree - 1) * bend / (8 * tolerance)))))
        t = np.arange(1, count + 1)[:, None] / count
        for _ in range(degree):  # de Casteljau
            control = [(1 - t) * a + t * b for a, b in pairwise(control)]
        points.append(control[0])
        kinds += [LINE] * count
        i += degree
    if not points:
        return np.empty((0, 2)), np.empty(0, np.uint8)
    return np.vstack(points), np.array(kinds, np.uint8)
