"""Seeded random numbers: the same seed gives the same picture.

dice = Dice(7)
dice.integer(1, 6)
"""

from __future__ import annotations

from collections.abc import Iterable, Set
from functools import cached_property, lru_cache
from math import pi, sqrt
from typing import TYPE_CHECKING, TypeVar

from ovlo.core.values import arguments, colour
from ovlo.core.values.choices import Tone
from ovlo.core.values.colour import Colour
from ovlo.core.values.errors import BadType, BadValue
from ovlo.core.values.scatter import spread_points
from ovlo.core.values.sealed import Sealed

if TYPE_CHECKING:
    from random import Random

Item = TypeVar("Item")

TONES: dict[Tone, tuple[float, float]] = {"pale": (0.91, 0.05), "vivid": (0.72, 0.18), "deep": (0.40, 0.11)}
"""Lightness and chroma in OKLCH. Where a hue is not that strong inside sRGB, it is as strong as it can be."""

FRESH_SEEDS = 1_000_000

MOST_SCATTERED = 20_000


class Dice(Sealed):
    """Seeded randomness.

    Parameters
    ----------
    seed : int, optional
        A whole number, 0 or more. By default a new seed is chosen at the first use.

    Raises
    ------
    BadValue, BadType
        If the seed is not such a number.

    Examples
    --------
    >>> Dice(7).shuffled(["kite", "gull", "boat"])
    ['boat', 'kite', 'gull']
    """

    def __init__(self, seed: int | None = None, size: tuple[float, float] | None = None) -> None:
        self._seed = None if seed is None else arguments.whole(seed, "Dice", "seed", least=0)
        self._size = size

    def __repr__(self) -> str:
        return f"<Dice, seed {self._seed}>"

    @property
    def seed(self) -> int | None:
        """The seed; None if no seed was given and the dice have not been used."""
        return self._seed

    @cached_property
    def _random(self) -> Random:
        from random import Random  # most drawings have no chance in them

        if self._seed is None:
            self._seed = fresh_seed()
        return Random(self._seed)

    def _state(self) -> object:
        """Where they are; None while they are unused."""
        return self._random.getstate() if self._is_used else None

    def _restore(self, state: object) -> None:
        """Go on where other dice of this seed were."""
        if state is not None:
            self._random.setstate(state)  # type: ignore[arg-type]

    @property
    def _is_used(self) -> bool:
        """Whether they were thrown yet."""
        return "_random" in vars(self)

    def integer(self, low: int, high: int) -> int:
        """Return a random whole number from low to high, both included.

        Examples
        --------
        >>> 1 <= dice.integer(1, 6) <= 6
        True
        """
        low, high = (arguments.whole(end, "integer", name) for name, end in (("low", low), ("high", high)))
        _check_order(low, high, "integer")
        return self._random.randint(low, high)

    def number(self, low: float, high: float) -> float:
        """Return a random number from low to high, all equally likely.

        Examples
        --------
        >>> 0.5 <= dice.number(0.5, 2) <= 2
        True
        """
        most = arguments.LARGEST_NUMBER
        low, high = (
            arguments.real(end, "number", name, most) for end, name in ((low, "low"), (high, "high"))
        )
        _check_order(low, high, "number")
        return self._random.uniform(low, high)

    def pick(self, items: Iterable[Item]) -> Item:
        """Return a random item of a list.

        Examples
        --------
        >>> dice.pick(["gold", "tomato"]) in ("gold", "tomato")
        True
        """
        choices = _listed(items, "pick")
        if not choices:
            raise BadValue("pick: items is empty; give at least one item.")
        return self._random.choice(choices)

    def shuffled(self, items: Iterable[Item]) -> list[Item]:
        """Return the items in random order, as a new list.

        Examples
        --------
        >>> sorted(dice.shuffled([3, 1, 2]))
        [1, 2, 3]
        """
        shuffled = _listed(items, "shuffled")
        self._random.shuffle(shuffled)
        return shuffled

    def chance(self, probability: float) -> bool:
        """Return True with a probability from 0 (never) to 1 (always).

        Examples
        --------
        >>> dice.chance(1)
        True
        """
        probability = arguments.between(probability, "chance", "probability", 0, 1)
        return self._random.random() < probability

    def colour(self, tone: Tone | None = None) -> Colour:
        """Return a colour of random hue, of a tone that is "pale", "vivid" or "deep", or random by default.

        Every hue (a whole degree of OKLCH) of a tone has the same lightness, and the same chroma as far as
        sRGB allows.

        Examples
        --------
        >>> Dice(7).colour("pale").hex
        '#dfe6c1'
        """
        if tone is not None:
            tone = arguments.choice(tone, "colour", "tone", TONES)
        return _of_hue(tone or self._random.choice(list(TONES)), int(360 * self._random.random()))

    def point(self, margin: float = 0) -> tuple[float, float]:
        """Return a random point on the sheet, at least `margin` units from its edges.

        Examples
        --------
        >>> x, y = dice.point(margin=20)
        >>> -300 <= x <= 300
        True
        """
        width, height = self._half if type(margin) is int and margin == 0 else self._within(margin, "point")
        random = self._random.random
        # What `uniform` does, without its calls: points come by the thousand.
        return -width + 2 * width * random(), -height + 2 * height * random()

    @cached_property
    def _half(self) -> tuple[float, float]:
        return self._within(0, "point")

    def _within(self, margin: float, call: str) -> tuple[float, float]:
        """Half the width and height of the sheet inside a margin."""
        margin = arguments.not_negative(margin, call, "margin")
        if self._size is None:
            raise BadValue(f"{call}: these dice do not belong to a sheet; use sheet.dice or nib.dice.")
        width, height = (side / 2 - margin for side in self._size)
        if min(width, height) < 0:
            raise BadValue(f"{call}: a margin of {margin:g} leaves no room on the sheet.")
        return width, height

    def scattered(
        self, count: int, min_distance: float | None = None, margin: float = 0
    ) -> list[tuple[float, float]]:
        """Return random points on the sheet, spread out evenly, no two nearer to each other than
        `min_distance`.

        Random points cluster; these do not (Bridson, Fast Poisson disk sampling, 2007).

        Parameters
        ----------
        count : int
            How many, from 1 to 20,000.
        min_distance : float, optional
            The smallest distance between two points, in sheet units; by default the largest at which so many
            fit.
        margin : float
            The smallest distance to the edges of the sheet.

        Returns
        -------
        list of (x, y)

        Raises
        ------
        BadValue, BadType
            If so many points do not fit at that distance, or a number is not valid.

        Examples
        --------
        >>> len(dice.scattered(12, margin=40))
        12
        """
        count = arguments.whole(count, "scattered", "count", least=1)
        if count > MOST_SCATTERED:
            raise BadValue(f"scattered: count must be at most {MOST_SCATTERED:,}, but is {count:,}.")
        width, height = self._within(margin, "scattered")
        if min_distance is None:
            min_distance = _spacing(4 * width * height or 1.0, count)
            while len(points := spread_points(self._random, 2 * width, 2 * height, min_distance)) < count:
                min_distance *= 0.9
            return self._random.sample(points, count)
        min_distance = arguments.positive(min_distance, "scattered", "min_distance")
        if 4 * width * height > MOST_SCATTERED * min_distance**2:
            # Far more would fit than are wanted: a wider distance spreads them out as well.
            min_distance = max(min_distance, _spacing(4 * width * height, MOST_SCATTERED))
        points = spread_points(self._random, 2 * width, 2 * height, min_distance)
        if len(points) < count:
            raise BadValue(
                f"scattered: only {len(points)} points fit at a distance of {min_distance:g}; "
                "give fewer points or a smaller distance."
            )
        return self._random.sample(points, count)


