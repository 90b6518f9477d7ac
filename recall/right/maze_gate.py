from ovlo import drawing


@drawing
def fold(nib):
    nib.travel_to(-80, -60)
    for side in (160, 120, 160, 90):
        nib.forward(side)
        nib.left(90)
