"""Writing a file whole or not at all.

write(Path("kite.svg"), b"<svg…")
"""

from __future__ import annotations

import os
import tempfile
from pathlib import Path

from ovlo.core.values.errors import CannotWrite, FileTrouble


def check_folder(path: Path, call: str) -> None:
    """Refuse a path whose folder is missing, or that is a folder itself."""
    if path.is_dir():
        raise FileTrouble(f"{call}: {str(path)!r} is a folder; add a file name.")
    if not path.parent.is_dir():
        raise FileTrouble(
            f"{call}: there is no folder {str(path.parent)!r}; make it first, or save elsewhere."
        )


def write(path: Path, content: bytes) -> None:
    """Write a file under a temporary name beside it, then move it into place."""
    check_folder(path, "save")
    temporary = None
    try:
        handle, temporary = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
        with os.fdopen(handle, "wb") as file:
            file.write(content)
        os.chmod(temporary, _permissions(path))
        os.replace(temporary, path)
    except OSError as error:
        raise CannotWrite(
            f"save: {str(path)!r} cannot be written ({error.strerror}); "
            "look at the rights of its folder and the space left."
        ) from error
    finally:
        if temporary is not None and os.path.exists(temporary):
            os.unlink(temporary)


def _permissions(path: Path) -> int:
    """The rights the file has, or those a new one gets."""
    if path.exists():
        return path.stat().st_mode & 0o777
    mask = os.umask(0)
    os.umask(mask)
    return 0o666 & ~mask
