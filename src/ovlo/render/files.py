"""Writing a file whole or not at all.

write(Path("kite.svg"), b"<svg…")
"""

from __future__ import annotations

import hashlib
import io
import os
import platform
import secrets
from collections.abc import Iterable, Iterator
from contextlib import suppress
from functools import lru_cache
from os import PathLike
from pathlib import Path
from typing import BinaryIO, TypeGuard

from ovlo.core.values.arguments import brief, method
from ovlo.core.values.errors import BadType, BadValue, CannotWrite, FileError

LONGEST, LONGEST_NAME = 4096, 255
"""Characters of a path, and bytes of a file's name, as systems have it."""


Target = str | PathLike[str] | BinaryIO
"""Where a picture is written."""


def is_file(value: object) -> TypeGuard[BinaryIO]:
    """Whether a value is a file object, and not a path."""
    return not isinstance(value, str | PathLike) and method(value, "write") is not None


def write_to(file: BinaryIO, pieces: Iterable[bytes], call: str) -> None:
    """Write to a file object, which must take bytes."""
    if isinstance(file, io.TextIOBase):
        raise BadType(f'{call}: the file is open as text; open it with mode "wb", or use io.BytesIO().')
    for piece in pieces:
        file.write(piece)


def checked_path(value: object, call: str) -> Path:
    """A path that a system could have, as the one kind of path."""
    if not isinstance(value, str | PathLike):
        raise BadType(f"{call}: a path must be a string such as 'kite.svg', not {brief(value)}.")
    try:
        path = Path(value)
    except Exception:  # a class of the program's own that fails at it
        raise BadType(f"{call}: a path must be a string such as 'kite.svg', not {brief(value)}.") from None
    name = str(path)
    if "\0" in name or any("\ud800" <= character <= "\udbff" for character in name):
        raise BadValue(
            f"{call}: no file can be called {brief(name)}; remove the character that is not valid."
        )
    if len(name) > LONGEST:
        raise BadValue(f"{call}: no file can have a name of {len(name):,} characters; give a shorter one.")
    return path


def check_folder(path: Path, call: str) -> None:
    """Refuse a path whose folder is missing, that is a folder itself, or that no file can have."""
    if len(os.fsencode(path.name)) > LONGEST_NAME:
        raise FileError(f"{call}: the file name has more than {LONGEST_NAME} bytes; choose a shorter one.")
    if path.is_symlink():
        path = _followed(path, call)
    if path.is_dir():
        raise FileError(f"{call}: {str(path)!r} is a folder; add a file name.")
    if not path.parent.is_dir():
        raise FileError(
            f"{call}: there is no folder {str(path.parent)!r}; create it first, or save elsewhere."
        )


def _followed(path: Path, call: str) -> Path:
    """What a link leads to."""
    try:
        return path.resolve()
    except (OSError, RuntimeError):
        raise FileError(
            f"{call}: the link {str(path)!r} leads in a circle; choose another name, or remove it."
        ) from None


def here(call: str) -> Path:
    """The current folder, or an error if it was removed."""
    try:
        return Path.cwd()
    except OSError:
        raise FileError(f"{call}: the current folder was removed; change to another one.") from None


def write(path: Path, content: bytes) -> None:
    """Write a file, whole or not at all."""
    write_in_pieces(path, [content])


def write_in_pieces(path: Path, pieces: Iterable[bytes]) -> None:
    """Write a file piece by piece under a temporary name beside it, then move it into place.

    A link is written through. What is no file, such as a pipe or `/dev/stdout`, is written to and stays.
    """
    check_folder(path, "save")
    if path.is_symlink():
        path = _followed(path, "save")
    try:
        if path.exists() and not path.is_file():
            with path.open("wb") as file:
                file.writelines(pieces)
            return
        if path.exists() and not path.stat().st_mode & 0o222:
            raise FileError(
                f"save: {str(path)!r} is read-only; choose another name, or make the file writable."
            )
        _clear_leftovers(path.parent)
        _write_beside(path, pieces)
    except FileError:
        raise
    except OSError as error:
        raise CannotWrite(
            f"save: {str(path)!r} cannot be written ({error.strerror}); "
            "check the permissions of its folder and the free space."
        ) from error


def _write_beside(path: Path, pieces: Iterable[bytes]) -> None:
    # The name says which process it belongs to, and is short where that of the file is as long as can be.
    temporary = path.parent / f"{PREFIX}{_machine()}-{os.getpid()}-{secrets.token_hex(4)}{SUFFIX}"
    try:
        # Opened as any new file is, so that it has the rights that a new file gets here.
        with temporary.open("xb") as file:
            file.writelines(pieces)
        if path.exists():
            os.chmod(temporary, path.stat().st_mode & 0o777)
        os.replace(temporary, path)
    finally:
        if os.path.exists(temporary):
            os.unlink(temporary)


@lru_cache(maxsize=1)
def _machine() -> str:
    """What tells processes of this machine or container from those of others that share a folder."""
    parts = [platform.node()]
    for name in ("/proc/sys/kernel/random/boot_id", "/proc/self/ns/pid"):
        with suppress(OSError):
            is_link = Path(name).is_symlink()
            parts.append(os.readlink(name) if is_link else Path(name).read_text())
    return hashlib.blake2s("".join(parts).encode(), digest_size=4).hexdigest()


PREFIX, SUFFIX = ".ovlo-", ".part"


def _clear_leftovers(folder: Path) -> None:
    """Take away temporary files of processes of ours that were killed on this machine."""
    for path in left_over(folder, f"{PREFIX}{_machine()}-", SUFFIX):
        with suppress(OSError):
            path.unlink()


def left_over(folder: Path, prefix: str, suffix: str = "") -> Iterator[Path]:
    """What stands in a folder with the number of a process in its name, behind a prefix, that is gone."""
    for path in folder.glob(f"{prefix}*-*{suffix}"):
        number = path.name[len(prefix) :].partition("-")[0]
        if number.isdigit() and not is_running(int(number)):
            yield path


def is_running(process: int) -> bool:
    """Whether there is a process with a number."""
    if os.name == "nt":  # there, asking so would end it
        return True
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except OSError:
        return True
    return True
