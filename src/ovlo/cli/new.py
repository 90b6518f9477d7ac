"""`ovlo new`: a first program that runs as it is.

ovlo new kite.py
"""

from __future__ import annotations

from pathlib import Path

import click

from ovlo.cli.speech.saying import say
from ovlo.core.values.errors import BadUse
from ovlo.render.files import check_folder, write

DRAWING = '''"""A kite. Try other numbers, then draw it again: ovlo draw {file}"""

from ovlo import drawing


@drawing(width=640, height=480, paper="aliceblue")
def {name}(nib, sides=4, side=90):
    """A kite with a tail."""
    with nib.area("tomato"):
        for _ in nib.full_turn(sides):
            nib.forward(side)
    nib.turn_to(270)
    for i in range(40):
        nib.forward(2 + i / 4)
        nib.right(9)


if __name__ == "__main__":
    {name}.save("{name}.svg")
    print("Saved {name}.svg; open it in a browser.")
'''

SCRIPT = '''"""A kite. Try other numbers, then run it again: python {file}"""

from ovlo import Sheet

sheet = Sheet(640, 480, paper="aliceblue")
nib = sheet.new_nib()

for _ in nib.full_turn(4):
    nib.forward(90)

sheet.save("{name}.svg")
print("Saved {name}.svg; open it in a browser.")
'''


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--script", "is_script", is_flag=True, help="Create a plain script without a drawing function.")
def new(file: Path, is_script: bool) -> None:
    """Create a first program, FILE, that runs as it is."""
    if not file.suffix:
        file = file.with_suffix(".py")
    if file.suffix != ".py":
        raise BadUse(f"{file}: a program must be a Python file; name it {file.with_suffix('.py').name}.")
    if file.exists():
        raise BadUse(f"{file} already exists; choose another name.")
    check_folder(file, "new")
    name = file.stem if file.stem.isidentifier() else "kite"
    text = (SCRIPT if is_script else DRAWING).format(file=file.name, name=name)
    write(file, text.encode())
    say(f"Created {file}. Draw it with `ovlo draw {file}` or `python {file}`.")
