from ovlo import drawing


@drawing
def lens(nib):
    with nib.area("lightcoral"):
        nib.arc_left(100, 90)
        nib.left(90)
        nib.arc_left(100, 90)
