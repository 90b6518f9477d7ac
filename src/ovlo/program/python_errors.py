"""Python's own errors about values, in the words of somebody who draws.

value_error_in_words(ZeroDivisionError("division by zero"), place)

Each answer is one sentence of cause and one fix. Names and calls are answered elsewhere.
"""

from __future__ import annotations

import ast
import builtins
import re
from collections.abc import Callable
from linecache import getline
from types import TracebackType

from ovlo.core.values.arguments import brief, near
from ovlo.program.calls import node_at, tree_of
from ovlo.program.source.tree import functions
from ovlo.program.whence import is_number_in_quotes, whence

Place = TracebackType | None
Answer = str | Callable[[re.Match[str], Place], str]

NONE = "None took the place of a value: a function gives None unless it ends with `return …`"
BRACKETS = "the name of a function stands where its value is needed; call it with brackets: {}"
MATHS = {"+": "added", "-": "subtracted", "*": "multiplied", "/": "divided", "//": "divided", "%": "divided"}
FUNCTIONS = ("method", "function", "builtin_function_or_method")
OURS = {
    "Rounds": "full_turn",
    "_Area": "area",
    "_Styled": "styled",
    "_Lifted": "lifted",
    "_Returning": "returning",
}
TEXTS = {
    "str": "a text",
    "list": "a list",
    "tuple": "a pair or tuple",
    "int": "a number",
    "float": "a number",
    "dict": "a dictionary",
    "set": "a set",
    "bool": "True or False",
}
SAID_OTHERWISE = {
    ("list", "push"): "append(…) adds an item",
    ("list", "add"): "append(…) adds an item",
    ("list", "length"): "len(…) counts the items",
    ("list", "size"): "len(…) counts the items",
    ("str", "length"): "len(…) counts the letters",
    ("tuple", "append"): "a tuple cannot grow; make a list: […]",
    ("tuple", "x"): "nib.pose.x is the nib's; of any point, x, y = point",
    ("tuple", "y"): "nib.pose.y is the nib's; of any point, x, y = point",
    ("tuple", "heading"): "nib.heading is the nib's",
    ("dict", "append"): "a dictionary takes an item as sizes[name] = 3",
}


MEANT: tuple[tuple[type[BaseException], str, Callable[[object], bool]], ...] = (
    (ZeroDivisionError, "", lambda value: type(value) in (int, float) and value == 0),
    (IndexError, "range", lambda value: isinstance(value, list | tuple | str)),
    (Exception, "NoneType", lambda value: value is None),
    (TypeError, "'float' object cannot", lambda value: isinstance(value, float)),
    (TypeError, "sequence", lambda value: isinstance(value, str)),
    (TypeError, "str", lambda value: isinstance(value, str)),
    (ValueError, "int()", lambda value: isinstance(value, str)),
    (ValueError, "float:", lambda value: isinstance(value, str)),
)
"""Kinds of errors, a part of what Python says, and the values that they are about."""


def value_error_in_words(error: BaseException, place: Place) -> str:
    """What Python means by an error about a value, and what to write; "" if that is not known."""
    message = str(error)
    for kind, pattern, answer in ANSWERS:
        if isinstance(error, kind) and (match := re.search(pattern, message)):
            words = answer if isinstance(answer, str) else answer(match, place)
            if words == NONE and (name := without_return(place)):
                words = f"{name}(…) gives None, since it does not end with `return …`"
            if words:
                return _with_source(error, words, place)
    return ""


def without_return(place: Place) -> str:
    """The function of the program whose missing value is used here, if one is."""
    node, tree = (None, None) if place is None else (node_at(place), tree_of(place))
    if node is None or tree is None or place is None:
        return ""
    names = place.tb_frame.f_globals | place.tb_frame.f_locals
    read = {part.id for part in ast.walk(node) if isinstance(part, ast.Name)}
    empty = {name for name in read if names.get(name, 0) is None}
    given = [
        other.value
        for other in ast.walk(tree)
        if isinstance(other, ast.Assign)
        and any(isinstance(target, ast.Name) and target.id in empty for target in other.targets)
    ]
    called = {
        part.func.id
        for value in (node, *given)
        for part in ast.walk(value)
        if isinstance(part, ast.Call) and isinstance(part.func, ast.Name)
    }
    for function in functions(tree):
        returns = any(isinstance(part, ast.Return) and part.value for part in ast.walk(function))
        if function.name in called and not returns:
            return function.name
    return ""


