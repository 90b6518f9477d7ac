"""Random programs, looked at from all sides: files that parse, frames that agree, copies that are the same.

for fault in faults_of(7): print(fault)
"""

from __future__ import annotations

import copy
import io
import pickle
import re
import shutil
import subprocess
import tempfile
import warnings
import xml.etree.ElementTree as ElementTree
import zlib
from collections.abc import Iterator
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from ovlo import Sheet
from ovlo.core.compare.compare import compare
from ovlo.core.paint.stretch import Parts
from ovlo.outlets import as_bytes
from ovlo.render.formats.png import rasterise
from ovlo.render.frames import Frames
from ovlo.render.page import Page
from torture.programs import Program

STREAM = rb"stream\r?\n(.*?)\r?\nendstream"
"""What a PDF holds deflated."""


def streams(pdf: bytes) -> Iterator[tuple[bytes, bytes]]:
    """What a PDF holds deflated: each as it stands there, and unpacked."""
    for packed in re.findall(STREAM, pdf, re.DOTALL):
        # The last byte of a stream may look like the end of its line.
        yield packed, zlib.decompressobj().decompress(packed)


def faults_of(seed: int, length: int = 30, frames: int = 12, check: bool = True) -> Iterator[str]:
    """What is wrong with the pictures of one random program."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        sheet = Program(seed, length).run()
        written = as_bytes(sheet, ".svg")
        yield from _faults_of_files(sheet, written)
        others = {
            "saved and read on the way": Program(seed, length, _looked_at).run(),
            "copied": copy.deepcopy(sheet),
            "pickled": pickle.loads(pickle.dumps(sheet)),
        }
        yield from (f"differs when {how}" for how, one in others.items() if as_bytes(one, ".svg") != written)
        yield from _faults_of_frames(sheet, frames)
        if check:
            sheet.check()
            found = compare(sheet._columns, others["pickled"]._columns)
            if not found.is_same:
                yield f"is not the same as itself: {found.words}"


def _looked_at(sheet: Sheet) -> None:
    as_bytes(sheet, ".svg")
    len(sheet.trail.x)


def _faults_of_files(sheet: Sheet, written: bytes) -> Iterator[str]:
    ElementTree.fromstring(written)
    if b"nan" in written or b"inf" in written:
        yield "has numbers in its SVG that are none"
    pdf = as_bytes(sheet, ".pdf")
    if not pdf.startswith(b"%PDF-") or not pdf.rstrip().endswith(b"%%EOF"):
        yield "has a PDF that is none"
    if any(b"nan" in unpacked for _, unpacked in streams(pdf)):
        yield "has numbers in its PDF that are none"
    with Image.open(io.BytesIO(as_bytes(sheet, ".png"))) as image:
        image.load()


def _faults_of_frames(sheet: Sheet, count: int) -> Iterator[str]:
    columns, page = sheet._columns, Page.of(sheet)
    frames, parts = Frames(columns, page), Parts(columns)
    for steps in np.unique(np.linspace(0, len(columns), count).astype(int)).tolist():
        frames.jump(steps)
        # Only the last frame looks at lines that retrace themselves, as a saved picture does.
        whole = rasterise(parts.until(steps), page, is_fine=steps == len(columns))
        share = _share_apart(frames.pixels, whole, 96)
        # Thin lines that retrace themselves are painted twice where a frame begins.
        if share > 0.003:
            yield f"differs after step {steps}: {share:.2%} of the pixels"


def _share_apart(a: NDArray[np.uint8], b: NDArray[np.uint8], least: int) -> float:
    apart = np.abs(a.astype(int) - b).max(axis=2) > least
    return float(apart.mean())


def share_equal(seed: int, scale: float = 2) -> float | None:
    """How many pixels an independent renderer of the SVG paints as we do; None where there is none.

    Texts are left out: they are set in other fonts there. So are the pixels at the edges of marks.
    """
    renderer = shutil.which("rsvg-convert")
    if renderer is None:
        return None
    sheet = Program(seed, words=False).run()
    with Image.open(io.BytesIO(as_bytes(sheet, ".png", scale=scale))) as image:
        ours = np.asarray(image.convert("RGBA"))
    height, width = ours.shape[:2]
    size = f"--width={width}", f"--height={height}"
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "it.svg"
        path.write_bytes(as_bytes(sheet, ".svg", scale=scale))
        done = subprocess.run([renderer, *size, path], capture_output=True, timeout=60, check=True)
    with Image.open(io.BytesIO(done.stdout)) as image:
        theirs = np.asarray(image.convert("RGBA"))
    if ours.shape != theirs.shape:
        return 0.0
    # What is clear has no colour.
    both = [np.where(one[..., 3:] > 0, one, 0) for one in (ours, theirs)]
    return 1 - _share_apart(both[0], both[1], 64)
