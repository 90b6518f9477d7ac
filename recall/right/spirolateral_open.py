from ovlo import drawing


@drawing
def border(nib):
    nib.travel_to(-200, 60)
    for _ in range(5):
        for i in range(1, 5):
            nib.forward(14 * i)
            nib.left(90)
        nib.travel_by(20, 0)
