from ovlo import drawing


@drawing
def growing(nib):
    for i in range(40):
        for _ in nib.full_turn(4):
            nib.forward(20 + 4 * i)
        nib.left(11)
