"""Running a user's program: its sheet, or what went wrong and the sheet so far.

outcome = run(load("kite.py"))
outcome.sheet, outcome.trouble
"""

from __future__ import annotations

import sys
import sysconfig
import traceback
from dataclasses import dataclass
from pathlib import Path

import ovlo
from ovlo.core.errors import OvloError, WrongUse
from ovlo.core.hosting import hosted
from ovlo.core.sheet import Sheet
from ovlo.program.loading import Program


@dataclass(frozen=True)
class Outcome:
    """What came of a run.

    Attributes
    ----------
    sheet : Sheet or None
        The last sheet the program made, as far as it got.
    sheet_count : int
        How many sheets it made.
    trouble : str
        What went wrong, for the user to read; "" when nothing did.
    """

    sheet: Sheet | None
    sheet_count: int
    trouble: str = ""


def run(program: Program) -> Outcome:
    """Run a drawing or a script."""
    with hosted() as host:
        try:
            if program.declares:
                drawing = program.drawing()
                # Sheets made at the top level of the file are not the drawing's.
                host.sheets.clear()
                drawing.run()
            else:
                program.execute("__main__")
                _check_has_sheet(program, host.sheets)
        except WrongUse:
            raise
        except SystemExit as leaving:
            trouble = "" if not leaving.code else f"The program left with {leaving.code!r}."
        except Exception as error:
            trouble = explained(error)
        else:
            trouble = ""
    sheets = host.sheets
    return Outcome(sheets[-1] if sheets else None, len(sheets), trouble)


def _check_has_sheet(program: Program, sheets: list[Sheet]) -> None:
    if not sheets:
        raise WrongUse(
            f"{program.path} declares no drawing and makes no sheet. Begin it with\n"
            "    from ovlo import Sheet\n"
            "    sheet = Sheet(640, 480)\n"
            "    nib = sheet.new_nib()"
        )


def explained(error: BaseException) -> str:
    """An error with the lines of the user's own program that led to it."""
    frames = [frame for frame in traceback.extract_tb(error.__traceback__) if is_users(frame.filename)]
    lines = traceback.format_list(traceback.StackSummary.from_list(frames))
    name = type(error).__name__
    if isinstance(error, OvloError):
        return f"{''.join(lines)}{name}: {error}"
    return "".join([*lines, *traceback.format_exception_only(error)]).rstrip()


def is_users(filename: str) -> bool:
    """Whether a file is the user's own: not of Ovlo, Python, or an installed library."""
    if filename.startswith("<"):
        return False
    path = Path(filename).resolve()
    folders = sysconfig.get_paths()
    package = Path(ovlo.__file__).parent
    if path.is_relative_to(package / "examples"):
        return True
    others = [package, *(Path(folders[key]) for key in ("stdlib", "purelib", "platlib"))]
    return not any(path.is_relative_to(folder.resolve()) for folder in others) and (
        Path(sys.prefix) not in path.parents or "lib" not in path.parts
    )
