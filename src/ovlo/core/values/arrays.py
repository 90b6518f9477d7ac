"""Types of arrays and boxes, declared once.

A room says in its first lines whether its points are rows of an array (n, 2) or complex numbers.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Complexes = NDArray[np.complex128]
Bools = NDArray[np.bool_]
Bytes = NDArray[np.uint8]

Box = tuple[float, float, float, float]
"""Left, bottom, right and top."""
