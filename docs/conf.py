"""How the guide is built: `make docs`."""

from __future__ import annotations

import sys
from pathlib import Path

sys.path[:0] = [str(Path(__file__).parent / "extension"), str(Path(__file__).parents[1])]

from code_colours import DARK, LIGHT  # noqa: E402

from ovlo import __version__  # noqa: E402

project = "Ovlo"
author = "the Ovlo authors"
release = version = __version__

extensions = ["myst_parser", "sphinx.ext.autodoc", "sphinx.ext.napoleon", "running"]
myst_enable_extensions = ["colon_fence", "deflist", "attrs_inline"]
myst_heading_anchors = 3
source_suffix = {".md": "markdown"}
templates_path = ["templates"]
exclude_patterns = ["_build", "screenshots", "extension", "templates"]

# Every reference is resolved, but for what stands in other libraries and in types.
nitpicky = True
nitpick_ignore_regex = [("py:.*", r"(?!ovlo).*"), ("py:.*", r"ovlo\.(core|program|render|browser)\..*")]

autodoc_member_order = "bysource"
autodoc_typehints = "none"
napoleon_google_docstring = False
napoleon_use_ivar = True
add_module_names = False

html_theme = "furo"
html_title = "Ovlo"
html_static_path = ["static"]
html_css_files = ["guide.css"]
html_copy_source = False
html_show_sourcelink = False
html_show_sphinx = False
html_show_copyright = False
pygments_style = "code_colours.Light"
pygments_dark_style = "code_colours.Dark"


def _variables(colours: dict[str, str]) -> dict[str, str]:
    """The guide in the colours of the page in the browser."""
    return {
        "font-stack": "system-ui, sans-serif",
        "font-stack--monospace": "ui-monospace, monospace",
        "color-foreground-primary": colours["ink"],
        "color-foreground-secondary": colours["soft"],
        "color-background-primary": colours["panel"],
        "color-background-secondary": colours["ground"],
        "color-background-border": colours["line"],
        "color-brand-primary": colours["strong"],
        "color-brand-content": colours["strong"],
        "color-brand-visited": colours["strong"],
        "color-api-background": colours["ground"],
        "color-highlight-on-target": colours["lit"],
    }


html_theme_options = {
    "light_css_variables": _variables(LIGHT),
    "dark_css_variables": _variables(DARK),
}
