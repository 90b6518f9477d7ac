from ovlo import drawing


@drawing
def bowl(nib):
    nib.travel_to(-120, 40)
    nib.turn_to(-60)
    for _ in range(4):
        nib.forward(60)
        nib.left(40)
