from ovlo import drawing


@drawing
def two_squares(nib):
    for turn in (0, 45):
        nib.polygon(4, radius=90, turn=turn)
