"""What makes the guide of programs that run: directives, so that nothing on its pages is pasted.

`drawing` shows a program and its picture, made from the code that stands there:

    ```{drawing} square.py
    :caption: A square
    from ovlo import drawing
    …
    ```

`command` runs a command line in the folder of the programs of its page, and shows what comes back:

    ```{command} ovlo check square.py
    ```
"""

from __future__ import annotations

import re
import shlex
import subprocess
import sys
import textwrap
from contextlib import chdir
from pathlib import Path
from typing import Any, ClassVar

from click.testing import CliRunner
from docutils import nodes
from docutils.parsers.rst import directives
from pygments.lexer import RegexLexer
from pygments.token import Generic, Text
from recall.labels import PROGRAMS, corrected, without_marks
from sphinx.application import Sphinx
from sphinx.util.docutils import SphinxDirective

import ovlo
from ovlo import Sheet
from ovlo.cli.main import main as cli
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.running import Limits, run_program
from ovlo.program.source.rules import ALL_RULES

PICTURES_OF_A_CLASS = 12
CLASS_WIDTH, GAP = 720, 10
"""Of the picture of a class's work, and between its pictures, in pixels."""

PICTURES = "drawn"
"""The folder of the built site in which pictures and replays are."""

LONGEST = 600
"""Seconds that a command may take."""

COLUMNS = "88"
"""Of the terminal in which commands run: as many as fit on a page."""

SEED = 7
"""Of the wrong and right drawings that throw dice."""


class Running(SphinxDirective):
    """What a page's programs and commands have in common."""

    @property
    def folder(self) -> Path:
        """Where the programs of this page are."""
        folder = Path(self.env.app.doctreedir) / "programs" / self.env.docname
        folder.mkdir(parents=True, exist_ok=True)
        return folder

    def picture(self, ending: str) -> tuple[Path, str]:
        """A new file in the built site, and how this page names it."""
        number = self.env.new_serialno("drawn")
        name = f"{self.env.docname.replace('/', '-')}-{number}{ending}"
        folder = Path(self.env.app.outdir) / PICTURES
        folder.mkdir(parents=True, exist_ok=True)
        return folder / name, f"{'../' * self.env.docname.count('/')}{PICTURES}/{name}"

    def drawn(
        self, target: str, values: dict[str, str], seed: int | None, limits: Limits | None = None
    ) -> Outcome:
        """What a program draws, run where the programs of this page are."""
        with chdir(self.folder):
            return run_program(load(target), values, seed, limits or Limits(), True)

    def said(self, words: list[str]) -> str:
        """What a command prints, run where the programs of this page are."""
        if words[0] == "ovlo":
            with chdir(self.folder):
                return CliRunner(env={"COLUMNS": COLUMNS}).invoke(cli, words[1:], prog_name="ovlo").output
        command = [sys.executable, *words[1:]]
        done = subprocess.run(command, cwd=self.folder, capture_output=True, text=True, timeout=LONGEST)
        return done.stdout + done.stderr

    def pictured(self, outcome: Outcome, words: str, caption: str, look: str = "") -> nodes.Node:
        """The picture of what a program drew."""
        if outcome.sheet is None:
            raise self.error(f"{words}: nothing is drawn: {outcome.trouble}")
        picture, source = self.picture(".svg")
        outcome.sheet.save(picture)
        return self.figure(source, words, caption, look)

    def block(self, text: str, language: str) -> nodes.Node:
        """A piece of a program, or of what a terminal shows."""
        return nodes.literal_block(text, text, language=language)

    def figure(self, source: str, words: str, caption: str, look: str = "") -> nodes.Node:
        """A picture, what it shows in words for those who do not see it, and a caption."""
        image = f'<img{look} src="{source}" alt="{_quoted(words)}" loading="lazy">'
        under = f"<figcaption>{caption}</figcaption>" if caption else ""
        return self.raw(f'<figure class="drawn">{image}{under}</figure>')

    def raw(self, html: str) -> nodes.Node:
        """A piece of HTML."""
        return nodes.raw("", html, format="html")


