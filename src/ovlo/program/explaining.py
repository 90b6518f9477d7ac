"""What went wrong in a user's program, for people: their own lines, what was meant, and what to write.

    explained(error)    # '  File "kite.py", line 7, in kite\\n    nib.foward(90)\\nnib has no 'foward'; …'

Python's own errors about names and calls are answered from the objects they hold and from the source line.
"""

from __future__ import annotations

import ast
import builtins
import inspect
import re
import traceback
from collections.abc import Callable, Collection, Container
from linecache import getline
from types import TracebackType

import ovlo
from ovlo.core.sheet.host import Stop
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.arguments import brief, nearest
from ovlo.core.values.colour_names import NAMED
from ovlo.core.values.dice import Dice
from ovlo.core.values.errors import OvloError
from ovlo.core.values.everyday import answer, is_slip, unknown
from ovlo.program import calls
from ovlo.program.lines import last_users, users_frames
from ovlo.program.python_errors import value_error_in_words, without_return
from ovlo.program.whence import whence

FILE_ENDINGS = ("png", "svg", "pdf", "html", "gif", "webp", "gcode", "hpgl")

MOST_LINES = 8
"""Of a traceback; of a longer one the beginning and the end are shown."""


def explained(error: BaseException) -> str:
    """An error with the lines of the user's own program that led to it."""
    frames = users_frames(error)
    if isinstance(error, RecursionError):
        return _endless(frames)
    lines = "".join(traceback.format_list(_shortened(frames)))
    if isinstance(error, Stop):
        return f"Stopped: {error}, in\n{lines}".rstrip()
    return f"{lines}{told(error)}".rstrip()


def in_brief(error: BaseException) -> str:
    """An error in one line, with the last of the user's lines."""
    frames = users_frames(error)
    if isinstance(error, RecursionError):
        return _endless(frames)
    place = f"line {frames[-1].lineno}: " if frames else ""
    if isinstance(error, Stop):
        return f"{place}Stopped: {error}."
    return f"{place}{told(error)}"


def told(error: BaseException) -> str:
    """What an error says, without its lines: in our words if we know the answer."""
    if isinstance(error, OvloError) and _has_words(error):
        return _without_quotes(error) or type(error).__name__
    if words := _answer_to(error):
        return words
    return "".join(traceback.format_exception_only(error)).rstrip()


GIVES_NONE = "a function gives None unless it ends with return."


def _without_quotes(error: OvloError) -> str:
    """What an error of ours says; a text from elsewhere cannot be written without quotes."""
    words, place = str(error), last_users(error)
    if words.endswith(GIVES_NONE) and (name := without_return(place)):
        return f"{words.removesuffix(GIVES_NONE)}{name}(…) gives None, since it does not end with `return …`."
    node = calls.node_at(place) if place is not None and words.endswith("write it without quotes.") else None
    has_quotes = node is None or any(
        isinstance(part, ast.Constant) and isinstance(part.value, str) for part in ast.walk(node)
    )
    if has_quotes:
        return words
    cause = words[: words.rindex(";")]
    found = whence(place, lambda value: isinstance(value, str))
    if found is not None and found.is_literal:
        return f"{cause}; write it without quotes in line {found.line}."
    return f"{cause}; int(…) or float(…) makes a number of it."


def put_answer(error: BaseException, only_own: bool = False) -> None:
    """Put the answer into an error of Python's own, if there is one, in place of Python's message.

    With `only_own`, only into errors about what is Ovlo's: a host's other errors keep their words.
    """
    is_answered = not isinstance(error, OvloError) and _has_words(error) and (not only_own or _is_own(error))
    words = _answer_to(error) if is_answered else ""
    if words:
        error.args = (words,)
    if (words or isinstance(error, OvloError)) and isinstance(error, NameError | AttributeError):
        error.name = None  # else Python appends a suggestion of its own


def _is_own(error: BaseException) -> bool:
    """Whether an error is about a name, an object or a call of Ovlo's."""
    if isinstance(error, ImportError):
        return error.name == "ovlo"
    if isinstance(error, AttributeError) and error.name is not None:
        thing = error.obj if isinstance(error.obj, type) else type(error.obj)
        return error.obj is ovlo or thing.__module__.partition(".")[0] == "ovlo"
    if isinstance(error, NameError):
        return error.name in ovlo.__all__
    # "Nib.forward() missing 1 required positional argument: …", "property 'x' of 'Nib' object …"
    return not OWN_CLASSES.isdisjoint(re.findall(r"\w+", str(error)))


