"""Write the page on the rules of a check, docs/rules.md, and its pictures, from the programs in docs/rules.

Those are written as the programs in bench/programs are: with what is wrong, and the mend, at ends of lines.
"""

from __future__ import annotations

import subprocess
import sys
import tempfile
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from bench.recall import MARK, mended

from ovlo.program.loading import load
from ovlo.program.running import Limits, run_program
from ovlo.program.source.rules import ALL_RULES

DOCS = Path(__file__).parent

SEED = 7

HEAD = """# The rules of `ovlo check`

Each rule with a drawing that is wrong and the one that was meant. *Problems* are surely not what was meant,
and make `ovlo check` end with 1; *hints* may be. `ovlo check --rules` prints the same words, `--skip RULE`
leaves one out, and a comment at the end of a line silences it there: `# ovlo: skip not-closed`.

This page is written by `docs/write_rules.py`.
"""

TAIL = """## As JSON

`ovlo check FILE… --json` prints a list with one object for each finding, of all files together:

| key | value |
|---|---|
| `rule` | the name of the rule, as above |
| `severity` | `"problem"` or `"hint"` |
| `message` | what is there, in one sentence |
| `mend` | what would make it right, with numbers |
| `place` | `[x, y]` on the sheet, in its units; `null` for what stands in the source alone |
| `steps` | the steps of the trail, counted from 0; of more than a thousand, the first and the last |
| `lines` | the lines of the program to look at, counted from 1 |
| `callers` | the lines that lead there: calls, and what shows a turn or an ink |
| `file` | the file of these lines |
| `count` | how many such places these lines have |

The exit status is 1 when there is a problem, or with `--strict` a hint, and 0 otherwise.
"""


def main() -> None:
    """Write the page and its pictures."""
    parts = [HEAD]
    for rule, about in ALL_RULES.items():
        parts.append(f"## {rule}\n\n*{about.severity.capitalize()}.* {about.about}\n")
        parts.append(_example(rule))
    (DOCS / "rules.md").write_text("\n".join([*parts, TAIL]))


def _example(rule: str) -> str:
    """The wrong program, what a check says of it, the mend, and both pictures."""
    marked = (DOCS / "rules" / f"{rule}.py").read_text()
    wrong, right = without_marks(marked), mended(marked)
    with tempfile.TemporaryDirectory() as folder:
        program = Path(folder) / "kite.py"
        for name, code in (("right", right), ("wrong", wrong)):
            program.write_text(code)
            _draw(program, DOCS / "pictures" / "rules" / f"{rule}-{name}.svg")
        command = [sys.executable, "-m", "ovlo", "check", program.name, "--seed", str(SEED)]
        done = subprocess.run(command, cwd=folder, capture_output=True, text=True)
    said = "\n".join(f"    {line}".rstrip() for line in done.stdout.strip().splitlines()[:-2])
    lines = zip(marked.splitlines(), right.splitlines(), strict=True)
    mends = "\n".join(f"    {i}: {new.strip()}" for i, (old, new) in enumerate(lines, 1) if old != new)
    pictures = " ".join(
        f'<img src="pictures/rules/{rule}-{name}.svg" width="45%" alt="{alt}">'
        for name, alt in (("wrong", "The wrong drawing"), ("right", "The drawing that was meant"))
    )
    return f"```python\n{wrong.strip()}\n```\n\n{said}\n\nMended:\n\n{mends}\n\n{pictures}\n"


def without_marks(marked: str) -> str:
    """The wrong program as somebody would have written it."""
    lines = (line for line in marked.splitlines() if "#+" not in line)
    return "\n".join(MARK.sub(r"\g<indent>\g<code>", line) for line in lines) + "\n"


def _draw(program: Path, picture: Path) -> None:
    """What a program draws, as far as it comes."""
    picture.parent.mkdir(exist_ok=True)
    seed = SEED if "dice" in program.read_text() else None
    outcome = run_program(load(str(program)), {}, seed, Limits(3000, 20))
    assert outcome.sheet is not None
    outcome.sheet.save(picture)


if __name__ == "__main__":
    main()