def _with_source(error: BaseException, words: str, place: Place) -> str:
    """An answer with the line that set the value it is about, which is where the mistake often is."""
    is_meant = next(
        (test for kind, part, test in MEANT if isinstance(error, kind) and part in str(error)), None
    )
    found = None if is_meant is None else whence(place, is_meant)
    if found is None:
        return words
    if isinstance(error, TypeError) and is_number_in_quotes(found):
        return f"{found.words}; without its quotes it would be a number"
    return f"{words}. Here {found.words}"


def _operands(match: re.Match[str], place: Place) -> str:
    sign, kinds = match[1].split()[0].removesuffix("="), (match[2], match[3])
    return _mixed(kinds, f"{MATHS.get(sign, 'worked out')}")


def _compared(match: re.Match[str], place: Place) -> str:
    return _mixed((match[2], match[3]), "compared")


def _mixed(kinds: tuple[str, str], done: str) -> str:
    """Two values of kinds that do not go together."""
    if "NoneType" in kinds:
        return NONE
    if any(kind in FUNCTIONS for kind in kinds):
        return BRACKETS.format("nib.distance_to(0, 0)")
    if "Motif" in kinds:
        return (
            "motifs are joined by row([a, b]), beside each other, column([a, b]), above each other, and "
            "layered([a, b]): from ovlo import row, column, layered"
        )
    if "str" in kinds and kinds != ("str", "str"):
        return (
            f"a text and a number cannot be {done}; int(…) or float(…) makes a number of a text, "
            "str(…) a text of a number"
        )
    if "tuple" in kinds:
        return f"a point cannot be {done} as a whole; take it apart first: x, y = nib.position"
    if "list" in kinds:
        return f"a list cannot be {done} as a whole; take its items one by one: for size in sizes:"
    first, second = (TEXTS.get(kind, f"a {kind}") for kind in kinds)
    return f"{first} and {second} cannot be {done}"


def _whole(match: re.Match[str], place: Place) -> str:
    if match[1] == "str":
        return "a text stands where a whole number is needed; int(…) makes a number of it"
    if match[1] == "NoneType":
        return NONE
    node = node_at(place) if place is not None else None
    if isinstance(node, ast.Call) and ast.unparse(node.func) == "range" and len(node.args) == 3:
        return (
            "range counts in whole numbers; count the steps, and work out each value from that: "
            f"for i in range(10): x = i * {ast.unparse(node.args[2])}"
        )
    return "a whole number is needed here, as in range(7 // 2); // and round(…) give one"


def _not_callable(match: re.Match[str], place: Place) -> str:
    node = node_at(place) if place is not None else None
    if not isinstance(node, ast.Call) or place is None:
        return ""
    if isinstance(node.func, ast.Constant):
        return f"{ast.unparse(node.func)}(…) would be a call; write * to multiply"
    if not isinstance(node.func, ast.Name):
        return ""
    name = node.func.id
    value = place.tb_frame.f_locals.get(name, place.tb_frame.f_globals.get(name))
    if hasattr(builtins, name):
        return (
            f"{name} is {brief(value)} here, which hides Python's own {name}; give that variable another name"
        )
    return f"{name} is {brief(value)}, which cannot be called; leave the brackets out, or write * to multiply"


def _opened(match: re.Match[str], place: Place) -> str:
    if match[1] == "Rounds":
        return "full_turn is a loop, not a block: for _ in nib.full_turn(4):"
    if match[1] == "NoneType":
        line = "" if place is None else getline(place.tb_frame.f_code.co_filename, place.tb_lineno)
        return f"`with` needs a block, such as {'nib.lifted()' if '.lift(' in line else 'nib.area(…)'}"
    return f"`with` needs a block, such as nib.lifted() or nib.area(…), not {TEXTS.get(match[1], match[1])}"


def _looped(match: re.Match[str], place: Place) -> str:
    if match[1] in OURS:
        return f"{OURS[match[1]]} is a block, not a loop: with nib.{OURS[match[1]]}(…):"
    if match[1] in ("int", "float"):
        return "a loop cannot go through a number; write range(…) around it: for i in range(5):"
    if match[1] == "NoneType":
        return NONE
    return BRACKETS.format("for _ in nib.full_turn(4):") if match[1] in FUNCTIONS else ""


def _method(match: re.Match[str], place: Place) -> str:
    owner, name, takes, given = match[1], match[2], int(match[3]), int(match[4])
    if given != takes + 1:
        return ""
    return f"{name} is a method of {owner}, so it takes self first: def {name}(self, …)"


