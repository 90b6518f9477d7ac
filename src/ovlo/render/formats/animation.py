"""Animations: a drawing as it grows, as GIF, APNG, WebP, or SVG that moves by itself.

    film_of(sheet, Playback(seconds=4, fps=25, hold=1)).save(Path("kite.gif"))

Frames are handed to the encoder one by one; each only adds what is new to the one before, and the last is
the saved picture.
"""

from __future__ import annotations

import io
import warnings
from bisect import bisect_right
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import accumulate, pairwise
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np

from ovlo.core.paint.timeline import SECONDS
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Columns
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Bytes
from ovlo.core.values.colour import TRANSPARENT
from ovlo.core.values.errors import BadValue, OvloWarning
from ovlo.render.additions.overlays import checked_overlays, overlays_of
from ovlo.render.boxes import PixelBox, is_empty, part_of
from ovlo.render.files import write
from ovlo.render.formats.palette import CLEAR, OPAQUE, Palette
from ovlo.render.formats.png import rasterise
from ovlo.render.formats.table import PAGE
from ovlo.render.moments import MomentPainter
from ovlo.render.page import Page

if TYPE_CHECKING:
    from PIL.Image import Image

MOST_FRAMES = 20_000
MOST_SECONDS = 600
"""A frame of a GIF stays for 65,535 hundredths of a second at most."""

ONE_PIXEL: PixelBox = (0, 0, 1, 1)

Progress = Callable[[int], object]

STAGES = 2
"""Of each frame: it is painted, and encoded."""
Part = tuple[PixelBox, "Image"]
"""What a frame shows in a box."""


@dataclass(frozen=True)
class Playback:
    """How an animation goes.

    Attributes
    ----------
    seconds : float
        The length of the drawing, without the holds of `pause`.
    fps : float
        Frames a second.
    hold : float
        Seconds the last frame stays.
    pointer : bool
        Whether the nib's pointer is shown, also at the end.
    loops : int
        How often it plays; 0 for ever.
    overlay : tuple of str
        Overlays that lie over every frame.
    """

    seconds: float = SECONDS
    fps: float = 25
    hold: float = 1
    pointer: bool = False
    loops: int = 0
    overlay: tuple[str, ...] = ()


def checked_playback(how: dict[str, Any], call: str) -> Playback:
    """How an animation is asked to go, each value checked."""
    return Playback(
        arguments.positive(how["seconds"], call, "seconds"),
        arguments.positive(how["fps"], call, "fps"),
        arguments.not_negative(how["hold"], call, "hold"),
        arguments.truth(how["pointer"], call, "pointer"),
        arguments.whole(how["loops"], call, "loops", 0),
        checked_overlays(how["overlay"], call),
    )


def film_of(sheet: Sheet, playback: Playback, scale: float = 1) -> Film:
    """The frames of an animation of a sheet."""
    if (count := round(playback.seconds * playback.fps)) > MOST_FRAMES:
        raise BadValue(
            f"animate: {count:,} frames are too many; the limit is {MOST_FRAMES:,}. Give fewer seconds "
            f"or frames per second."
        )
    film = Film(sheet, Page.of(sheet, scale), playback)
    if (longest := max(film.seconds)) > MOST_SECONDS:
        raise BadValue(
            f"animate: a frame would be shown for {longest:,.0f} s, with all pauses and --hold; at most "
            f"{MOST_SECONDS} s can be written."
        )
    return film


class Film:
    """The frames of an animation, made when they are asked for, again each time.

    Attributes
    ----------
    places : list of float
        How far each frame is: steps, and a share of the next.
    seconds : list of float
        How long each frame stays.
    """

    def __init__(self, sheet: Sheet, page: Page, playback: Playback) -> None:
        self.sheet, self.page, self.playback = sheet, page, playback
        self.columns = sheet._columns
        count = max(1, round(playback.seconds * playback.fps))
        self.places = [len(self.columns) * (i + 1) / count for i in range(count)]
        self.seconds = [playback.seconds / count] * count
        for step, held in self.columns.pauses.tolist():
            # The last frame that does not show the step for which the program paused stays longer.
            self.seconds[max(bisect_right(self.places, step) - 1, 0)] += held
        self.seconds[-1] += playback.hold

    def __len__(self) -> int:
        return len(self.places)

    def __iter__(self) -> Iterator[Image]:
        parts = self.parts()
        _, first = next(parts)
        yield first
        yield from (shown.copy() for shown in _Shown(first, parts))

    def parts(self) -> Iterator[Part]:
        """What each frame changes of the one before; the first is the whole page."""
        moments = self._moments()
        first, *later = self.places
        moments.move(int(first), first % 1)
        yield moments.whole, self._image(moments.pixels)
        for place in later:
            box = moments.move(int(place), place % 1)
            if is_empty(box):
                box = ONE_PIXEL  # a picture has some
            yield box, self._image(part_of(moments.pixels, box))

    def _moments(self) -> MomentPainter:
        return MomentPainter(self.sheet, self.page, self._overlay, self.playback.pointer)

    def _image(self, pixels: Bytes) -> Image:
        from PIL import Image

        height, width = pixels.shape[:2]
        # The opacity of opaque pixels is skipped as they are read, which is four times as fast as converting.
        modes = ("RGB", "RGBX") if self.page.paper.opacity == 1 else ("RGBA", "RGBA")
        return Image.frombytes(modes[0], (width, height), np.ascontiguousarray(pixels), "raw", modes[1])

    @cached_property
    def overlay(self) -> Columns:
        """The overlays, as marks of their own."""
        return overlays_of(self.sheet, self.page, self.playback.overlay)

    @cached_property
    def _overlay(self) -> Bytes | None:
        if not self.playback.overlay:
            return None
        return rasterise(self.overlay, replace(self.page, paper=TRANSPARENT))

    def save(self, path: Path, progress: Progress = id) -> None:
        """Write it in the format of the file's ending; `progress` is called STAGES times for each frame."""
        write(path, writer_of(path.suffix, "animate")(self, progress))

    def last(self) -> Image:
        """The last frame alone."""
        moments = self._moments()
        moments.move(len(self.columns), 0.0)
        return self._image(moments.pixels)

    def durations(self, unit: int) -> list[int]:
        """How long each frame stays in milliseconds: whole units that add up to the time that passes."""
        ends = [round(1000 * end / unit) for end in accumulate(self.seconds)]
        return [unit * max(1, end - begin) for begin, end in pairwise([0, *ends])]


