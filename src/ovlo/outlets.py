"""From a sheet or motif to a file, a page or a notebook cell: what is behind the core's one door upward.

save(sheet, "kite.svg", scale=1)
"""

from __future__ import annotations

import sys
from collections.abc import Iterable, Sequence
from dataclasses import replace
from os import PathLike
from pathlib import Path
from typing import TYPE_CHECKING, Any, TypedDict, Unpack, cast

from ovlo.core.paint.measures import widest_line
from ovlo.core.sheet.host import unhosted
from ovlo.core.sheet.motif import Motif
from ovlo.core.sheet.only import only
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.columns import Columns, Text
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Bytes, Floats
from ovlo.core.values.errors import BadType, BadUse, BadValue, FileError
from ovlo.core.values.units import PIXELS_PER_INCH, Length
from ovlo.render import lettering
from ovlo.render.files import Target, check_folder, checked_path, is_file, write, write_in_pieces, write_to
from ovlo.render.formats.table import is_page, renderer_of
from ovlo.render.page import TEXTS, Page, mark_boxes

if TYPE_CHECKING:
    from matplotlib.axes import Axes

    from ovlo.core.compare.compare import CompareInputs
    from ovlo.core.compare.comparison import Comparison
    from ovlo.core.trail.origins import Origins
    from ovlo.core.values.choices import TextOutput
    from ovlo.core.values.finding import Finding
    from ovlo.program.loading import AnyDrawing
    from ovlo.program.variations import Layout, Variations
    from ovlo.render.flat import FlatPath
    from ovlo.render.formats.animation import Playback
    from ovlo.render.paper.paper_sheet import Paper, PaperSheet
    from ovlo.render.plotter.about import PlotDetails
    from ovlo.render.plotter.making import PlotHow, PlotOrder
    from ovlo.render.plotter.preview import Looks
    from ovlo.render.plotter.report import PlotReport
    from ovlo.render.plotter.simulation import Simulated


Lines = tuple[tuple[str, int], ...]
"""Files and lines in them."""


class How(TypedDict, total=False):
    """How a picture is to look; see `Sheet.save`. `only` names a function whose marks are not pale."""

    scale: float
    fit: bool
    overlay: str | Iterable[str]
    only: str
    groups: bool
    text: str
    dpi: float | None
    page_size: str | None
    landscape: bool
    margin: Length | None
    tiles: str | None
    allow_large: bool


LARGEST_PAGE = 100_000_000
"""Bytes of a page that is written without being asked for."""

PAPER = ("page_size", "landscape", "margin", "tiles")


def save(sheet: Sheet, target: Target, format: str | None = None, **how: Unpack[How]) -> None:
    """Write a sheet's picture to a path or a binary file, in the format named or that of the file ending."""
    if is_file(target):
        suffix = _suffix(format, "save", "a file object")
        write_to(target, _pieces(sheet, suffix, how), "save")
        return
    path = checked_path(target, "save")
    suffix = path.suffix if format is None else _suffix(format, "save")
    check_target(path, "save", suffix)
    write_in_pieces(path, _pieces(sheet, suffix, how))


def to_bytes(sheet: Sheet, format: str, how: How) -> bytes:
    """What `save` writes."""
    return as_bytes(sheet, _suffix(format, "to_bytes"), **how)


def _suffix(format: object, call: str, target: str = "") -> str:
    """The file ending of a format that is named "svg" or ".svg"."""
    if format is None:
        raise BadValue(f'{call}: {target} has no file ending; name its format, as in format="svg".')
    if not isinstance(format, str):
        raise BadType(f'{call}: format must be a string such as "svg", not {arguments.brief(format)}.')
    suffix = f".{format.lower().removeprefix('.')}"
    if not is_page(suffix):
        renderer_of(suffix, call)
    return suffix


def save_plot(sheet: Sheet, path: str | PathLike[str], **how: Unpack[PlotHow]) -> PlotReport:
    """Convert a sheet's picture to plotter output."""
    from ovlo.render.plotter.making import checked_order

    target = checked_path(path, "save_plot")
    check_plot_target(target, "save_plot")
    return write_plots(sheet, [target], checked_order(how, "save_plot"))[0]


