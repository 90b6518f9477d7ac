from ovlo import drawing


@drawing
def fan(nib):
    for _ in range(10):
        with nib.returning():
            nib.arc_left(120, 40)
            nib.left(140)
            nib.arc_left(120, 40)
        nib.left(18)
