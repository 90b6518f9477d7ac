"""A compass rose for the chart of the bay: long points over short ones, each half dark and half light."""

from typing import Annotated

from ovlo import Span, drawing, from_polar


@drawing(width=480, height=480, paper="#f7f1dd")
def compass_rose(nib, levels: Annotated[int, Span(1, 4)] = 3, waist: Annotated[float, Span(0.1, 0.4)] = 0.22):
    """The finest winds first, the four main ones on top."""
    nib.line_width = 1
    nib.circle(205)
    nib.circle(196)
    for level in reversed(range(levels)):
        count, reach = 4 * 2**level, 190 * 0.78**level
        first = 0 if level == 0 else 360 / count
        for i in range(count if level == 0 else count // 2):
            heading = first + i * (360 / count if level == 0 else 720 / count)
            for side, fill in ((-1, "white"), (1, "navy")):
                with nib.area(fill):
                    nib.travel_to(0, 0)
                    nib.line_to(from_polar(reach, heading))
                    nib.line_to(from_polar(waist * reach, heading + side * 180 / count))
                    nib.line_to_start()
    for name, heading in (("E", 0), ("N", 90), ("W", 180), ("S", 270)):
        nib.travel_to(from_polar(216, heading))
        nib.turn_to(0)
        nib.text(name, size=20, align="middle", baseline="middle")
