"""What the files of programs say: as they stand on disk, or as they are typed and not saved yet.

hold(Path("kite.py"), "from ovlo import Sheet\\n")    # from now on this process reads that
text_of("kite.py")

All who read a program ask here, and Python's tracebacks ask `linecache`, which is told as well; so the lines
of an error and of a finding are those of the text that was drawn.
"""

from __future__ import annotations

import difflib
import linecache
import re
import tokenize
from io import BytesIO
from pathlib import Path
from typing import NamedTuple

from ovlo.core.values.finding import Edit

LINE = re.compile(r"[^\r\n]*(?:\r\n|\r|\n)|[^\r\n]+$")
"""A line with its end, as Python's parser counts lines."""

_held: dict[str, str] = {}


def hold(path: Path, text: str) -> None:
    """Have a file read as this text, until it is let go."""
    name = str(path)
    _held[str(path.resolve())] = text
    # Without a time of its own an entry stays when `linecache` looks for files that have changed.
    linecache.cache[name] = len(text), None, lines_of(text), name


def let_go(path: Path) -> None:
    """Have a file read from disk again."""
    if _held.pop(str(path.resolve()), None) is not None:
        linecache.cache.pop(str(path), None)


def held(path: Path) -> str | None:
    """The text a file is read as, where it is not as on disk."""
    return _held.get(str(path.resolve())) if _held else None


def to_parse(path: Path) -> str | bytes:
    """A program for Python's parser, which reads the encoding of bytes itself.

    Raises
    ------
    OSError
        If the file cannot be read.
    """
    text = held(path)
    return path.read_bytes() if text is None else text


def text_of(path: Path) -> str:
    """A program as text, for people to read.

    Raises
    ------
    OSError
        If the file cannot be read.
    """
    text = held(path)
    return path.read_text(encoding="utf-8", errors="replace") if text is None else text


def lines_of(text: str) -> list[str]:
    """The lines of a program with their ends, as Python counts them."""
    return LINE.findall(text)


def place_of(lines: list[str], line: int, column: int) -> int:
    """The place in a text of a line, from 1 on, and a column in bytes of UTF-8, as Python counts them."""
    return sum(map(len, lines[: line - 1])) + len(lines[line - 1].encode()[:column].decode())


class Source(NamedTuple):
    """A program as text, and how it is written; a byte order mark belongs to the encoding."""

    text: str
    encoding: str

    @classmethod
    def of(cls, data: bytes) -> Source:
        """The text of a file, with its own line ends.

        Raises
        ------
        SyntaxError
            If Python does not know the encoding that the file names.
        UnicodeDecodeError
            If the file is not in its encoding.
        """
        # Python's own lines end in three ways, those of `readline` in two.
        head = BytesIO(data.replace(b"\r\n", b"\n").replace(b"\r", b"\n"))
        encoding, _ = tokenize.detect_encoding(head.readline)
        return cls(data.decode(encoding), encoding)

    def edited(self, edit: Edit) -> Source:
        """The text with an edit; a line of which it leaves nothing goes."""
        lines = lines_of(self.text)
        begin, end = (place_of(lines, edit.line, column) for column in (edit.column, edit.end_column))
        before, after = self.text[:begin], self.text[end:]
        if not edit.text and not before.rpartition("\n")[2].strip() and after.startswith("\n"):
            after = after[1:]
        return self._replace(text=before + edit.text + after)

    def to_bytes(self) -> bytes:
        """What is written.

        Raises
        ------
        UnicodeEncodeError
            If the encoding lacks a character of the text.
        """
        return self.text.encode(self.encoding)

    def difference(self, other: Source, name: str, other_name: str = "") -> str:
        """What another text changes, as a unified diff."""
        before, after = (one.text.splitlines(keepends=True) for one in (self, other))
        return "".join(difflib.unified_diff(before, after, name, other_name or name))
