"""The files of a program, and whether one of them is saved.

watch = FileWatch(redraw)
watch.look_at({Path("kite.py")})
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from pathlib import Path


class FileWatch:
    """Looks at files in a thread, and tells when one is saved, whichever way the editor does it."""

    def __init__(self, changed: Callable[[], object]) -> None:
        self._changed = changed
        self.is_anxious = False
        """Whether any program beside the files may be what matters: after an error in what they import."""
        self._files: set[Path] = set()
        self._folders: set[Path] = set()
        self._ended = threading.Event()

    def look_at(self, files: set[Path]) -> None:
        """Look at these files, and no others."""
        self._files = files
        folders = {file.parent for file in files if file.parent.is_dir()}
        if folders == self._folders:
            return
        self._ended.set()
        self._folders, self._ended = folders, threading.Event()
        threading.Thread(target=self._look, args=(folders, self._ended), daemon=True).start()

    def end(self) -> None:
        """Look no more."""
        self._ended.set()

    def _look(self, folders: set[Path], ended: threading.Event) -> None:
        from watchfiles import watch

        # Most of what an editor does to a file is done within 20 ms.
        for changes in watch(*folders, stop_event=ended, debounce=100, step=20, recursive=False):
            if any(self._is_meant(Path(changed)) for _, changed in changes):
                self._changed()

    def _is_meant(self, file: Path) -> bool:
        return file.resolve() in self._files or (self.is_anxious and file.suffix == ".py")
