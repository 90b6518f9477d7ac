"""`ovlo demo`: draw every example that comes with Ovlo.

ovlo demo pictures
"""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import say
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import FileError, OvloError
from ovlo.program.examples import example_files
from ovlo.program.loading import load
from ovlo.program.running import run_program
from ovlo.render.files import write

SUFFIXES = (".svg", ".png")

HEAD = """<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Kite day at Marrow Bay</title>
<style>
body { font: 16px/1.4 sans-serif; margin: 2rem; color-scheme: light dark; }
main { display: grid; grid-template-columns: repeat(auto-fill, minmax(16rem, 1fr)); gap: 1.5rem; }
figure { margin: 0; }
img { width: 100%; border: 1px solid #8888; background: white; }
</style>
<h1>Kite day at Marrow Bay</h1>
<main>
"""


@click.command()
@click.argument("folder", default="ovlo-demo", type=click.Path(file_okay=False, path_type=Path))
def demo(folder: Path) -> None:
    """Draw every example into FOLDER (default: ovlo-demo), with a page that shows them all."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise FileError(f"demo: the folder {folder} cannot be created ({error.strerror}).") from error
    rows, names = [("picture", "files", "size", "steps", "drawn")], []
    for path in example_files():
        for name, sheet in _drawn(path).items():
            names.append(name)
            files = [folder / f"{name}{suffix}" for suffix in SUFFIXES]
            for file in files:
                outlets.save(sheet, file)
            size = f"{sheet.width:g} × {sheet.height:g} {sheet.unit}"
            rows.append((name, ", ".join(SUFFIXES), size, f"{len(sheet.trail):,}", wording.length(sheet)))
    say(f"Kite day at Marrow Bay, drawn into {folder}:\n")
    for line in wording.table(rows, left=3):
        say(line)
    page = folder / "index.html"
    write(page, _page(names).encode())
    say(f"\nOpen {page} to see them all.")


def _page(names: list[str]) -> str:
    """A page of all pictures, each a link to its file."""
    works = "\n".join(
        f'<figure><a href="{name}.svg"><img src="{name}.svg" alt="{title}" loading="lazy"></a>'
        f"<figcaption>{title}</figcaption></figure>"
        for name in names
        for title in [name.replace("_", " ")]
    )
    return f"{HEAD}{works}\n</main>\n</html>\n"


def _drawn(path: Path) -> dict[str, Sheet]:
    """The pictures of one example, by name."""
    program = load(str(path))
    pictures = {}
    for name in program.drawings() if program.declares else [""]:
        outcome = run_program(replace(program, name=name))
        if outcome.trouble or outcome.sheet is None:
            raise OvloError(f"{path}: {outcome.trouble}")
        pictures[name or path.stem] = outcome.sheet
    return pictures