def _item(match: re.Match[str], place: Place) -> str:
    """An item that a list does not have, with the numbers that it has, where both can be read off."""
    node = node_at(place) if place is not None else None
    if isinstance(node, ast.Subscript) and place is not None:
        names = place.tb_frame.f_globals | place.tb_frame.f_locals
        items, index = names.get(getattr(node.value, "id", "")), names.get(getattr(node.slice, "id", ""))
        if isinstance(items, list | tuple | str) and isinstance(index, int):
            last = len(items) - 1
            name, number = ast.unparse(node.value), ast.unparse(node.slice)
            if last < 0:
                return f"{name} is empty, so it has no item {index}"
            return (
                f"{name} ends with {name}[{last}], but {number} is {index}; {name}[{number} % {len(items)}] "
                "begins again at the first"
            )
    return f"the {match[1]} has no item of that number: the first is 0 and the last is len(…) - 1"


def _key(match: re.Match[str], place: Place) -> str:
    """A key that a dictionary does not have, and the nearest one that some dictionary here does."""
    key = match[0].strip("'\"")
    frame = None if place is None else place.tb_frame
    known = [] if frame is None else [*frame.f_locals.values(), *frame.f_globals.values()]
    names = [
        name
        for one in known
        if type(one) is dict and "__builtins__" not in one
        for name in one
        if type(name) is str
    ]
    return f"the dictionary has no key {match[0]}{near(key, names)}"


def _number(match: re.Match[str], place: Place) -> str:
    text = match[1]
    if re.fullmatch(r"\s*[-+]?\d+,\d+\s*", text):
        return f"{text!r} is not a number: decimals take a point, {text.strip().replace(',', '.')}"
    if re.fullmatch(r"\s*[-+]?\d+\.\d*\s*", text):
        return f"{text!r} is not a whole number; float(…) reads it"
    return f"{text!r} is not a number; leave only its digits"


def _attribute(match: re.Match[str], place: Place) -> str:
    kind, name = match[1], match[2]
    if kind == "NoneType":
        return NONE
    if kind == "function" and name in ("run", "save", "show", "live", "vary", "check"):
        return f"this is a plain function; with @drawing above its def it is a drawing, which has {name}"
    if kind in FUNCTIONS:
        return BRACKETS.format("nib.dice.colour()")
    otherwise = SAID_OTHERWISE.get((kind, name))
    what = TEXTS.get(kind)
    return f"{what} has no {name!r}" + (f"; {otherwise}" if otherwise else "") if what else ""


ANSWERS: tuple[tuple[type[BaseException], str, Answer], ...] = (
    (ZeroDivisionError, "", "the number to divide by is 0; leave that case out, or begin a loop at 1"),
    (
        UnboundLocalError,
        r"variable '(\w+)'",
        lambda match, _: (
            f"{match[1]} has no value yet: a name that is set inside a function belongs to it. Set it before "
            f"this line, take it as a parameter, or write as the function's first line: global {match[1]}"
        ),
    ),
    (IndexError, "pop from empty", "the list is empty, so nothing can be taken from it"),
    (IndexError, r"(list|tuple|string) .*out of range", _item),
    (
        EOFError,
        "EOF when reading a line",
        "input(…) asks for a text, and nobody is there to type it; give the drawing a parameter instead, or "
        "pipe the answers to the command: echo 90 | ovlo draw …",
    ),
    (KeyError, ".+", _key),
    (ValueError, r"invalid literal for int\(\) with base 10: '(.*)'", _number),
    (ValueError, r"could not convert string to float: '(.*)'", _number),
    (
        ValueError,
        r"too many values to unpack \(expected (\d+)\)",
        lambda match, _: (
            f"there are more values than the {match[1]} names on the left; a position is x, y, and a pose "
            "x, y, heading"
        ),
    ),
    (
        ValueError,
        r"not enough values to unpack \(expected (\d+), got (\d+)\)",
        lambda match, _: f"there are {match[1]} names on the left, but only {match[2]} values",
    ),
    (ValueError, "assignment destination is read-only", "what was drawn can be read, but not changed"),
    (ValueError, r"(max|min)\(\)", lambda match, _: f"an empty list has no {match[1]}"),
    (ValueError, "math domain error", "the function has no value there, as the root of a number below 0"),
    (
        TypeError,
        r'can only concatenate str \(not "(.+)"\)',
        lambda match, _: (
            NONE
            if match[1] == "NoneType"
            else 'only text can be added to text; put values into it with f"kite {3}", or write str(…)'
        ),
    ),
    (
        TypeError,
        "can only concatenate tuple",
        "a point cannot be added to a number; take it apart first: x, y = nib.position",
    ),
    (TypeError, "can only concatenate list", "only a list can be added to a list; append(…) adds an item"),
    (
        TypeError,
        "can't multiply sequence",
        "a text or list can only be repeated, a whole number of times; float(…) makes a number of a text",
    ),
    (TypeError, r"unsupported operand type\(s\) for (.+): '(\w+)' and '(\w+)'", _operands),
    (TypeError, r"'(.+)' not supported between instances of '(\w+)' and '(\w+)'", _compared),
    (TypeError, r"'(\w+)' object cannot be interpreted as an integer", _whole),
    (TypeError, r"'(\w+)' object is not callable", _not_callable),
    (TypeError, r"'(\w+)' object does not support the context manager", _opened),
    (TypeError, r"'(\w+)' object is not iterable", _looped),
    (TypeError, r"cannot unpack non-iterable (\w+)", _looped),
    (TypeError, r"(\w+)\.(\w+)\(\) takes (\d+) positional arguments? but (\d+) w", _method),
    (TypeError, r"'(NoneType)' object", NONE),
    (
        TypeError,
        "object of type '(int|float)' has no len",
        "len(…) counts the items of a list or the letters of a text; a number has no items",
    ),
    (
        TypeError,
        "indices must be integers or slices",
        "the number of an item must be whole; // and round(…) give a whole number",
    ),
    (
        TypeError,
        "bad operand type for .+: 'str'|type str doesn't define",
        "a text stands where a number is needed; int(…) or float(…) makes a number of it",
    ),
    (
        TypeError,
        "'tuple' object does not support item assignment",
        "a point or tuple cannot be changed; make a new one, or a list: […]",
    ),
    (AttributeError, r"'(\w+)' object has no attribute '(\w+)'", _attribute),
)
"""Kinds of errors, what Python says, and what is meant."""

