"""Pictures from elsewhere: icons from npm, read as motifs and compared with an independent renderer.

for name, share in shares(Path("icons")): ...

Nothing of them is kept. Where npm reaches no registry there are none.
"""

from __future__ import annotations

import io
import random
import shutil
import subprocess
import tarfile
import tempfile
import warnings
import xml.etree.ElementTree as ElementTree
from collections.abc import Iterator
from pathlib import Path

import numpy as np
from PIL import Image

from ovlo import Motif, OvloError, Sheet
from ovlo.outlets import as_bytes

PACKAGES = ("@fluentui/svg-icons", "lucide-static", "@twemoji/svg", "@material-design-icons/svg")

SIDE = 64
"""Pixels each is drawn at, a side."""


def files(count: int, seed: int = 1) -> Iterator[tuple[str, bytes]]:
    """So many pictures of each package, by name."""
    npm = shutil.which("npm")
    if npm is None:
        return
    for package in PACKAGES:
        with tempfile.TemporaryDirectory() as folder:
            done = subprocess.run(
                [npm, "pack", "--silent", package], cwd=folder, capture_output=True, text=True
            )
            archives = list(Path(folder).glob("*.tgz"))
            if done.returncode or not archives:
                continue
            with tarfile.open(archives[0]) as archive:
                names = sorted(name for name in archive.getnames() if name.endswith(".svg"))
                for name in random.Random(seed).sample(names, min(count, len(names))):
                    content = archive.extractfile(name)
                    if content is not None:
                        yield f"{package}: {name}", content.read()


def share_equal(content: bytes) -> float | None:
    """How many pixels of a picture an independent renderer paints as we do; None where it is not read."""
    renderer = shutil.which("rsvg-convert")
    root = ElementTree.fromstring(content)
    box = [float(part) for part in root.get("viewBox", "").replace(",", " ").split()]
    if renderer is None or len(box) != 4 or box[2] != box[3]:
        return None
    with tempfile.TemporaryDirectory() as folder, warnings.catch_warnings():
        path = Path(folder) / "it.svg"
        path.write_bytes(content)
        warnings.simplefilter("error")
        try:
            motif = Motif.from_svg(path)
        except (OvloError, UserWarning):
            return None
        size = f"--width={SIDE}", f"--height={SIDE}", "--background-color=white"
        done = subprocess.run([renderer, *size, path], capture_output=True, timeout=60, check=True)
    sheet = Sheet(SIDE, SIDE)
    scale = SIDE / box[2]
    nib = sheet.new_nib(-SIDE / 2 - box[0] * scale, SIDE / 2 + box[1] * scale)
    nib.stamp(motif, scale=scale)
    pictures = []
    for data in (as_bytes(sheet, ".png"), done.stdout):
        with Image.open(io.BytesIO(data)) as image:
            pictures.append(np.asarray(image.convert("RGB")).astype(int))
    return float((np.abs(pictures[0] - pictures[1]).max(axis=2) <= 64).mean())
