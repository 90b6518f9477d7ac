from ovlo import drawing


@drawing
def spring(nib):
    nib.travel_to(-200, -20)
    for _ in range(14):
        nib.arc_left(30, 360)
        nib.forward(28)
