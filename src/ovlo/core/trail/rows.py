"""A growing table of fixed-width rows: written one row at a time, read as a NumPy array.

    table = Table(STEP)
    table.add(x, y, heading)
    table.rows()["x"]

One row is packed and appended in one call, so a row is either there whole or not at all, whenever the
program is interrupted. `array` grows by a sixteenth, which is all the slack there is.
"""

from __future__ import annotations

import struct
from array import array
from collections.abc import Callable
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

CODES = {("f", 8): "d", ("i", 8): "q", ("i", 4): "i"}
"""What `struct` calls numbers of a kind and size; "=" makes it count bytes, and leave no gaps."""


@lru_cache(maxsize=32)
def packer(row_type: np.dtype[np.void], rows: int = 1) -> Callable[..., bytes]:
    """What packs the values of one row, or of some in turn, into their bytes."""
    # By kind and number of bytes: NumPy's letters stand for C types, whose sizes differ between systems.
    codes = [CODES[row_type[name].kind, row_type[name].itemsize] for name in row_type.names or ()]
    return struct.Struct("=" + "".join(codes) * rows).pack


class Table:
    """Rows of one NumPy structured type."""

    __slots__ = ("_doubles", "_type", "add", "append", "storage")

    def __init__(self, row_type: np.dtype[np.void]) -> None:
        self._type = row_type
        self._doubles = row_type.itemsize // 8
        # A step is 24 bytes: doubles as the unit make one C loop of three, not of 24.
        is_one_number = row_type.itemsize == 8
        self.storage: array[Any] = array(CODES[row_type[0].kind, 8] if is_one_number else "d")
        self.append = append = self.storage.frombytes
        pack = packer(row_type)
        self.add: Callable[..., None] = (
            self.storage.append if is_one_number else lambda *values: append(pack(*values))
        )
        """Append one row; one function, since looking up both of its parts would cost as much as it does."""

    @property
    def row_size(self) -> int:
        """Bytes of a row."""
        return 8 * self._doubles

    def __len__(self) -> int:
        return len(self.storage) // self._doubles

    def rows(self) -> NDArray[np.void]:
        """A read-only copy of all rows, which later rows do not change."""
        return np.frombuffer(self.storage.tobytes(), self._type)

    def since(self, count: int) -> bytes:
        """The bytes of all rows after so many; copied in one go, so that another thread may write on."""
        return self.storage[count * self._doubles :].tobytes()

    def cut(self, count: int) -> None:
        """Take back all rows after so many."""
        del self.storage[count * self._doubles :]

    def extend(self, rows: NDArray[np.void]) -> None:
        """Append many rows."""
        if len(rows):
            self.storage.frombytes(np.ascontiguousarray(rows).view("u1").data)