OWN_CLASSES = {"nib"} | {  # methods of a nib say so
    base.__name__
    for name in ("Nib", *ovlo.__all__)
    if isinstance(kind := Nib if name == "Nib" else getattr(ovlo, name), type)
    for base in kind.__mro__
    if base.__module__.partition(".")[0] == "ovlo"
}


def _has_words(error: BaseException) -> bool:
    """Whether an error can say what it is about: a class of somebody's own may fail at that."""
    try:
        str(error)
    except Exception:
        return False
    return True


def _answer_to(error: BaseException) -> str:
    if not _has_words(error):
        return ""
    fixes = [fix for kind, fix in FIXES.items() if isinstance(error, kind)]
    words = next((words for fix in fixes if (words := fix(error))), "")
    place = last_users(error)
    # An error inside another library, or in a program that does not draw, keeps its own words.
    if words or place is None or place.tb_next is not None or not _uses_ovlo(place):
        return words
    return value_error_in_words(error, place)


def _uses_ovlo(place: TracebackType) -> bool:
    """Whether the module of a frame has imported something of Ovlo."""
    return any(
        value is ovlo
        or str(getattr(value, "__module__", "")).partition(".")[0] == "ovlo"
        or type(value).__module__.partition(".")[0] == "ovlo"
        for value in place.tb_frame.f_globals.values()
    )


def _shortened(frames: traceback.StackSummary) -> list[traceback.FrameSummary]:
    return list(frames) if len(frames) <= MOST_LINES else [frames[0], *frames[1 - MOST_LINES :]]


# ── names ─────────────────────────────────────────────────────────────────────────────────────────────────


def _unknown_name(error: BaseException) -> str:
    assert isinstance(error, NameError)
    if isinstance(error, UnboundLocalError):
        return ""
    place = last_users(error)
    node = calls.node_at(place) if place is not None else None
    if file := _file_without_quotes(error.name or "", node, place):
        return f'the name of a file needs quotes: "{file}"'
    code = place.tb_frame.f_code if place is not None else None
    if error.name == "nib" and code is not None and code.co_name != "<module>":
        taken = ", ".join(("nib", *code.co_varnames[: code.co_argcount]))
        return (
            f"{code.co_name} does not know nib; give it nib as its first parameter, "
            f"def {code.co_name}({taken}), and pass it: {code.co_name}({taken})"
        )
    globals_ = place.tb_frame.f_globals if place is not None else None
    return name_answer(error.name or "", _own_names(place) if place is not None else [], globals_)


def _file_without_quotes(name: str, node: ast.AST | None, place: TracebackType | None) -> str:
    """The name of a file that stands there as if it were a value: save(kite.png)."""
    if place is None or not isinstance(node, ast.Name):
        return ""
    line = getline(place.tb_frame.f_code.co_filename, place.tb_lineno)
    found = re.search(rf"\b{re.escape(name)}\.({'|'.join(FILE_ENDINGS)})\b", line)
    return found[0] if found else ""


def name_answer(name: str, own: Collection[str], imported: Container[str] | None) -> str:
    """What to write for a name that nothing defines.

    `own` are the names of the program, and `imported` what is known in its module, if that is known.
    """
    if name in NOT_MADE:
        return f"{name} is not made yet; write before it: {NOT_MADE[name]}"
    if name in USUAL_MODULES:
        return f"{name} is a module of Python; add at the top: import {name}"
    if name in ovlo.__all__:
        return f"{name} is one of Ovlo's names; add at the top: from ovlo import {name}"
    if name.lower() in dir(Nib):
        name = name.lower()
        return f"{name} belongs to a nib; write nib.{name}{'(…)' if callable(getattr(Nib, name)) else ''}"
    if name.lower() in NAMED:
        return f'a colour needs quotes: "{name}"'
    found = answer(name)
    if found and not nearest(name, own):
        return f"{name!r} is not defined; {found}"
    # Of two names of the same letters the program's own is meant.
    known = [*ovlo.__all__, *own]
    near = nearest(name, [word for word in known if not word.startswith("_")])
    # A short name is near to many of Python's, none of which is meant.
    near = near or [word for word in nearest(name, dir(builtins)) if is_slip(name, word)]
    if near:
        of_ours = near[0] in ovlo.__all__ and imported is not None and near[0] not in imported
        more = f" Add at the top: from ovlo import {near[0]}" if of_ours else ""
        return f"{name!r} is not defined; did you mean {' or '.join(near)}?{more}"
    return f"{name!r} is not defined: give it a value in a line above, or correct its spelling"


def _own_names(place: TracebackType) -> list[str]:
    names = [*place.tb_frame.f_globals, *place.tb_frame.f_locals]
    return [name for name in names if not name.startswith("_")]