def write_plots(sheet: Sheet, paths: list[Path], order: PlotOrder) -> tuple[PlotReport, list[Path]]:
    """Write what a plotter draws of a sheet to some files; the report, and which files those are."""
    from ovlo.render.plotter.making import about
    from ovlo.render.plotter.report import report_of
    from ovlo.render.plotter.table import FORMATS, plot_reader_of, plot_renderer_of

    plotted = order.plotted(sheet)
    said = about(sheet, _script_name())
    endings = [path.suffix.lower() for path in paths]
    # A preview shows what a machine makes of the first file for machines.
    shown = next((ending for ending in endings if ending in FORMATS), FORMATS[0])
    contents: list[tuple[Path, bytes]] = []
    warnings: dict[str, None] = {}
    for path, ending in zip(paths, endings, strict=True):
        for file, part in order.files_of(path, plotted):
            content = plot_renderer_of(ending if ending in FORMATS else shown)(part, order.machine, said)
            if ending not in FORMATS:
                size = part.placing.width, part.placing.height
                drawn = plot_reader_of(shown)(content.decode(), order.machine, size)
                warnings.update(dict.fromkeys(drawn.warnings))
                looks = {number: run.pen.look for number, run in enumerate(part.runs, 1)}
                content = _plot_preview(drawn, looks, said, ending)
            contents.append((file, content))
    for file, content in contents:
        write(file, content)
    report = report_of(plotted, order.machine)._replace(warnings=[*warnings])
    return report, [file for file, _ in contents]


def read_plot(source: Path, paths: list[Path], order: PlotOrder) -> Simulated:
    """Show what a machine makes of a file for plotters, whoever wrote it."""
    from ovlo.render.plotter.about import PlotDetails
    from ovlo.render.plotter.table import FORMATS, plot_reader_of

    suffix = source.suffix.lower()
    if suffix not in FORMATS:
        raise BadValue(
            f"{order.call}: {source} is not a plot; name a file that ends in .gcode, .hpgl or .svg."
        )
    try:
        text = source.read_bytes().decode("utf-8", "replace")
    except OSError as error:
        raise FileError(f"{order.call}: {str(source)!r} cannot be read ({error.strerror}).") from error
    drawn = plot_reader_of(suffix)(text, order.machine, order.page)
    looks = {number: pen.look for number, pen in enumerate(order.wishes.tray, 1)}
    for path in paths:
        write(path, _plot_preview(drawn, looks, PlotDetails(source.name), path.suffix.lower(), True))
    return drawn


def _plot_preview(
    drawn: Simulated, looks: Looks, about: PlotDetails, ending: str, has_legend: bool = False
) -> bytes:
    """What a simulated machine drew, as a PNG or as a page that replays it."""
    from ovlo.render.plotter.preview import preview, render

    if not is_page(ending):
        return render(drawn, looks, about, has_legend)
    from ovlo.page.file import page_of_sheet

    return b"".join(page_of_sheet(preview(drawn, looks, about, is_timed=True, has_legend=has_legend)))


def check_plot_target(path: Path, call: str) -> None:
    """Refuse, before anything is drawn, a plot that could not be written."""
    from ovlo.render.plotter.table import check_ending

    check_ending(path.suffix, call)
    check_folder(path, call)


def check_preview_target(path: Path, call: str) -> None:
    """Refuse a preview that could not be written."""
    from ovlo.render.plotter.table import PREVIEWS

    if path.suffix.lower() not in PREVIEWS:
        raise BadValue(f"{call}: a plot that was read is shown as .png or .html, not as {path.suffix!r}.")
    check_folder(path, call)


def check_target(path: Path, call: str, suffix: str | None = None) -> None:
    """Refuse, before anything is drawn, a file that could not be written; `call` is what named it."""
    suffix = path.suffix if suffix is None else suffix
    if not is_page(suffix):
        renderer_of(suffix, call)
    check_folder(path, call)


def as_bytes(sheet: Sheet, suffix: str, **how: Unpack[How]) -> bytes:
    """A sheet's picture in the format of a file ending."""
    return b"".join(_pieces(sheet, suffix, how))


