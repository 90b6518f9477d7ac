"""A shell: a spiral that grows by the same ratio in each turn, with the walls of its chambers."""

from typing import Annotated

from ovlo import Span, drawing, from_polar


@drawing(width=480, height=480, paper="seashell")
def nautilus_shell(
    nib, chambers: Annotated[int, Span(8, 40)] = 26, growth: Annotated[float, Span(1.8, 3.5)] = 2.8
):
    """Chamber after chamber, each larger by the same ratio."""
    rounds, step = 2.4, 360 * 2.4 / chambers

    def radius(angle):
        return 215 * growth ** ((angle - 360 * rounds) / 360)

    nib.ink = "saddlebrown"
    for i in range(chambers):
        angle = i * step
        with nib.area("peachpuff" if i % 2 else "sandybrown"):
            nib.travel_to(from_polar(radius(angle - 360), angle))
            for k in range(13):
                nib.line_to(from_polar(radius(angle + step * k / 12), angle + step * k / 12))
            for k in range(12, -1, -1):
                nib.line_to(from_polar(radius(angle - 360 + step * k / 12), angle + step * k / 12))
            nib.line_to_start()
