from ovlo import drawing


def box(nib, side):
    for _ in range(4):
        nib.forward(side)
        nib.left(90)


@drawing(paper="lightyellow")
def boxes(nib):
    for _ in range(12):
        nib.line_to(nib.dice.point(60))  # wrong (stray-line): nib.travel_to(nib.dice.point(60))
        box(nib, 40)