def _pieces(sheet: Sheet, suffix: str, how: How) -> Iterable[bytes]:
    """The same in pieces, one after the other."""
    if is_page(suffix):
        return _page(sheet, how)
    render = renderer_of(suffix, "save")
    scale, text = _scale(how, suffix), how.get("text", TEXTS[0])
    page = Page.of(sheet, scale, how.get("fit", False), _script_name(), text)
    columns = sheet._columns
    if arguments.truth(how.get("groups", False), "save", "groups"):
        page = replace(page, origins=_origins(sheet, suffix))
    if function := how.get("only"):
        columns = only(sheet, function, "--only")
    if not isinstance(overlay := how.get("overlay", ()), str | tuple) or overlay:
        from ovlo.render.additions.overlays import checked_overlays, with_overlays

        columns, page = with_overlays(columns, sheet, page, checked_overlays(overlay, "save"))
    if (paper := _paper(how, suffix, scale)) is not None:
        return [_on_paper(columns, page, paper)]
    return render(columns, page)


def _origins(sheet: Sheet, suffix: str) -> Origins:
    """Where the marks of a sheet came from, to group them in a file."""
    if suffix.lower() != ".svg":
        raise BadValue(f"save: groups are for an SVG, not for {suffix!r}; leave them out.")
    if sheet._origins is None:
        raise BadUse(
            "save: groups need to know which function drew what; draw with kite.run(traced=True), or run "
            "`ovlo draw --groups`."
        )
    return sheet._origins


def _paper(how: How, suffix: str, scale: float) -> Paper | None:
    """The pages of paper that are asked for, if any."""
    asked = (how.get(name) for name in PAPER)
    if all(value is None or value is False for value in asked):
        return None
    from ovlo.render.paper.poster import PaperHow, checked_paper

    return checked_paper(cast(PaperHow, how), [suffix], scale, "save")


def _on_paper(columns: Columns, page: Page, paper: Paper) -> bytes:
    """A picture on a page of paper, or on the sheets of paper of a poster."""
    from ovlo.render.formats.pdf import render_paper_sheets
    from ovlo.render.paper.paper_sheet import PaperSheet, print_of
    from ovlo.render.paper.poster import poster

    if paper.tile is not None:
        papers = poster(columns, page, paper, "save")
    else:
        papers = [PaperSheet(*paper.size, (print_of(columns, page, paper, "save"),))]
    return render_paper_sheets(papers, page.title, page.details)


def answer(error: BaseException, only_own: bool = False) -> None:
    """Put Ovlo's answer into an error that Python raised by itself."""
    from ovlo.program import explaining

    explaining.put_answer(error, only_own)


def vary(
    drawing: AnyDrawing, ranges: dict[str, object], fit_each: bool, overlay: str | Iterable[str]
) -> Variations:
    """A picture of every combination of some values."""
    from ovlo.program.varying import varied

    return varied(drawing, ranges, fit_each, overlay)


def save_variations(
    variations: Variations,
    paths: Sequence[str | PathLike[str]],
    layout: Layout,
    scale: float,
    text: TextOutput,
) -> Sheet | list[PaperSheet]:
    """Write a contact sheet, on pages of paper if that was asked for, or the page with sliders."""
    targets = [checked_path(path, "save") for path in paths]
    for target in targets:
        check_target(target, "save")
    laid = variations._laid_out(layout, [target.suffix for target in targets], scale, text)
    for target in targets:
        if is_page(target.suffix):
            from ovlo.page.file import page_of_cells  # with the page, which most contact sheets are not

            _refuse_scale(scale)
            write(target, page_of_cells(variations._cells))
        elif isinstance(laid, Sheet):
            save(laid, target, scale=scale, text=text)
        else:
            from ovlo.render.formats.pdf import render_paper_sheets

            write(target, render_paper_sheets(laid, variations._heading(layout.title), ""))
    return laid


def framed(sheet: Sheet) -> str:
    """A sheet's picture as SVG in a thin frame, for a notebook."""
    from ovlo.render.formats.svg import framed as in_a_frame

    return in_a_frame(sheet._columns, Page.of(sheet)).decode()


def _scale(how: How, suffix: str) -> float:
    """How many times as large a picture is, asked for as such or by the pixels of an inch."""
    scale, dpi = how.get("scale", 1), how.get("dpi")
    if dpi is None:
        return scale
    if scale != 1 or suffix.lower() != ".png":
        raise BadValue("save: dpi is the resolution of a PNG and replaces scale; leave one of them out.")
    return arguments.positive(dpi, "save", "dpi") / PIXELS_PER_INCH


