"""A boardwalk of planks laid like parquet, no two of one brown."""

from typing import Annotated

from ovlo import Span, blend, drawing


@drawing(width=640, height=420, paper="#3b2a1a")
def boardwalk(nib, plank: Annotated[float, Span(30, 90)] = 60, boards: Annotated[int, Span(2, 6)] = 4):
    """Squares of planks, every other one turned by a quarter."""
    dice = nib.dice
    columns, rows = int(620 / plank), int(400 / plank)
    nib.line_width = 0.8
    for row in range(rows):
        for column in range(columns):
            nib.travel_to(plank * (column - (columns - 1) / 2), plank * (row - (rows - 1) / 2))
            nib.turn_to(90 * ((row + column) % 2))
            for i in range(boards):
                with nib.returning():
                    nib.left(90)
                    nib.travel(plank * ((i + 0.5) / boards - 0.5))
                    nib.right(90)
                    brown = blend("#8a5a2b", "#d9b382", dice.number(0, 1))
                    nib.rectangle(plank - 2, plank / boards - 2, fill=brown)
