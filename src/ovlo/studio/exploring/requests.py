"""What is asked of the process that runs the user's program, and what it says.

Draw("kite.py:kite", {"sides": "5"})
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, NamedTuple

from ovlo.program.running import Limits
from ovlo.studio.exploring.controls import Control

State = tuple[int, int]
"""When a file was written, and how long it is."""


@dataclass(frozen=True)
class Draw:
    """A drawing to be drawn; values the program has no parameter for are left out.

    `number` is 0 for the picture itself, and counts small ones. `text` is what the file is read as, None for
    what stands on disk; `version` says which of the texts that were typed that is, and `turned` which words
    in it are being tried.
    """

    target: str
    values: dict[str, str]
    seed: int | None = None
    limits: Limits = field(default_factory=Limits)
    number: int = 0
    text: str | None = None
    version: int = 0
    turned: str = ""


class Save(NamedTuple):
    """The last picture as a file."""

    ending: str
    overlays: tuple[str, ...]
    only: str
    scale: int = 1


class Words(NamedTuple):
    """What the user answered to a question of the program's."""

    words: str


class Running(NamedTuple):
    """A program runs, for so many seconds, and is in a line of its own; 0 where that is not known."""

    seconds: float
    line: int


class Question(NamedTuple):
    """The program asks for a line."""

    words: str


class Findings(NamedTuple):
    """What a check of the last picture came upon, as the page is told of it."""

    found: list[dict[str, Any]]
    version: int


class File(NamedTuple):
    """A picture saved, or why it is not."""

    name: str
    content: bytes
    trouble: str


@dataclass(frozen=True)
class DrawingInfo:
    """What is known of a drawing before it is drawn."""

    name: str
    shortcut: str
    summary: str
    parameters: list[Control]


@dataclass(frozen=True)
class Answer:
    """What came of a request to draw: a message for the page, or trouble in words, or both.

    `line` is where in the file the trouble is, 0 where that is not known, and `brief` what stands there.
    `notices` are lines of the program that do nothing, and the like.
    `files` are those the program is made of, as they were when it was executed.
    """

    request: Draw
    message: bytes = b""
    trouble: str = ""
    notices: str = ""
    line: int = 0
    brief: str = ""
    drawings: tuple[DrawingInfo, ...] = ()
    chosen: str = ""
    printed: str = ""
    seed: int | None = None
    seconds: float = 0.0
    files: dict[str, State] = field(default_factory=dict)


Reply = Running | Question | File | Findings | Answer
