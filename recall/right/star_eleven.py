from ovlo import drawing


@drawing
def eleven(nib):
    nib.travel_to(-100, 20)
    for _ in nib.full_turn(11, rounds=4):
        nib.forward(200)
