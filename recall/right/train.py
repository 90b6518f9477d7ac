from ovlo import drawing


@drawing
def train(nib):
    nib.travel_to(-260, 0)
    for _ in range(4):
        nib.forward(15)
        for _ in nib.full_turn(4, clockwise=True):
            nib.forward(60)
        nib.forward(75)
