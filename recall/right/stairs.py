from ovlo import drawing


@drawing
def stairs(nib, steps: int = 9):
    nib.travel_to(-150, -120)
    for _ in range(steps):
        nib.forward(32)
        nib.left(90)
        nib.forward(26)
        nib.right(90)
