from ovlo import drawing


@drawing
def fret(nib):
    nib.travel_to(-250, 0)
    for _ in range(5):
        for length in (60, 40, 30, 20):
            nib.forward(length)
            nib.left(90)
        nib.left(180)
        nib.travel_by(40, 0)
        nib.turn_to(0)
