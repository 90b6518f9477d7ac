"""Lists and data frames of sheets and motifs, shown in a notebook as small pictures.

register(get_ipython())
"""

from __future__ import annotations

import base64
import html
from typing import Any

from ovlo.core.sheet.motif import Motif
from ovlo.core.sheet.sheet import Sheet

WIDTH = 160
"""CSS pixels of a small picture."""

MOST = 200
"""Pictures of a list that are shown."""


def register(shell: Any) -> None:
    """Show such lists and frames from now on; other lists and frames are shown as before."""
    as_html = shell.display_formatter.formatters["text/html"]
    try:
        as_html.lookup_by_type(list)
    except KeyError:  # nobody shows lists yet
        as_html.for_type(list, _list)
    for module in ("pandas", "pandas.core.frame"):  # where pandas 3 says that a frame is from, and pandas 2
        as_html.for_type_by_name(module, "DataFrame", _frame)


def _list(values: list[Any]) -> str | None:
    if not values or not all(isinstance(value, Sheet | Motif) for value in values):
        return None
    more = f"<p>… and {len(values) - MOST:,} more</p>" if len(values) > MOST else ""
    return "".join(_small(value) for value in values[:MOST]) + more


def _frame(frame: Any) -> str | None:
    pictured = [
        name
        for name, column in frame.items()
        if column.dtype == object and any(isinstance(value, Sheet | Motif) for value in column)
    ]
    if not pictured or not frame.columns.is_unique:
        shown: str | None = frame._repr_html_()
        return shown
    import pandas

    safe = frame.rename(index=_label, columns=_label)
    formatters = {
        name: _cell for name, column in safe.items() if not pandas.api.types.is_numeric_dtype(column)
    }
    table: str = safe.to_html(
        formatters=formatters, escape=False, max_rows=pandas.get_option("display.max_rows")
    )
    return table


def _label(name: object) -> object:
    return html.escape(name) if isinstance(name, str) else name


def _cell(value: object) -> str:
    return _small(value) if isinstance(value, Sheet | Motif) else html.escape(str(value))


def _small(picture: Sheet | Motif) -> str:
    if isinstance(picture, Sheet):
        data = picture.to_bytes("png", scale=WIDTH / (picture.width * picture._pixels_per_unit))
    else:
        data = picture._repr_png_()
    words = html.escape(repr(picture))
    return (
        f'<img width="{WIDTH}" style="margin: 4px" alt="{words}" title="{words}" '
        f'src="data:image/png;base64,{base64.b64encode(data).decode()}">'
    )
