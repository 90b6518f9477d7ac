"""Numbers as text, many at once: the one place that decides how a number looks in a file.

    number(12.5)                                          # "12.5"
    number_text(np.array([0, 12.5]), b"M ", places=2)     # b"M0 12.5"

Python formats a million numbers one by one. Here every digit is one NumPy pass over a block, written into
a grid of characters of which only those that count are kept; that is some five times as fast.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

BLOCK = 1 << 14
LARGEST = 2**31


def number(value: float, places: int = 2) -> str:
    """One number with at most so many decimals, trailing zeros dropped."""
    text = f"{value:.{places}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text == "-0" else text


def number_text(
    values: NDArray[np.float64], leads: NDArray[np.uint8], places: int
) -> tuple[bytes, NDArray[np.int64]]:
    """All values in a row, each behind its leading character.

    Parameters
    ----------
    values : array of shape (n,)
        nan stands for no number at all: only the leading character is written.
    leads : uint8 array of shape (n,)
        The ASCII character before each value, 0 for none.
    places : int
        Decimals at most.

    Returns
    -------
    text, ends
        The text, and where each value ends in it, shape (n,).
    """
    texts, ends, length = [], np.empty(len(values), np.int64), 0
    for first in range(0, len(values), BLOCK):
        block = slice(first, first + BLOCK)
        text, lengths = _block(values[block], leads[block], places)
        ends[block] = np.cumsum(lengths) + length
        length += len(text)
        texts.append(text)
    return b"".join(texts), ends


def _block(
    values: NDArray[np.float64], leads: NDArray[np.uint8], places: int
) -> tuple[bytes, NDArray[np.int64]]:
    is_number = ~np.isnan(values)
    scaled = np.rint(np.where(is_number, values, 0.0) * 10.0**places)
    sizes = np.abs(scaled)
    if sizes.max(initial=0) >= LARGEST:
        return _one_by_one(values, leads, places)
    left = sizes.astype(np.uint32)
    wholes = max(len(str(left.max(initial=0))) - places, 1)
    # Rows from the top: lead, sign, whole digits, point, decimals; a column is a value.
    rows = wholes + places + 3
    text = np.empty((rows, len(values)), np.uint8)
    keep = np.empty(text.shape, bool)
    counts = np.zeros(len(values), bool)
    for row in range(rows - 1, 2 + wholes, -1):
        left, digits = _last_digit(left)
        counts |= digits != 0  # zeros count only left of a digit that does
        text[row], keep[row] = digits + ord("0"), counts
    text[2 + wholes], keep[2 + wholes] = ord("."), counts
    for row in range(1 + wholes, 1, -1):
        keep[row] = (left > 0) | (row == 1 + wholes)
        left, digits = _last_digit(left)
        text[row] = digits + ord("0")
    text[1], keep[1] = ord("-"), scaled < 0
    keep[1:] &= is_number
    text[0], keep[0] = leads, leads > 0
    return text.T[keep.T].tobytes(), keep.sum(axis=0)


def _last_digit(left: NDArray[np.uint32]) -> tuple[NDArray[np.uint32], NDArray[np.uint8]]:
    rest = left // np.uint32(10)
    return rest, (left - rest * np.uint32(10)).astype(np.uint8)


def _one_by_one(
    values: NDArray[np.float64], leads: NDArray[np.uint8], places: int
) -> tuple[bytes, NDArray[np.int64]]:
    """The slow way, for numbers too large to be places on a sheet."""
    texts = [
        (chr(lead) if lead else "") + ("" if value != value else number(value, places))
        for value, lead in zip(values.tolist(), leads.tolist(), strict=True)
    ]
    return "".join(texts).encode(), np.array([len(text) for text in texts], np.int64)
