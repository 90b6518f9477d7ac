from ovlo import drawing


@drawing
def anchor_chain(nib):
    nib.travel_to(-200, 0)
    for _ in range(9):
        nib.arc_left(20, 360)
        nib.forward(42)