class Drawing(Running):
    """A program in a file, its picture, and what goes with it."""

    optional_arguments = 1
    has_content = True
    option_spec = {  # noqa: RUF012
        "caption": directives.unchanged,
        "of": directives.unchanged,
        "set": directives.unchanged,
        "seed": directives.nonnegative_int,
        "wrong": directives.flag,
        "replay": directives.flag,
        "only-picture": directives.flag,
        "animated": directives.positive_int,
        "picture-first": directives.flag,
        "only-program": directives.flag,
        "draws": directives.unchanged,
        "file": directives.flag,
    }

    def run(self) -> list[nodes.Node]:
        """The program, its picture and caption."""
        name = self.arguments[0] if self.arguments else "kite.py"
        code = self._code()
        path = self.folder / name
        path.write_text(code)
        language = "toml" if "file" in self.options else "python"
        program = [self.raw(f'<p class="file-name">{name}</p>'), self.block(code.rstrip(), language)]
        is_known = self.config.is_fast and "of" in self.options  # a work of the gallery, drawn elsewhere too
        if "only-program" in self.options or "file" in self.options or is_known:
            return program
        if seconds := self.options.get("animated"):
            return [self._film(name, seconds)]
        if "only-picture" in self.options:
            return [self._figure(name)]
        figure = self._figure(name)
        return [figure, *program] if "picture-first" in self.options else [*program, figure]

    def _code(self) -> str:
        """The program that stands here, or in a file of the project."""
        if "of" not in self.options:
            return "\n".join(self.content) + "\n"
        path = Path(self.env.srcdir).parent / self.options["of"]
        self.env.note_dependency(str(path))
        return path.read_text()

    def _film(self, name: str, seconds: int) -> nodes.Node:
        """The picture as it draws itself, in so many seconds."""
        outcome = self.drawn(name, {}, self.options.get("seed"))
        assert outcome.sheet is not None
        film, source = self.picture(".svg")
        outcome.sheet.animate(film, seconds=seconds)
        caption = self.options.get("caption", "")
        return self.figure(source, caption, caption, ' class="film"')

    def _figure(self, name: str) -> nodes.Node:
        caption = self.options.get("caption", "")
        target = f"{name}:{self.options['draws']}" if "draws" in self.options else name
        values = dict(value.split("=", 1) for value in shlex.split(self.options.get("set", "")))
        outcome = self.drawn(target, values, self.options.get("seed"))
        replay = ""
        if "replay" in self.options and not self.config.is_fast and outcome.sheet is not None:
            page, address = self.picture(".html")
            outcome.sheet.save(page)
            replay = (
                '<details class="replay"><summary>Watch it draw</summary>'
                f'<iframe src="{address}" title="The replay of {name}" loading="lazy"></iframe>'
                f'<a href="{address}">On a page of its own</a></details>'
            )
        look = ' class="wrong"' if "wrong" in self.options else ""
        return self.pictured(outcome, caption or f"The picture of {name}", f"{caption}{replay}", look)


class ClassWork(Running):
    """Twelve pictures that a class made from a lesson: a drawing with other values in each.

    The program stands here, or is one of the lesson's; `values` has a line of them for each picture.
    """

    required_arguments = 1
    has_content = True
    option_spec = {"values": directives.unchanged_required}  # noqa: RUF012

    def run(self) -> list[nodes.Node]:
        """The pictures on one sheet, and the program if it is new."""
        name = self.arguments[0]
        if self.content:
            (self.folder / name).write_text("\n".join(self.content) + "\n")
        lines = [line.strip() for line in self.options["values"].splitlines() if line.strip()]
        if len(lines) != PICTURES_OF_A_CLASS:
            raise self.error(f"{name}: {len(lines)} pictures instead of {PICTURES_OF_A_CLASS}")
        if self.config.is_fast:
            return []
        sheets = []
        for line in lines:
            values = dict(pair.split("=", 1) for pair in shlex.split(line))
            seed = int(values.pop("seed", 1))
            outcome = self.drawn(name, values, seed)
            if outcome.sheet is None or outcome.trouble:
                raise self.error(f"{name} {line}: {outcome.trouble}")
            sheets.append(outcome.sheet)
        picture, source = self.picture(".svg")
        _side_by_side(sheets).save(picture)
        caption = "The work of a class: twelve pictures made from this lesson."
        shown = [self.figure(source, f"Twelve pictures drawn by {name}", caption)]
        if self.content:
            code = "\n".join(self.content)
            shown += [
                self.raw("<details><summary>The program, with all twelve</summary>"),
                self.block(code, "python"),
                self.raw("</details>"),
            ]
        return shown


