from ovlo import drawing


@drawing
def bean(nib):
    nib.arc_left(60, 180)
    nib.arc_left(30, 180)
    nib.arc_right(28, 180)  # wrong (not-closed): nib.arc_right(30, 180)
