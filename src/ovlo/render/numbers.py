"""Numbers as text, many at once: the one place that decides how a number looks in a file.

    number(12.5)                                          # "12.5"
    number_text(np.array([0, 12.5]), b"M ", places=2)     # b"M0 12.5"

Python formats a million numbers one by one. Here every digit is one NumPy pass over a block, written into
a grid of characters, of which those that do not count are deleted at last; that is some ten times as fast.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ovlo.core.values.arrays import Bytes, Floats, Ints

BLOCK = 1 << 14
LARGEST = 2**31

ZERO, POINT, MINUS = (np.uint8(ord(character)) for character in "0.-")

Counts = NDArray[np.integer]


def number(value: float, places: int = 2) -> str:
    """One number with at most so many decimals, trailing zeros dropped."""
    text = f"{value:.{places}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text == "-0" else text


def number_text(values: Floats, leads: Bytes, places: int) -> tuple[bytes, Ints]:
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


def _block(values: Floats, leads: Bytes, places: int) -> tuple[bytes, Counts]:
    is_number = ~np.isnan(values)
    scaled = np.rint(np.where(is_number, values, 0.0) * 10.0**places)
    sizes = np.abs(scaled)
    if sizes.max(initial=0) >= LARGEST:
        return _one_by_one(values, leads, places)
    left = sizes.astype(np.uint32)
    wholes = max(len(str(left.max(initial=0))) - places, 1)
    # From the left: lead, sign, whole digits, point, decimals; a row is a value, and 0 is no character.
    text = np.empty((len(values), wholes + places + 3), np.uint8)
    text[:, 0] = leads
    is_negative = scaled < 0
    text[:, 1] = is_negative * MINUS
    lengths = 1 + is_negative.view(np.uint8)
    counts = np.zeros(len(values), bool)
    for place in range(wholes + places + 2, wholes + 2, -1):
        left, digits = _last_digit(left)
        counts |= digits != ZERO  # zeros count only left of a digit that does
        text[:, place] = digits * counts
        lengths += counts
    text[:, wholes + 2] = counts * POINT
    lengths += counts
    for place in range(wholes + 1, 1, -1):
        counts = left > 0
        left, digits = _last_digit(left)
        text[:, place] = digits if place == wholes + 1 else digits * counts
        lengths += left > 0
    if not is_number.all():
        text[~is_number, 1:] = 0
        lengths *= is_number
    lengths += leads > 0
    return text.tobytes().translate(None, b"\0"), lengths


def _last_digit(left: NDArray[np.uint32]) -> tuple[NDArray[np.uint32], Bytes]:
    """What is left of numbers without their last digits, and these as characters."""
    rest = left // np.uint32(10)
    return rest, (left - rest * np.uint32(10)).astype(np.uint8) + ZERO


def _one_by_one(values: Floats, leads: Bytes, places: int) -> tuple[bytes, Counts]:
    """The slow way, for numbers too large to be places on a sheet."""
    texts = [
        (chr(lead) if lead else "") + ("" if value != value else number(value, places))
        for value, lead in zip(values.tolist(), leads.tolist(), strict=True)
    ]
    return "".join(texts).encode(), np.array([len(text) for text in texts])
