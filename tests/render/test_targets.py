"""Where a file's name is not what one has: file objects, bytes, arrays, polylines, Matplotlib's axes."""

from __future__ import annotations

import io

import numpy as np
import pytest
from PIL import Image

from ovlo import BadType, BadValue, Motif, Sheet


@pytest.fixture
def scene() -> Sheet:
    sheet = Sheet(200, 160, paper="aliceblue")
    nib = sheet.new_nib()
    with nib.area("tomato", fill_rule="evenodd"):
        nib.circle(60)
        nib.circle(30)
    with nib.styled(ink="#00800080", line_width=7, line_dash=(12, 8), line_cap="butt"):
        nib.travel_to(-80, -60)
        nib.forward(150)
    nib.text("Kite", size=30)
    return sheet


@pytest.mark.parametrize("format", ["svg", "png", "pdf", "html", ".SVG"])
def test_bytes_and_file_objects_get_what_a_file_gets(scene, tmp_path, format):
    path = tmp_path / f"kite.{format.lower().strip('.')}"
    scene.save(path)
    assert scene.to_bytes(format) == path.read_bytes()
    written = io.BytesIO()
    scene.save(written, format=format)
    assert written.getvalue() == path.read_bytes()
    scene.save(tmp_path / "kite.part", format=format)
    assert (tmp_path / "kite.part").read_bytes() == path.read_bytes()


def test_what_takes_no_bytes_or_names_no_format_is_refused(scene):
    with pytest.raises(BadValue, match=r"save: a file object has no file ending; name its format"):
        scene.save(io.BytesIO())
    with pytest.raises(BadType, match='open it with mode "wb"'):
        scene.save(io.StringIO(), format="svg")
    with pytest.raises(BadValue, match=r"to_bytes: \.gif is an animation"):
        scene.to_bytes("gif")
    with pytest.raises(BadValue, match="to_array: scale must be above 0"):
        scene.to_array(scale=0)


def test_an_array_is_the_png(scene):
    pixels = scene.to_array(scale=2)
    assert pixels.shape == (320, 400, 4)
    png = np.asarray(Image.open(io.BytesIO(scene.to_bytes("png", scale=2))))
    assert (pixels[..., :3] == png).all()


def test_an_svg_is_read_from_a_text_or_a_file_object(nib):
    nib.star(5, 40, fill="gold")
    written = nib.sheet.to_bytes("svg")
    motifs = [Motif.from_svg(written.decode()), Motif.from_svg(io.BytesIO(written))]
    motifs.append(Motif.from_svg(io.StringIO(written.decode())))
    for motif in motifs:
        comparison = motif.compare(Motif.record(lambda nib: nib.star(5, 40, fill="gold")))
        assert comparison.is_same
        assert abs(comparison.scale - 1) < 1e-3


def test_paths_painted_by_another_hand_are_the_picture(scene):
    """Shapely's areas, sampled, have the colours of our own pixels."""
    import shapely

    pixels, wrong = scene.to_array(), 0
    paths = scene.paths()
    assert [path.words for path in paths if path.words] == ["Kite"]
    for x, y in np.random.default_rng(1).uniform((-99, -79), (99, 79), (300, 2)):
        colour = np.array([240, 248, 255], float)
        for path in paths:
            inside = sum(
                shapely.contains_xy(shapely.Polygon(one), x, y) for one in path.contours if len(one) > 2
            )
            if path.fill and (inside % 2 if path.fill_rule == "evenodd" or path.words else inside):
                colour = np.array([path.fill.red, path.fill.green, path.fill.blue])
            if path.ink and not path.line_dash:
                line = shapely.MultiLineString(list(path.contours))
                if shapely.distance(line, shapely.Point(x, y)) < path.line_width / 2:
                    colour = np.array([path.ink.red, path.ink.green, path.ink.blue])
            elif path.ink and abs(y + 60) < 6:
                break  # a dash, or none
        else:
            wrong += abs(pixels[int(80 - y), int(x + 100), :3] - colour).max() > 60
    assert wrong < 12  # at edges, where a pixel has a share of both


def test_matplotlib_draws_it_as_we_do_in_data_units(scene):
    import matplotlib

    with matplotlib.rc_context({"backend": "agg"}):
        from matplotlib.backends.backend_agg import FigureCanvasAgg
        from matplotlib.figure import Figure

        for scale in (1, 3):
            figure = Figure(figsize=(2 * scale, 1.6 * scale), dpi=100)
            canvas = FigureCanvasAgg(figure)
            axes = figure.add_axes((0, 0, 1, 1))
            axes.axis("off")
            scene.draw_on(axes)
            axes.set_xlim(-100, 100)
            axes.set_ylim(-80, 80)
            figure.set_facecolor("aliceblue")
            canvas.draw()
            theirs = np.asarray(canvas.buffer_rgba()).astype(int)
            ours = scene.to_array(scale=scale).astype(int)
            assert theirs.shape == ours.shape
            assert (abs(theirs - ours).max(axis=2) > 64).mean() < 0.004
    with pytest.raises(BadType, match="give Matplotlib axes"):
        scene.draw_on(figure)


def test_text_is_refused_in_a_sentence_where_nothing_can_be_written(tmp_path):
    import os
    import subprocess
    import sys

    if not hasattr(os, "setuid") or os.getuid() != 0:
        pytest.skip("only root can become somebody who may write nowhere")
    alone = [sys.executable, "-c", "import os; os.setuid(65534); import __future__"]
    if subprocess.run(alone, capture_output=True).returncode:
        pytest.skip("this Python is in a folder that nobody else may read")
    source = (
        "import os, tempfile\n"
        "os.setuid(65534)\n"
        "def none(*_, **__): raise FileNotFoundError(2, 'no folder')\n"
        "tempfile.gettempdir = tempfile.mkdtemp = none\n"
        "from ovlo import Sheet, FileError\n"
        "sheet = Sheet(40, 30)\n"
        "sheet.new_nib().circle(9)\n"
        "print(sheet.to_bytes('png')[1:4])\n"
        "sheet.nibs[0].text('hi')\n"
        "print(sheet.to_bytes('svg')[:4])\n"
        "try: sheet.to_bytes('png')\n"
        "except FileError as error: print(error)\n"
    )
    env = {name: value for name, value in os.environ.items() if name != "MPLCONFIGDIR"}
    done = subprocess.run(
        [sys.executable, "-c", source],
        cwd="/",
        env=env | {"HOME": "/nowhere"},
        capture_output=True,
        text=True,
    )
    assert done.stdout.splitlines()[:2] == ["b'PNG'", "b'<svg'"], done.stderr
    assert "set the environment variable MPLCONFIGDIR" in done.stdout