SYNTAX = (
    ("was never closed", "This bracket is never closed; add the closing one."),
    ("unmatched", "There is a closing bracket too many here."),
    ("does not match opening", "The brackets do not pair: close the last one that is open first."),
    (
        "expected an indented block",
        "Indent this line by four spaces, so that it belongs to the line above.",
    ),
    ("unexpected indent", "This line is indented more than the one above; remove the spaces before it."),
    ("unindent does not match", "Indent this line as far as another line above it."),
    ("unterminated string", "The text has no quote at its end."),
    ("instead of '='|Maybe you meant '=='", "A single = sets a value; == compares two."),
    ("expected ':'", "A colon is missing at the end of this line."),
    ("Missing parentheses", "Brackets are missing around what is printed: print(…)."),
    ("forgot a comma", "A comma is missing between two values, or a quote inside a text ends it early."),
)
"""What Python says of source it cannot read, and what to write."""


def syntax_in_words(error: SyntaxError | ValueError) -> str:
    """What to correct in source that Python cannot read; "" if that is not known."""
    if re.match(r"else\s+if\b", (getattr(error, "text", None) or "").strip()):
        return "`else if` is one word in Python: elif."
    for pattern, words in SYNTAX:
        if re.search(pattern, str(error)):
            return words
    line = (getattr(error, "text", None) or "").strip()
    if re.match(r"(for|while|if|elif|def|with|class)\b[^:]*$|(for|while|if|def|with)\b.*\) \w[^:]*$", line):
        return "A colon is missing after the first part of this line."
    if re.match(r"(else|elif)\b", line):
        return f"This {line.split(':')[0].split()[0]} has no if above it that is indented as far."
    if "invalid character '°'" in str(error):
        return "Leave out the sign °; angles are plain numbers, in degrees."
    if counted := re.match(r"for \w+ in (range|nib\.full_turn) +(\w+)", line):
        return f"Brackets are missing: {counted[1]}({counted[2]})."
    if re.search(r"\w\.\.\w", line):
        return "There is a dot too many: nib.forward(50)."
    if named := re.match(r"(\w+) (\w+\(.*)$", line):
        return f"A dot is missing: {named[1]}.{named[2]}"
    if re.search(r";\s*;|^;", line):
        return "There is a semicolon too many."
    if re.search(r"[\w)\]] +[A-Za-z_][\w.]* *[(=]", line):
        return "Two statements stand on one line; put each on a line of its own."
    if call := re.match(r"([\w.]+) ([\w.\"'-].*)$", line):
        return f"Brackets are missing: {call[1]}({call[2]})."
    return ""
