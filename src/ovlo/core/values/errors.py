"""What Ovlo raises: one tree, each class also the built-in error it refines.

    try:
        nib.forward(float("nan"))
    except OvloError as error:
        print(error)

A message names the call, the value and the mend.
"""

from __future__ import annotations


class OvloError(Exception):
    """Anything Ovlo refuses or cannot do.

    `_exit_status` is what the command line ends with when the error reaches it: 2, wrong usage, unless the
    class says otherwise. What happens inside a user's program never gets there.
    """

    _exit_status = 2

    def _render_traceback_(self) -> list[str]:
        """What a notebook shows: the lines of the program, and none of ours."""
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
    """A call or a command that makes no sense where or as it is made."""


class UnknownName(OvloError, AttributeError):
    """An attribute that a class of Ovlo's has not got, or that is not set by =."""


class FileTrouble(OvloError, OSError):
    """A file that cannot be read or written."""


class CannotWrite(FileTrouble):
    """A file that could not be written although there was nothing wrong with asking."""

    _exit_status = 1


class NoBrowser(OvloError, RuntimeError):
    """There is no browser to show a page in."""

    _exit_status = 1


class ProgramFailed(OvloError):
    """A user's file that cannot be executed; the message holds its lines."""

    _exit_status = 1


class NothingDone(UserWarning):
    """A line that does nothing, though it was surely meant to."""


for _public in (OvloError, BadValue, BadType, BadUse, UnknownName, FileTrouble):
    # Python's tracebacks name the module of an error: the one it can be imported from.
    _public.__module__ = "ovlo"
