"""The text of the program that is written in the studio, and the one file it is written to.

manuscript = Manuscript(Path("kite.py"))
manuscript.edit(manuscript.version, 0, 0, "# a kite\\n")
manuscript.save()

In the text lines end with a line feed. The file keeps its own line ends, encoding and byte order mark.
"""

from __future__ import annotations

import difflib
from pathlib import Path
from typing import NamedTuple

from ovlo.core.values.errors import BadUse, BadValue, FileError
from ovlo.program.texts import Source, lines_of
from ovlo.render.files import write

LARGEST = 1_000_000
"""Characters of a text that is written in the studio."""

UTF_16 = "utf-16-le", "surrogatepass"
"""How the page counts places in a text."""


class OnDisk(NamedTuple):
    """A file as it was read."""

    data: bytes
    text: str
    encoding: str


class Manuscript:
    """A program as it is typed, and as it stands on disk.

    `version` counts its changes; a change that was made to an older version is not taken.
    """

    def __init__(self, path: Path, read_only: bool = False) -> None:
        self.path, self.read_only = path, read_only
        self.version = 0
        self.text = ""
        self.trouble = ""
        """Why the file cannot be written in here, or ""."""
        self._real = path.resolve()
        self._disk: OnDisk | None = None
        self.theirs: OnDisk | None = None
        """What somebody else wrote into the file while there was text unsaved."""
        self.look()

    @property
    def is_there(self) -> bool:
        """Whether there is a file yet."""
        return self._disk is not None

    @property
    def is_unsaved(self) -> bool:
        """Whether the text is another than that of the file."""
        return self.text != (self._disk.text if self._disk is not None else "")

    @property
    def is_locked(self) -> bool:
        """Whether the file cannot, or may not, be written in here."""
        return self.read_only or bool(self.trouble)

    # ── the file ──────────────────────────────────────────────────────────────────────────────────────────

    def look(self) -> bool:
        """Read the file if it is another than before; whether the text to be drawn has changed by that."""
        try:
            data = self.path.read_bytes()
        except OSError:
            return False  # it comes back, or is made anew when it is saved
        if self._disk is not None and data == self._disk.data:
            return False
        try:
            text, encoding = Source.of(data)
        except (SyntaxError, UnicodeDecodeError) as error:
            self.trouble = f"{self.path.name} cannot be written in here: {error}."
            text, encoding = data.decode("utf-8", "replace"), "utf-8"
        else:
            self.trouble = ""
        if len(text) > LARGEST:
            self.trouble = f"{self.path.name} is too long to be written in here."
        disk = OnDisk(data, _with_line_feeds(text), encoding)
        if self.is_unsaved and disk.text != self.text:
            self.theirs = disk
            return False
        has_changed = disk.text != self.text or self._disk is None
        self._disk, self.theirs = disk, None
        if has_changed:
            self.text = disk.text
            self.version += 1
        return has_changed

    def save(self) -> None:
        """Write the text into the file, whole or not at all.

        Raises
        ------
        BadUse
            If it may not be written, or has been changed by somebody else.
        BadValue
            If the file's encoding lacks a character.
        FileError
            If it cannot be written.
        """
        if self.read_only:
            raise BadUse(f"{self.path.name} was opened to be read only; nothing was written.")
        if self.trouble:
            raise BadUse(self.trouble)
        self.look()
        if self.theirs is not None:
            raise BadUse(f"{self.path.name} has been changed by another program; choose which text to keep.")
        if self.path.resolve() != self._real:
            raise FileError(f"{self.path.name} leads to another file now; nothing was written.")
        data = self._as_bytes()
        write(self._real, data)
        self._disk = OnDisk(data, self.text, self._encoding)

    def leave(self) -> Path | None:
        """Write what is unsaved into a file of its own beside the program's; None where nothing is."""
        if not self.is_unsaved or self.read_only or not self.text.strip():
            return None
        stem = self._real.with_suffix("")
        names = [Path(f"{stem}.unsaved.py"), *(Path(f"{stem}.unsaved-{i}.py") for i in range(2, 100))]
        free = next(name for name in names if not name.is_symlink() and not name.exists())
        write(free, self.text.encode("utf-8", "surrogatepass"))
        return free

    @property
    def _encoding(self) -> str:
        return self._disk.encoding if self._disk is not None else "utf-8"

    def _as_bytes(self) -> bytes:
        text, encoding = self._with_own_ends(), self._encoding
        try:
            # A first line may name another encoding now.
            named = Source.of(text.encode("utf-8", "replace")).encoding if encoding == "utf-8" else encoding
            data = Source(text, named).to_bytes()
        except UnicodeEncodeError as error:
            letter = text[error.start : error.start + 1]
            line = text.count("\n", 0, error.start) + 1
            raise BadValue(
                f"{letter!r} in line {line} does not exist in {encoding}, the encoding of {self.path.name}; "
                "take another character, or save the file as UTF-8."
            ) from None
        except (SyntaxError, UnicodeDecodeError) as error:
            raise BadValue(f"{self.path.name} is not written: {error}.") from None
        return data

    def _with_own_ends(self) -> str:
        """The text with the line ends of the file; a line that is new has those of most."""
        if self._disk is None:
            return self.text
        encoding = self._disk.encoding
        before = lines_of(self._disk.data.decode(encoding, "replace"))
        ends = [line[len(line.rstrip("\r\n")) :] for line in before if line.endswith(("\r", "\n"))]
        kinds = set(ends)
        if not kinds or kinds == {"\n"}:
            return self.text
        most = max(kinds, key=ends.count)
        if len(kinds) == 1:
            return self.text.replace("\n", most)
        old, new = lines_of(_with_line_feeds("".join(before))), lines_of(self.text)
        written = [line.replace("\n", most) for line in new]
        for block in difflib.SequenceMatcher(None, old, new, autojunk=False).get_matching_blocks():
            written[block.b : block.b + block.size] = before[block.a : block.a + block.size]
        return "".join(written)

    # ── the text ──────────────────────────────────────────────────────────────────────────────────────────

    def edit(self, version: int, begin: int, end: int, words: str) -> bool:
        """Put words in place of a part of the text, counted as the page does; False if it is another text."""
        data = self.text.encode(*UTF_16)
        fits = 0 <= begin <= end <= len(data) // 2
        if version != self.version or self.is_locked or not fits:
            return False
        changed = _spliced(data, begin, end, _with_line_feeds(words))
        if len(changed) // 2 > LARGEST:
            return False
        self._take(changed.decode(*UTF_16))
        return True

    def replace(self, text: str) -> None:
        """Put another text in place of the whole."""
        if text != self.text:
            self._take(text)

    def with_part(self, begin: int, end: int, words: str) -> str:
        """The text with words in place of a part, which stays as it is here."""
        return _spliced(self.text.encode(*UTF_16), begin, end, words).decode(*UTF_16)

    def _take(self, text: str) -> None:
        self.text = text
        self.version += 1

    def keep(self, mine: bool) -> None:
        """Of two texts keep that which is typed, or that which somebody else wrote into the file."""
        if self.theirs is None:
            return
        self._disk, self.theirs = self.theirs, None
        if not mine:
            self.replace(self._disk.text)

    def difference(self) -> str:
        """What the text typed here changes in the file, as a unified diff."""
        disk = self.theirs or self._disk
        before = Source(disk.text if disk is not None else "", "utf-8")
        return before.difference(Source(self.text, "utf-8"), f"{self.path.name} on disk", "typed here")


def _spliced(data: bytes, begin: int, end: int, words: str) -> bytes:
    """A text in UTF-16 with words in place of a part."""
    return data[: 2 * begin] + words.encode(*UTF_16) + data[2 * end :]


def _with_line_feeds(text: str) -> str:
    return text.replace("\r\n", "\n").replace("\r", "\n")
