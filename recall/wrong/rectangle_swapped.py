from ovlo import drawing


@drawing
def pier(nib, long: float = 200, short: float = 60):
    for side in (long, short, short, long):  # wrong (not-closed): for side in (long, short, long, short):
        nib.forward(side)
        nib.left(90)
