"""What a trail holds more than a moment ago, as bytes that can be sent or kept: for who follows a drawing.

    follower = Follower(trail)
    growth = follower.growth()      # all there is
    growth = follower.growth()      # what came since
    columns = grown([…]).columns()

One thread may follow while another draws: a row is there whole or not at all, steps are read before the rows
they need, and `Store.columns` drops what lies beyond the steps.
"""

from __future__ import annotations

from collections.abc import Iterable, Sized
from typing import NamedTuple

from ovlo.core.trail.columns import TABLES, Columns, Style, Text
from ovlo.core.trail.store import Store
from ovlo.core.trail.trail import Trail

IN_BYTES = (*TABLES, "stamps")
"""Parts of a store that are tables, in the order in which they may be read."""


class Growth(NamedTuple):
    """What came since the last time; `is_anew` when the trail was cleared, and all before is gone."""

    is_anew: bool
    rows: dict[str, bytes]
    pieces: list[Columns]
    texts: list[Text]
    styles: list[Style]
    places: bytes
    entered: bytes


class Follower:
    """Reads what a trail holds, each time only what is new."""

    def __init__(self, trail: Trail) -> None:
        self._trail = trail
        self._store: Store | None = None
        self._known: dict[str, int] = {}

    def growth(self) -> Growth:
        """What came since the last time."""
        store, known = self._trail._store, self._known
        if is_anew := store is not self._store:
            self._store = store
            known.clear()
        rows = {}
        for name in IN_BYTES:
            table = getattr(store, name)
            rows[name] = table.since(known.get(name, 0))
            known[name] = known.get(name, 0) + len(rows[name]) // table.row_size
        pieces, texts = store.pieces[known.get("pieces", 0) :], store.texts[known.get("texts", 0) :]
        styles, places = list(store.styles)[known.get("styles", 0) :], store.places[known.get("places", 0) :]
        entered = store.entered[known.get("entered", 0) :]
        came: dict[str, Sized] = {
            "pieces": pieces,
            "texts": texts,
            "styles": styles,
            "places": places,
            "entered": entered,
        }
        for name, new in came.items():
            known[name] = known.get(name, 0) + len(new)
        return Growth(is_anew, rows, pieces, texts, styles, places.tobytes(), entered.tobytes())


def grown(growths: Iterable[Growth]) -> Store:
    """The store that some growths, the first with all there was, make."""
    store = Store()
    for growth in growths:
        store = grown_by(store, growth)
    return store


def grown_by(store: Store, growth: Growth) -> Store:
    """A store with what came since; another one when all before is gone."""
    if growth.is_anew:
        store = Store()
    for name, rows in growth.rows.items():
        getattr(store, name).append(rows)
    store.pieces += growth.pieces
    store.texts += growth.texts
    for style in growth.styles:
        store.styles[style] = len(store.styles)
    store.places.frombytes(growth.places)
    store.entered.frombytes(growth.entered)
    return store
