from ovlo import drawing


@drawing
def shed(nib):
    nib.travel_to(-60, -60)
    with nib.area("tan"):
        nib.forward(120)
        nib.left(90)
        nib.forward(90)
        nib.left(90)
        nib.forward(120)
    nib.left(90)  # wrong (area-cut-short):     nib.left(90)
    nib.forward(90)  # wrong (area-cut-short):     nib.forward(90)
