"""Boards around a post, each a thin rectangle."""

from ovlo import drawing


@drawing(width=480, height=480)
def boards(nib):
    nib.line_width = 1
    for _ in range(15):
        nib.forward(120)
        nib.left(90)
        nib.forward(26)
        nib.left(90)
        nib.forward(112)  # wrong (drift): nib.forward(120)
        nib.left(90)
        nib.forward(26)
        nib.left(90)
        nib.right(24)
