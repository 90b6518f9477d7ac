from ovlo import drawing


@drawing
def drunken_gull(nib):
    for _ in range(300):
        nib.forward(6)
        nib.left(nib.dice.number(-60, 60))
