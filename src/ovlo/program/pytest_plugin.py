"""A pytest plugin: errors about Ovlo's own names come with the same answers as everywhere else, and pictures
that differ with a picture of both.

It is found by its entry point; nothing needs to be configured.
"""

from __future__ import annotations

import re
import sys
from pathlib import Path
from typing import Any


def pytest_runtest_makereport(item: Any, call: Any) -> None:
    """Put the answer into an error before its report is made."""
    if call.excinfo is None or "ovlo.core" not in sys.modules:
        return
    from ovlo.program.explaining import put_answer  # most tests pass

    error = call.excinfo.value
    put_answer(error, only_own=True)
    if (comparison := getattr(error, "comparison", None)) is not None and hasattr(comparison, "_relation"):
        folder = _folder(item)
        comparison.save(folder / "difference.png")
        error.args = (f"{error.args[0]}\nA and B laid over each other: {folder / 'difference.png'}",)


def _folder(item: Any) -> Path:
    """A new folder for a test, beside those that pytest gives its tests."""
    factory = getattr(item.config, "_tmp_path_factory", None)
    name = re.sub(r"\W", "_", item.name)[:30]
    if factory is None:
        import tempfile

        return Path(tempfile.mkdtemp(prefix=f"{name}-"))
    found: Path = factory.mktemp(name)
    return found
