"""How the guide is built: `make docs`."""

from __future__ import annotations

import sys
from pathlib import Path

sys.path[:0] = [str(Path(__file__).parent / "extension"), str(Path(__file__).parents[1])]

from ovlo import __version__  # noqa: E402

project = "Ovlo"
author = "the Ovlo authors"
release = version = __version__

extensions = ["myst_parser", "sphinx.ext.autodoc", "sphinx.ext.napoleon", "running"]
myst_enable_extensions = ["colon_fence", "deflist", "attrs_inline"]
myst_heading_anchors = 3
source_suffix = {".md": "markdown"}
exclude_patterns = ["_build", "screenshots", "extension"]

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
pygments_style = "tango"
