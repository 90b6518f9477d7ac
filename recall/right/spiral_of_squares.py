from ovlo import drawing


@drawing
def shell(nib):
    side = 6.0
    while side < 140:
        for _ in nib.full_turn(4):
            nib.forward(side)
        nib.left(13)
        side *= 1.05
