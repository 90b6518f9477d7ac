from ovlo import drawing


@drawing
def trefoil_ish(nib):
    for _ in range(3):
        nib.arc_left(80, 240)
        nib.arc_right(40, 120)