def _side_by_side(sheets: list[Sheet]) -> Sheet:
    """Sheets of one size in rows, each on its own paper."""
    first = sheets[0]
    columns = 6 if first.width < first.height else 4
    width = (CLASS_WIDTH - GAP) / columns - GAP
    scale = width / first.width
    height = first.height * scale
    rows = -(-len(sheets) // columns)
    wall = Sheet(CLASS_WIDTH, rows * (height + GAP) + GAP, paper="transparent")
    nib = wall.new_nib()
    for number, sheet in enumerate(sheets):
        row, column = divmod(number, columns)
        left, bottom = (
            -CLASS_WIDTH / 2 + GAP + column * (width + GAP),
            wall.height / 2 - (row + 1) * (height + GAP),
        )
        nib.travel_to(left, bottom)
        nib.rectangle(width, height, anchor="corner", fill=sheet.paper, outline=False)
        nib.travel_to(left + width / 2, bottom + height / 2)
        shown = sheet.cropped(-sheet.width / 2, -sheet.height / 2, sheet.width, sheet.height, whole=False)
        nib.stamp(shown, scale=scale)
    return wall


class Command(Running):
    """A command line and what it prints."""

    required_arguments = 1
    final_argument_whitespace = True
    has_content = True
    option_spec = {  # noqa: RUF012
        "picture": directives.unchanged,
        "caption": directives.unchanged,
        "link": directives.unchanged,
        "quiet": directives.flag,
    }

    def run(self) -> list[nodes.Node]:
        """The command, what comes back, and a picture that it makes."""
        words = shlex.split(self.arguments[0])
        made = self.options.get("picture")
        arguments: list[str] = []
        for word in words:
            found = sorted(self.folder.glob(word)) if "*" in word else []
            arguments += [one.name for one in found] or [word]
        # What is drawn, varied, filmed and plotted is tested elsewhere; what a check says stands in the text.
        if self.config.is_fast and made and "check" not in words:
            return [self.block(f"$ {self.arguments[0]}", "answer")]
        said = self.said(arguments)
        lines = [f"$ {self.arguments[0]}"]
        if "quiet" not in self.options and said.strip():
            lines.append(textwrap.dedent(said).rstrip())
        shown = [self.block("\n".join(lines), "answer")]
        if link := self.options.get("link"):
            shown.append(self.raw(f'<p><a href="{self._kept(link, said)}">Open {link}</a></p>'))
        if made:
            source = self._kept(made, said)
            caption = self.options.get("caption", "")
            shown.append(self.figure(source, caption or made, caption))
        return shown

    def _kept(self, made: str, said: str) -> str:
        """Keep a file that the command made in the built site; how this page names it."""
        if not (self.folder / made).exists():
            raise self.error(f"{self.arguments[0]} makes no {made}: {said}")
        picture, source = self.picture(Path(made).suffix)
        picture.write_bytes((self.folder / made).read_bytes())
        return source


def _with_code(text: str) -> list[nodes.Node]:
    """A text whose parts in backticks are code."""
    parts = text.split("`")
    return [nodes.literal("", part) if i % 2 else nodes.Text(part) for i, part in enumerate(parts)]


class Rule(Running):
    """A rule of a check: what it looks for, a wrong program, what is said of it, and both pictures.

    `of` names the program, one of those on which a check is tried.
    """

    required_arguments = 1
    option_spec = {"of": directives.unchanged_required}  # noqa: RUF012

    def run(self) -> list[nodes.Node]:
        """What there is to see of a rule."""
        name = self.arguments[0]
        about = ALL_RULES[name]
        source = PROGRAMS / "wrong" / f"{self.options['of']}.py"
        self.env.note_dependency(str(source))
        marked = source.read_text()
        wrong, right = without_marks(marked), corrected(marked)
        severity = nodes.emphasis("", f"{about.severity.capitalize()}. ")
        words = nodes.paragraph("", "", severity, *_with_code(about.about))
        program = self.folder / f"{name}.py"
        program.write_text(wrong)
        how = ["--seed", str(SEED)] if "dice" in wrong else []
        if self.config.is_fast:  # one of them is an endless loop
            how += ["--step-limit", "50000"]
        said = self.said(["ovlo", "check", program.name, *how]).strip().splitlines()[:-2]
        lines = zip(marked.splitlines(), right.splitlines(), strict=True)
        fixes = [f"{i}: {new.strip()}" for i, (old, new) in enumerate(lines, 1) if old != new]
        return [
            words,
            self.block(wrong.strip(), "python"),
            self.block("\n".join(said), "answer"),
            nodes.paragraph("", "Corrected:"),
            self.block("\n".join(fixes), "python"),
            self.raw('<div class="pair">'),
            self._picture(wrong, "The wrong drawing.", ' class="wrong"'),
            self._picture(right, "The drawing that was meant."),
            self.raw("</div>"),
        ]

    def _picture(self, code: str, words: str, look: str = "") -> nodes.Node:
        (self.folder / "kite.py").write_text(code)
        outcome = self.drawn("kite.py", {}, SEED if "dice" in code else None, Limits(3000, 20))
        return self.pictured(outcome, words, words, look)


class Gallery(Running):
    """The pictures of all works, or of so many, each a link to its page."""

    optional_arguments = 1

    def run(self) -> list[nodes.Node]:
        """A picture for each work."""
        page = Path(self.env.srcdir) / "gallery" / "index.md"
        works = re.search(r"```\{toctree\}\n:hidden:\n\n(.*?)\n```", page.read_text(), re.S)
        assert works is not None
        if self.config.is_fast:
            return []
        shown = [self.raw('<div class="works">')]
        most = int(self.arguments[0]) if self.arguments else None
        folder = "" if self.env.docname.startswith("gallery/") else "gallery/"
        for name in works[1].split()[:most]:
            about = (page.parent / f"{name}.md").read_text()
            seed = re.search(r"^:seed: (\d+)", about, re.M)
            source = Path(self.env.srcdir).parent / "examples" / f"{name}.py"
            outcome = self.drawn(str(source), {}, int(seed[1]) if seed else None)
            title = about.splitlines()[0].strip("# ")
            shown.append(self.pictured(outcome, title, f'<a href="{folder}{name}.html">{title}</a>'))
        return [*shown, self.raw("</div>")]


class Cards(Running):
    """The pages of this page's list as cards: the first picture of each, its title and its first sentence."""

    def run(self) -> list[nodes.Node]:
        """A card for each page."""
        here = Path(self.env.srcdir) / f"{self.env.docname}.md"
        listed = re.search(r"```\{toctree\}\n(?::.*\n)*\n(.*?)\n```", here.read_text(), re.S)
        assert listed is not None
        cards = []
        for name in listed[1].split():
            page = here.parent / f"{name}.md"
            self.env.note_dependency(str(page))
            text = page.read_text()
            title = text.splitlines()[0].strip("# ")
            sentence, example = _introduced(text)
            picture = f"<!-- picture of {page.relative_to(self.env.srcdir).with_suffix('')} -->"
            cards.append(
                f'<a class="card" href="{name}.html">{picture}<strong>{_quoted(title)}</strong>'
                f"<span>{_quoted(sentence)}</span>{example}</a>"
            )
        return [self.raw(f'<div class="cards">{"".join(cards)}</div>')]


def _introduced(text: str) -> tuple[str, str]:
    """The first sentence of a page and a line of code; those of the class that the page is about, if any."""
    if public := re.search(r"autoclass:: ovlo\.(\w+)", text):
        words = getattr(ovlo, public[1]).__doc__ or ""
        codes = [line.strip()[4:] for line in words.splitlines() if ">>> " in line and "import" not in line]
        example = f"<code>{_quoted(codes[0])}</code>" if codes else ""
        return words.splitlines()[0].replace("`", ""), example
    plain = re.sub(r"^```.*?^```", "", text.split("\n", 1)[1], flags=re.S | re.M)
    parts = [part for part in plain.split("\n\n") if part.strip()]
    words = next((part for part in parts if part.strip()[0] not in "|#:(-"), "")
    sentence = re.sub(r"\[([^]]*)\]\([^)]*\)|[*`]", r"\1", " ".join(words.split()))
    return re.split(r"(?<=[.?!:])\s", sentence)[0].rstrip(":"), ""


def _put_pictures(app: Sphinx, error: Exception | None) -> None:
    """Give each card the first picture of its page, once all pages have theirs."""
    if error is not None or app.builder.format != "html":
        return
    out = Path(app.outdir)
    drawn = {path.name for path in (out / PICTURES).glob("*.*")}
    for page in out.rglob("*.html"):
        text = page.read_text(encoding="utf-8")
        if "<!-- picture of " not in text:
            continue
        up = "../" * (len(page.relative_to(out).parts) - 1)

        def picture(found: re.Match[str], up: str = up) -> str:
            stem = found[1].replace("/", "-")
            names = [f"{stem}-{number}.{kind}" for number in range(9) for kind in ("svg", "png", "gif")]
            name = next((name for name in names if name in drawn), None)
            return f'<img src="{up}{PICTURES}/{name}" alt="" loading="lazy">' if name else ""

        page.write_text(re.sub(r"<!-- picture of (\S+) -->", picture, text), encoding="utf-8")


class Public(Running):
    """A public class, its names in the groups of the page of names."""

    required_arguments = 1

    def run(self) -> list[nodes.Node]:
        """What the class is, and each of its names."""
        name = self.arguments[0]
        page = (Path(self.env.srcdir) / "reference" / "names.md").read_text()
        groups = re.split(r"^## ", page, flags=re.M)
        (mine,) = [group for group in groups if group.startswith(f"{name}\n")]
        text = ""
        for words, names in re.findall(r"^(?:([A-Z][\w ]*): )?((?:`\w+`\s*)+)$", mine, flags=re.M):
            if words:
                text += f"\n## {words}\n"
            text += "\n```{eval-rst}\n"
            for one in re.findall(r"\w+", names):
                kind = "method" if callable(getattr(getattr(ovlo, name), one, None)) else "attribute"
                text += f".. auto{kind}:: ovlo.{name}.{one}\n"
            text += "```\n"
        return self.parse_text_to_nodes(text, allow_section_headings=True)


MADE_BY_OTHERS = {"ovlo.Nib", "ovlo.Motif", "ovlo.Drawing", "ovlo.Finding"}
"""Classes that nobody calls: what they are made of is no business of a page."""


def _signed(app: Sphinx, kind: str, name: str, *_rest: object) -> tuple[str, str] | None:
    return ("", "") if name in MADE_BY_OTHERS else None


def _quoted(words: str) -> str:
    return words.replace("&", "&amp;").replace('"', "&quot;").replace("<", "&lt;")


class AnswerLexer(RegexLexer):  # type: ignore[misc]
    """What a terminal shows: lines that were typed, after a $, and what came back, which is no program."""

    name = "answer"
    tokens: ClassVar = {"root": [(r"^\$ .*\n", Generic.Prompt), (r".*\n", Text)]}


def setup(app: Sphinx) -> dict[str, Any]:
    """Make the directives known; a fast build leaves out replays and pages of neighbours."""
    app.add_config_value("is_fast", default=False, rebuild="env", types=[bool])
    app.connect("autodoc-process-signature", _signed)
    app.add_lexer("answer", AnswerLexer)
    app.add_directive("drawing", Drawing)
    app.add_directive("class-work", ClassWork)
    app.add_directive("command", Command)
    app.add_directive("rule", Rule)
    app.add_directive("public", Public)
    app.add_directive("gallery", Gallery)
    app.add_directive("cards", Cards)
    app.connect("build-finished", _put_pictures)
    return {"parallel_read_safe": True, "parallel_write_safe": True}
