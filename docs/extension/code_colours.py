"""The colours of programs in the guide: those of the page in the browser, on light and on dark ground."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any, ClassVar

from pygments.style import Style
from pygments.token import Comment, Generic, Keyword, Number, Operator, String, Token

STYLE_SHEET = Path(__file__).parents[2] / "src/ovlo/page/assets/palette.css"


def palettes() -> tuple[dict[str, str], dict[str, str]]:
    """The named colours of the page, for light and for dark."""
    light, dark = re.findall(r":root \{(.*?)\}", STYLE_SHEET.read_text(), re.DOTALL)[:2]
    first, second = (dict(re.findall(r"--(\w+): (#\w{6});", block)) for block in (light, dark))
    return first, second


LIGHT, DARK = palettes()


def styles(colours: dict[str, str]) -> dict[Any, str]:
    """What the page gives a colour of its own, and nothing else."""
    return {
        Token: colours["ink"],
        Comment: f"italic {colours['soft']}",
        Keyword: colours["word"],
        Operator.Word: colours["word"],
        String: colours["string"],
        Number: colours["number"],
        Generic.Prompt: colours["strong"],
    }


class Light(Style):
    """On light ground."""

    background_color = LIGHT["ground"]
    styles: ClassVar = styles(LIGHT)


class Dark(Style):
    """On dark ground."""

    background_color = DARK["ground"]
    styles: ClassVar = styles(DARK)