class _Shown:
    """The frames of a film but the first, as often as the parts can be gone through: encoders do so twice.

    It is the same picture each time, with a part of it renewed: most encoders look at it and copy it, and to
    make new ones takes as long as to paint them.
    """

    def __init__(self, first: Image, parts: Iterable[Part]) -> None:
        self._first, self._parts = first, parts

    def __iter__(self) -> Iterator[Image]:
        shown = self._first.copy()
        for box, part in self._parts:
            shown.paste(part, box)
            yield shown


def _gif(film: Film, progress: Progress) -> bytes:
    """Every frame has the very colours of the drawing, and the most frequent others of the last."""
    palette, paper = Palette.of(film.last(), film), film.page.paper
    if paper.opacity < 1:
        if paper.opacity:
            seen = "opaque" if paper.opacity * 255 >= OPAQUE else "transparent"
            warnings.warn(
                f"animate: a GIF cannot be translucent; its paper is {seen}. WebP and APNG keep it.",
                OvloWarning,
                stacklevel=2,
            )
        # What becomes clear again, such as where the pointer was, needs frames that replace the one before.
        whole = (((0, 0, *frame.size), palette.reduced(frame)) for frame in film)
        clear: dict[str, object] = {"transparency": CLEAR, "background": CLEAR, "disposal": 2}
        return _encoded(film, whole, progress, "GIF", film.durations(10), optimize=False, **clear)
    parts = ((box, palette.reduced(part)) for box, part in film.parts())
    return _encoded(film, parts, progress, "GIF", film.durations(10), optimize=False, disposal=1)


def _apng(film: Film, progress: Progress) -> bytes:
    return _encoded(film, film.parts(), progress, "PNG", film.durations(1))


def _webp(film: Film, progress: Progress) -> bytes:
    # Without losses, a middling effort is several times smaller than the least; more takes much longer.
    how = {"lossless": True, "quality": 50, "method": 2, "minimize_size": True}
    return _encoded(film, film.parts(), progress, "WEBP", film.durations(1), **how)


def _looped(film: Film, name: str) -> dict[str, int]:
    """How often a file says that it plays: 0 for ever. A GIF that plays once says nothing."""
    loops = film.playback.loops
    if name == "GIF":
        return {} if loops == 1 else {"loop": max(loops - 1, 0)}
    return {"loop": loops}


def _encoded(
    film: Film, parts: Iterator[Part], progress: Progress, name: str, durations: list[int], **how: object
) -> bytes:
    """Hand frames to Pillow one by one."""
    done = []
    for part in parts:
        done.append(part)
        progress(1 if name == "WEBP" else STAGES)
    (_, first), *later = done
    rest: Any = _Shown(first, later)
    if name == "WEBP":  # which lists them all before it looks at one, and then takes as long again
        rest = [shown.copy() for shown in rest]
        left = iter([1] * len(done))  # the first is looked at once more at the end
        for shown in (first, *rest):
            shown.seek = lambda _: progress(next(left, 0))
    written = io.BytesIO()
    first.save(
        written, name, save_all=True, append_images=rest, duration=durations, **_looped(film, name), **how
    )
    return written.getvalue()


def _svg(film: Film, progress: Progress) -> bytes:
    from ovlo.render.formats.animated_svg import render

    found = render(film)
    progress(STAGES * len(film))
    return found


Writer = Callable[[Film, Progress], bytes]

WRITERS: dict[str, Writer] = {".gif": _gif, ".apng": _apng, ".png": _apng, ".webp": _webp, ".svg": _svg}
"""What writes which file ending."""


def writer_of(suffix: str, call: str) -> Writer:
    """What writes a file ending."""
    if suffix.lower() not in WRITERS:
        raise BadValue(
            f"{call}: there is no animation format {suffix!r}; the formats are {', '.join((*WRITERS, PAGE))}."
        )
    return WRITERS[suffix.lower()]
