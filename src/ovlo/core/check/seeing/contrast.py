"""How unlike colours are to the eye, and which one would be told from another.

unlikeness_of(beneath, laid, firsts) < ALIKE
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ovlo.core.values.arrays import Floats, Ints
from ovlo.core.values.colour import BLACK, WHITE, Colour, difference

ALIKE = 2.0
"""Colours less unlike than this by CIEDE2000 cannot be told apart."""

FAINT = 8.0
"""Words in a colour less unlike than this to what lies beneath can hardly be read."""

UNLIKE = 60
"""Colours of which a channel differs by more (of 255) are never that alike; 40 is the most that was found."""


def laid_over(beneath: NDArray[np.float32], paints: NDArray[np.float32]) -> NDArray[np.float32]:
    """What is seen of colours, shape (n, 3), after paints were laid over them, shape (n, 4) or (1, 4).

    Where nothing is known of what lies beneath, what is seen of a paint that lets it through is not either.
    """
    colours, opacity = paints[:, :3], paints[:, 3:]
    return np.where(opacity == 1, colours, beneath + opacity * (colours - beneath))


def unlikeness_of(beneath: NDArray[np.float32], laid: NDArray[np.float32], firsts: Ints) -> Floats:
    """How unlike what lies beneath each mark is, where it differs most; a mark's points begin at its first.

    What is unknown, as under transparent paper, is as unlike as can be.
    """
    apart = np.nan_to_num(np.abs(laid - beneath).max(axis=1), nan=255.0)
    most = np.maximum.reduceat(apart, firsts)
    found = np.full(len(firsts), np.inf)
    near = np.flatnonzero(most <= UNLIKE)
    if not len(near):
        return found
    sizes = np.diff(np.append(firsts, len(apart)))
    is_most = np.flatnonzero(apart == np.repeat(most, sizes))
    points = is_most[np.searchsorted(is_most, firsts[near])]
    pairs = np.rint(np.hstack([beneath[points], laid[points]])).astype(int)
    found[near] = [_unlikeness(*pair) for pair in pairs.tolist()]
    return found


@lru_cache(maxsize=1 << 16)
def _unlikeness(*channels: int) -> float:
    return difference(Colour(*channels[:3]), Colour(*channels[3:]))


def other_colour(beneath: Colour, whose: str, what: str) -> str:
    """A colour that can be told from another, with how unlike they are."""
    apart = {name: difference(colour, beneath) for name, colour in (("black", BLACK), ("white", WHITE))}
    name = max(apart, key=lambda key: apart[key])
    article = "an" if what == "ink" else "a"
    return (
        f'Give {whose} {article} {what} that stands out, such as "{name}", which differs by '
        f"{apart[name]:.0f} CIEDE2000; {ALIKE:g} is the least that can be seen."
    )