NOT_MADE = {
    "nib": "nib = sheet.new_nib()",
    "sheet": "sheet = Sheet(640, 480)",
    "dice": "dice = nib.dice",
}
"""Names that every program uses, and what makes them."""

USUAL_MODULES = ("math", "random", "time", "itertools", "datetime", "cmath", "colorsys")


def _unknown_attribute(error: BaseException) -> str:
    assert isinstance(error, AttributeError)
    thing, name = error.obj, error.name
    if name is None:  # where a name is set, Python tells it in words only
        parts = str(error).split("'")
        if "has no setter" in str(error) and len(parts) > 4 and parts[3] in ("Nib", *ovlo.__all__):
            return _read_only(parts[3], parts[1])
        if len(parts) < 4 or parts[1] not in ("Nib", *ovlo.__all__):
            return ""
        return unknown(parts[1].lower(), parts[3], dir(getattr(ovlo, parts[1])))
    if thing is ovlo:
        return _of_module(name)
    if isinstance(thing, Nib) or thing is Nib:
        return unknown("nib", name, dir(Nib))
    place = last_users(error)
    if place is not None and name in dir(Nib):
        code = place.tb_frame.f_code
        first = code.co_varnames[0] if code.co_argcount else ""
        if first and place.tb_frame.f_locals.get(first, error) is thing and not isinstance(thing, type):
            return (
                f"{brief(thing)} was passed as {first}, but is not a nib; "
                f"pass the nib first: {code.co_name}({first}, {brief(thing)})"
            )
    if isinstance(thing, type) and thing.__module__.partition(".")[0] == "ovlo":
        return unknown(thing.__name__, name, dir(thing))
    if type(thing).__module__.partition(".")[0] == "ovlo":
        return unknown(type(thing).__name__.lower().removesuffix("reader"), name, dir(thing))
    near = nearest(name, [word for word in dir(thing) if not word.startswith("_")])
    return f"{brief(thing)} has no {name!r}; did you mean {' or '.join(near)}?" if near else ""


def _read_only(kind: str, name: str) -> str:
    """What sets an attribute that is only read."""
    taken = inspect.signature(getattr(ovlo, kind)).parameters if kind != "Nib" else {}
    made = f"; set it where it is made: {kind}({name}=…)" if name in taken else ""
    return f"{name} is read-only{made}"


def _of_module(name: str) -> str:
    """A name that the module does not have, but perhaps a nib, a sheet or a dice."""
    if any(name.lower() == known.lower() for known in ovlo.__all__):
        return unknown("ovlo", name, ovlo.__all__)
    for owner, kind in (("nib", Nib), ("sheet", Sheet), ("nib.dice", Dice)):
        if name in dir(kind):
            made = NOT_MADE["sheet" if owner == "sheet" else "nib"]
            return f"{name} belongs to a {owner.rpartition('.')[2]}: {made}, then {owner}.{name}"
    return unknown("ovlo", name, ovlo.__all__)


def _unknown_import(error: BaseException) -> str:
    assert isinstance(error, ImportError)
    if error.name == "ovlo" and "cannot import name" in str(error):
        return _of_module(str(error).split("'")[1])
    if isinstance(error, ModuleNotFoundError) and nearest(error.name, ["ovlo"]):
        return f"there is no module {error.name!r}; did you mean ovlo?"
    if isinstance(error, ModuleNotFoundError) and error.name:
        near = nearest(error.name, USUAL_MODULES)
        meant = f"did you mean {near[0]}?" if near else "correct its spelling, or install it"
        return f"there is no module {error.name!r} here; {meant}"
    return ""


def _wrong_call(error: BaseException) -> str:
    place = last_users(error)
    return calls.fix(str(error), place) if place is not None else ""


FIXES: dict[type[BaseException], Callable[[BaseException], str]] = {
    NameError: _unknown_name,
    AttributeError: _unknown_attribute,
    ImportError: _unknown_import,
    TypeError: _wrong_call,
}
"""What says of each kind of error what was meant; "" where it does not know."""


# ── recursion ─────────────────────────────────────────────────────────────────────────────────────────────


def _endless(frames: traceback.StackSummary) -> str:
    """A recursion without end, in a sentence."""
    if not frames:
        return "RecursionError: a function calls itself without end."
    turning = frames[-20:]
    names = list(dict.fromkeys(frame.name for frame in turning))
    last = turning[-1]
    who = f"{names[0]} calls itself" if len(names) == 1 else f"{', '.join(names)} call each other"
    return (
        f"{last.filename}, line {last.lineno}: {who} without end (it got {len(frames)} calls deep). "
        "Add a case in which it only returns, such as: if depth == 0: return."
    )
