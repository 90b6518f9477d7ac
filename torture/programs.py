"""Random programs: two nibs that do anything they can, the same for the same seed.

sheet = Program(7).run()
"""

from __future__ import annotations

import warnings
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, suppress
from random import Random
from typing import Any, get_args

import numpy as np

from ovlo import Motif, Nib, OvloError, Sheet, end_to_end, row
from ovlo.core.values.choices import FillRule, Unit

INKS = ("tomato", "navy", "#0a78", "oklch(70% 0.1 200)", "gold", "rgb(20 120 90 / 40%)")
WORDS = ("Kite day", "Marrow Bay", "Ä & <bow>", "é́", "風")


class Program:
    """One random program; `after_step` is called after each thing it does."""

    def __init__(
        self,
        seed: int,
        length: int = 30,
        after_step: Callable[[Sheet], object] | None = None,
        words: bool = True,
    ) -> None:
        self._random = Random(seed)
        self._length = length
        self._words = WORDS if words else ("",)
        self._after_step = after_step or (lambda sheet: None)
        self._open: list[tuple[Nib, AbstractContextManager[None]]] = []

    def run(self) -> Sheet:
        """Draw on a new sheet."""
        with warnings.catch_warnings():
            # Shapes that leave nothing, and glyphs no font has, may well be among what it draws.
            warnings.simplefilter("ignore")
            return self._draw()

    def _draw(self) -> Sheet:
        dice = self._random
        unit = dice.choice(get_args(Unit))
        paper = dice.choice(("white", "aliceblue", "transparent"))
        self.sheet = Sheet(
            dice.randint(40, 220), dice.randint(40, 220), paper, unit, seed=dice.randint(0, 99)
        )
        self.sheet.title = "Program"
        nibs = [self.sheet.new_nib(*self._place(), heading=dice.uniform(0, 360)) for _ in range(2)]
        for _ in range(self._length):
            nib = dice.choice(nibs)
            with suppress(OvloError):
                dice.choice(self._deeds(nib))()
            self._after_step(self.sheet)
        while self._open:
            self._leave()
        self._after_step(self.sheet)
        return self.sheet

    def _place(self) -> tuple[float, float]:
        return self._random.uniform(-90, 90), self._random.uniform(-90, 90)

    def _size(self) -> float:
        return self._random.choice((0.0, 0.01, 5.0, 20.0, 33.3, 80.0, self._random.uniform(0, 120)))

    def _angle(self) -> float:
        return self._random.choice(
            (0.0, 30.0, 90.0, 120.0, 144.0, 180.0, -90.0, self._random.uniform(-400, 400))
        )

    def _fill(self) -> str | None:
        return self._random.choice((None, *INKS))

    def _deeds(self, nib: Nib) -> list[Callable[[], object]]:
        """What a nib may do next; what happens often stands there several times."""
        return [
            *[lambda: self._walk(nib)] * 3,
            *[lambda: self._shape(nib)] * 3,
            *[lambda: self._enter(nib)] * 3,
            *[self._leave] * 3,
            *[lambda: self._restyle(nib)] * 2,
            lambda: nib.text(
                self._random.choice(self._words),
                self._random.uniform(3, 30),
                align=self._random.choice(("start", "middle", "end")),
                weight=self._random.choice(("normal", "bold")),
                baseline=self._random.choice(("alphabetic", "middle", "hanging")),
            ),
            lambda: nib.stamp(
                self._motif(), self._random.choice((0.5, 1, 1.7)), self._angle(), fill=self._fill()
            ),
            lambda: nib.stamp(self.sheet.cropped(-60, -60, 90, 80, whole=self._random.random() < 0.5)),
            lambda: self._random.choice((nib.lift, nib.lower, nib.lower))(),
            lambda: self.sheet.clear() if self._random.random() < 0.1 else nib.pause(0.1),
            lambda: len(self.sheet.trail),
        ]

    def _walk(self, nib: Nib) -> None:
        dice = self._random
        dice.choice(
            (
                lambda: nib.forward(self._size()),
                lambda: nib.back(self._size()),
                lambda: nib.left(self._angle()),
                lambda: nib.arc_left(self._size(), self._angle()),
                lambda: nib.arc_right(self._size(), self._angle()),
                lambda: nib.line_to(self._place()),
                lambda: nib.travel_to(self._place()),
                nib.line_to_start,
                lambda: nib.walk(np.full(dice.randint(0, 9), self._size()), self._angle()),
                lambda: self._ring(nib),
                lambda: nib.turn_to(self._angle()),
            )
        )()

    def _ring(self, nib: Nib) -> None:
        for _ in nib.full_turn(self._random.randint(1, 7)):
            nib.forward(12)

    def _shape(self, nib: Nib) -> None:
        dice = self._random
        look: dict[str, Any] = {
            "turn": self._angle(),
            "fill": self._fill(),
            "outline": dice.random() < 0.7,
            "fill_rule": dice.choice(("nonzero", "evenodd")),
        }
        dice.choice(
            (
                lambda: nib.circle(self._size(), **look),
                lambda: nib.ellipse(self._size(), self._size(), **look),
                lambda: nib.polygon(dice.randint(3, 9), radius=self._size(), **look),
                lambda: nib.star(dice.randint(5, 11), self._size(), **look),
                lambda: nib.rectangle(self._size(), self._size(), **look),
                lambda: nib.spiral(
                    dice.uniform(-3, 3), 40, inner_radius=3, growth=dice.choice(("linear", "exponential"))
                ),
            )
        )()

    def _restyle(self, nib: Nib) -> None:
        dice = self._random
        name, value = dice.choice(
            (
                ("ink", dice.choice(INKS)),
                ("line_width", dice.choice((0.1, 0.7, 2, 9))),
                ("line_dash", dice.choice(((), (6, 4), (5, 1, 1), (0, 4)))),
                ("line_cap", dice.choice(("butt", "round", "square"))),
                ("line_join", dice.choice(("miter", "round", "bevel"))),
            )
        )
        setattr(nib, name, value)

    def _enter(self, nib: Nib) -> None:
        dice = self._random
        block = dice.choice(
            (
                lambda: nib.area(
                    dice.choice(INKS), outline=dice.random() < 0.7, fill_rule=dice.choice(get_args(FillRule))
                ),
                lambda: nib.area(dice.choice(INKS)),
                nib.returning,
                nib.lifted,
                lambda: nib.styled(ink=dice.choice(INKS), line_width=dice.choice((1, 5))),
            )
        )()
        block.__enter__()
        self._open.append((nib, block))

    def _leave(self) -> None:
        """End a block: mostly the last, at times another, as generators do."""
        if self._open:
            last = len(self._open) - 1
            _, block = self._open.pop(last if self._random.random() < 0.8 else self._random.randint(0, last))
            block.__exit__(None, None, None)

    def _motif(self) -> Motif:
        """A small piece that is drawn by a program of its own."""
        dice = Random(self._random.randint(0, 5))

        def draw(nib: Nib) -> None:
            nib.ink = dice.choice(INKS)
            with nib.area(dice.choice(INKS), outline=dice.random() < 0.5):
                for _ in nib.full_turn(dice.randint(3, 5)):
                    nib.forward(dice.uniform(5, 15))
            nib.text("bow" if self._words is WORDS else "", size=6)
            nib.arc_right(6, 140)

        motif = Motif.record(draw)
        return dice.choice(
            (
                lambda: motif,
                lambda: motif.mirrored(30),
                lambda: row([motif, motif.scaled(0.5)]),
                lambda: end_to_end([motif, motif.turned(50)]),
                lambda: motif.styled(ink="navy", line_width=1),
            )
        )()


def programs(first: int, count: int) -> Iterator[tuple[int, Sheet]]:
    """Seeds and the sheets drawn with them."""
    for seed in range(first, first + count):
        yield seed, Program(seed).run()