def _page(sheet: Sheet, how: How) -> list[bytes]:
    """The page that replays a sheet, in pieces; it stands still at first."""
    from ovlo.page.file import page_of_sheet
    from ovlo.render.additions.overlays import checked_overlays

    _refuse_scale(how.get("scale", 1))
    overlay = checked_overlays(how.get("overlay", ()), "save")
    page = page_of_sheet(sheet, findings_of(sheet), how.get("fit", False), overlay, how.get("only", ""))
    size = sum(map(len, page))
    if size > LARGEST_PAGE and not how.get("allow_large"):
        raise BadValue(
            f"save: the page would be {size / 1e6:.0f} MB, which browsers open slowly; save the picture "
            "as .svg or .png, or allow such a page (allow_large=True, --allow-large)."
        )
    return page


def _refuse_scale(scale: float) -> None:
    if scale != 1:
        raise BadValue(
            f"save: a page is as large as its window, so it takes no scale; leave scale={scale:g} out."
        )


def playing_page(sheet: Sheet, playback: Playback) -> bytes:
    """The page that replays a sheet, and plays at once."""
    from ovlo.page.file import page_of_sheet

    names = (*playback.overlay, "pointer") if playback.pointer else playback.overlay
    page = page_of_sheet(
        sheet, findings_of(sheet), overlay=names, seconds=playback.seconds, loops=playback.loops
    )
    return b"".join(page)


MOST_CHECKED = 200_000
"""Steps of a drawing up to which a page shows the findings; for longer drawings this takes too long."""


def findings_of(sheet: Sheet) -> list[Finding] | None:
    """What a page tells of what may be wrong; None where nobody looked."""
    return check(sheet) if len(sheet._trail) <= MOST_CHECKED else None


def _script_name() -> str:
    """What a picture of the script that Python runs is called."""
    file = getattr(sys.modules.get("__main__"), "__file__", None) or ""
    return Path(file).stem if file.endswith(".py") else ""


def save_motif(motif: Motif, path: str | PathLike[str], scale: float) -> None:
    """Write a motif on a page around it."""
    target = checked_path(path, "save")
    check_target(target, "save")
    write(target, motif_as_bytes(motif, target.suffix, scale))


def motif_as_bytes(motif: Motif, suffix: str, scale: float = 1) -> bytes:
    """A motif's picture in the format of a file ending."""
    columns = motif._columns
    page = Page.around(columns, motif.bounds, scale, motif._paper)
    return b"".join(renderer_of(suffix, "save")(columns, page))


def motif_from_svg(source: object) -> Motif:
    """The picture in an SVG file, a file object or a text."""
    from ovlo.render.svg_reader.motif import motif_from_svg as read

    return read(source)


def to_array(sheet: Sheet, scale: float) -> Bytes:
    """The picture as rows of pixels."""
    from ovlo.render.formats.png import rasterise

    return rasterise(sheet._columns, Page.of(sheet, arguments.positive(scale, "to_array", "scale")))


def paths(sheet: Sheet, tolerance: float) -> list[FlatPath]:
    """The marks as polylines, the lowest first."""
    from ovlo.render.flat import flat_paths

    return flat_paths(sheet._columns, arguments.positive(tolerance, "paths", "tolerance"))


def draw_on(sheet: Sheet, axes: Axes) -> None:
    """Put the drawing into Matplotlib's axes."""
    from ovlo.render.formats.axes import draw_on as put_on

    put_on(sheet, axes)


def animate(sheet: Sheet, path: str | PathLike[str], scale: float, **how: Any) -> None:
    """Write an animation, or the page that plays one."""
    from ovlo.render.formats.animation import checked_playback, film_of, writer_of

    target, playback = checked_path(path, "animate"), checked_playback(how, "animate")
    if not is_page(target.suffix):
        writer_of(target.suffix, "animate")
    check_folder(target, "animate")
    if is_page(target.suffix):
        _refuse_scale(scale)
        write(target, playing_page(sheet, playback))
    else:
        film_of(sheet, playback, arguments.positive(scale, "animate", "scale")).save(target)


def text_box(text: Text) -> tuple[Floats, Floats]:
    """The corners of a text's box."""
    return lettering.box(text)


MOST_STOPPED = 500_000
"""Steps of a program that was stopped whose picture is still looked at."""