@lru_cache(maxsize=3 * 360)
def _of_hue(tone: Tone, hue: int) -> Colour:
    """The colour of a tone and a hue in degrees.

    Working it out takes a hundred times as long as all else that dice do, and nobody can tell hues that are
    nearer to each other, so those that were met are kept.
    """
    lightness, chroma = TONES[tone]
    return colour.parse(f"oklch({lightness} {chroma} {hue})", "colour")


def _spacing(area: float, count: int) -> float:
    """A distance at which so many points find room: discs of half of it then fill half of an area.

    Random sequential packing of discs jams at about 0.547 of the area (Hinrichsen, Feder and Jossang, 1986).
    """
    return float(sqrt(0.5 * area * 4 / (pi * count)))


def fresh_seed() -> int:
    """A seed nobody chose, short enough to be copied by hand."""
    from random import SystemRandom

    return SystemRandom().randrange(FRESH_SEEDS)


def _check_order(low: float, high: float, call: str) -> None:
    if low > high:
        raise BadValue(f"{call}: low ({low:g}) must be at most high ({high:g}); swap them.")


def _listed(items: Iterable[Item], call: str) -> list[Item]:
    if isinstance(items, Set):
        given = arguments.brief(items)
        raise BadType(f"{call}: give a list; {given} has no order, so no seed could reproduce the choice.")
    # A word is a list of letters, and a dict one of its keys.
    things: object = list(items) if isinstance(items, str | bytes | dict) else items
    return arguments.listed(things, call, "items", "give a list, as in ['gold', 'tomato']")
