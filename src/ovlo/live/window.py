"""The window: a picture on the screen until it is closed.

show_picture(png, "kite")
"""

from __future__ import annotations

import io

from ovlo.core.errors import NoDisplay


def show_picture(png: bytes, title: str) -> None:
    """Open a window with a picture and wait until it is closed."""
    import matplotlib
    import numpy as np
    from matplotlib import pyplot
    from PIL import Image

    picture = Image.open(io.BytesIO(png))
    figure = pyplot.figure(title or "Drawing", figsize=(picture.width / 96, picture.height / 96), dpi=96)
    if matplotlib.get_backend().lower() in {"agg", "pdf", "svg", "ps", "cairo", "template"}:
        pyplot.close(figure)
        raise NoDisplay(
            "show: there is no screen to open a window on; "
            "use sheet.save('picture.png') and look at the file."
        )
    figure.figimage(np.asarray(picture))
    pyplot.show(block=True)