def check(sheet: Sheet, skip: Iterable[str] = (), stopped_at: Lines | None = ()) -> list[Finding]:
    """What the rules of a check come upon, but for what is skipped by name or by a comment.

    Of a program that was stopped, or failed, in some lines, only what no further line could have changed.
    """
    call = "check"
    from ovlo.core.check.check import CERTAIN, CheckInputs, findings
    from ovlo.program.silencing import is_silenced
    from ovlo.program.source.merging import is_finished, joined
    from ovlo.program.source.rules import ALL_RULES

    names = [skip] if isinstance(skip, str) else arguments.listed(skip, call, "skip", "name rules")
    for name in names:
        if not isinstance(name, str) or name not in ALL_RULES:
            near = arguments.near(name, ALL_RULES) if isinstance(name, str) else ""
            raise BadValue(
                f"{call}: there is no rule {arguments.brief(name)}{near}; `ovlo check --rules` explains them."
            )
    inputs = CheckInputs(mark_boxes(sheet), lettering.glyphs)
    origins = sheet._origins
    files = dict.fromkeys(place.file for place in origins.places) if origins is not None else {}
    is_stopped = stopped_at is None or bool(stopped_at)
    # What an endless loop drew until it was stopped is not worth a minute of looking.
    is_endless = is_stopped and len(sheet._trail) > MOST_STOPPED
    of_picture = [] if is_endless else findings(sheet, inputs)
    if is_stopped:
        of_picture = [one for one in of_picture if one.rule in CERTAIN or is_finished(one, stopped_at)]
    found = joined(of_picture, files)
    if stopped_at:  # the error has told that already
        found = [
            one for one in found if one.rule != "unknown-name" or (one.file, one.lines[0]) not in stopped_at
        ]
    return [one for one in found if one.rule not in names and not is_silenced(one)]


def compare(a: Sheet | Motif, b: Sheet | Motif, names: tuple[str, str] | None = None) -> Comparison:
    """How the picture of one sheet or motif relates to that of another; the names are for the legend."""
    from ovlo.core.compare.compare import compare as relation_of
    from ovlo.core.compare.comparison import Comparison

    for one, other in ((a, b), (b, a)):
        if not isinstance(one, Sheet | Motif) or isinstance(other, Sheet) is not isinstance(one, Sheet):
            noun = "a sheet" if isinstance(a, Sheet) else "a motif"
            raise BadType(f"compare: give {noun} to compare with, not {arguments.brief(b)}.")
    first, second = _sheet_of(a), _sheet_of(b)
    if first.unit != second.unit:
        raise BadUse(
            f"compare: A is drawn in {first.unit}, but B in {second.unit}; give both sheets the same unit."
        )
    relation = relation_of(first._columns, second._columns, compare_inputs(second))
    if relation.is_same_shape and first.paper != second.paper and isinstance(a, Sheet):
        words = f"The paper is {first.paper.css} in A, but {second.paper.css} in B."
        relation = replace(relation, words=(*relation.words, words))
    return Comparison(relation, (first, second), names or (first.title or "A", second.title or "B"))


def _sheet_of(picture: Sheet | Motif) -> Sheet:
    """A sheet, or one just large enough for a motif."""
    if isinstance(picture, Sheet):
        return picture
    reach = [
        max(1.0, *(abs(side) for side in sides)) for sides in (picture.bounds[::2], picture.bounds[1::2])
    ]
    room = 10 + widest_line(picture._columns)
    with unhosted():
        sheet = Sheet(2 * reach[0] + room, 2 * reach[1] + room)
    sheet._paper = picture._paper
    sheet._trail.restore(picture._columns, None)
    return sheet


def difference(pictures: tuple[Sheet, Sheet], names: tuple[str, str], verdict: str) -> Sheet:
    """Two pictures laid over each other."""
    from ovlo.render.additions.difference import difference_sheet

    return difference_sheet(*pictures, *names, verdict)


def compare_inputs(sheet: Sheet) -> CompareInputs:
    """What a comparison with a sheet's picture needs of pixels and texts."""

    from ovlo.core.compare.compare import CompareInputs
    from ovlo.render.formats.png import rasterise

    def paint(columns: Columns, box: tuple[float, float, float, float]) -> Bytes:
        return rasterise(columns, Page.of_box(box, COMPARED))

    return CompareInputs(paint, text_box, sheet._pixels_per_unit)


COMPARED = 700
"""Pixels, across or down, of the pictures in which it is looked for what lies on top."""
