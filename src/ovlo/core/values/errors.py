"""The errors and warnings of Ovlo: one tree of errors, each also the built-in error it refines.

    try:
        nib.forward(float("nan"))
    except OvloError as error:
        print(error)

A message names the call, the value and the fix.
"""

from __future__ import annotations


class OvloError(Exception):
    """Anything Ovlo refuses or cannot do; every error of Ovlo is one of these.

    `_exit_status` is the exit status of the command line if the error reaches it: 2, wrong usage, unless the
    class says otherwise. Errors inside a user's program never reach it.
    """

    _exit_status = 2

    def _render_traceback_(self) -> list[str]:
        """The traceback in a notebook: the lines of the program, without those of Ovlo."""
        import traceback  # a notebook has it already

        own = __file__.rpartition("core")[0]
        frames = [
            frame
            for frame in traceback.extract_tb(self.__traceback__)
            if not frame.filename.startswith(own) and "site-packages" not in frame.filename
        ]
        return [*traceback.format_list(frames), f"{type(self).__name__}: {self}"]


class BadValue(OvloError, ValueError):
    """A value of the right type that cannot be used."""


class BadType(OvloError, TypeError):
    """A value of a type that cannot be used."""


class BadUse(OvloError, RuntimeError):
    """A call or a command that is not possible at this point or in this form."""


class UnknownName(OvloError, AttributeError):
    """An attribute that does not exist, or that is read-only."""


class FileError(OvloError, OSError):
    """A file that cannot be read or written."""


class CannotWrite(FileError):
    """A file that could not be written, through no fault of the call."""

    _exit_status = 1


class NoBrowser(OvloError, RuntimeError):
    """No browser could be opened to show a page."""

    _exit_status = 1


class ProgramFailed(OvloError):
    """A user's file that cannot be executed; the message quotes its lines."""

    _exit_status = 1


class OvloWarning(UserWarning):
    """Something Ovlo did that is probably not what the program intends."""


class NoEffect(OvloWarning):
    """A line of the program that has no effect, such as a block that is never opened by `with`."""


class MissingGlyph(OvloWarning):
    """A character that the font does not have; a box is shown in its place."""


class MissingFont(OvloWarning):
    """A font family that is not installed; another font is used."""


class PartsSkipped(OvloWarning):
    """Parts of an SVG file that Ovlo cannot read and leaves out."""


ERRORS = (BadType, BadUse, BadValue, FileError, NoBrowser, OvloError, UnknownName)
WARNINGS = (MissingFont, MissingGlyph, NoEffect, OvloWarning, PartsSkipped)

for _public in (*ERRORS, *WARNINGS):
    # Tracebacks name the module of an error: let it be the one that users import it from.
    _public.__module__ = "ovlo"
