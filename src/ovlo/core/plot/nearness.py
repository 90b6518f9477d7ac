"""Places that are one but for a little: each near another of them, if not all to all.

numbers = clustered(points, 0.01)
"""

from __future__ import annotations

import numpy as np

from ovlo.core.values.arrays import Floats, Ints


def clustered(rows: Floats, distance: float) -> Ints:
    """A number for each row, the same for rows that a chain of others joins, each within the distance."""
    from scipy.sparse import coo_array
    from scipy.sparse.csgraph import connected_components
    from scipy.spatial import cKDTree

    if not len(rows):
        return np.empty(0, np.int64)
    if rows.shape[1] == 2:  # as complex numbers they are sorted several times as fast
        found, place_of = np.unique(rows[:, 0] + 1j * rows[:, 1], return_inverse=True)
        places = np.column_stack([found.real, found.imag])
    else:
        places, place_of = np.unique(rows, axis=0, return_inverse=True)
    pairs = cKDTree(places).query_pairs(distance, output_type="ndarray")
    links = coo_array((np.ones(len(pairs)), pairs.T), shape=(len(places), len(places)))
    return np.asarray(connected_components(links, directed=False)[1], np.int64)[place_of.ravel()]
