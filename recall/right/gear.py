from ovlo import drawing


@drawing
def gear(nib):
    nib.travel_to(-20, -120)
    for _ in nib.full_turn(12):
        nib.forward(30)
        nib.right(70)
        nib.forward(20)
        nib.left(70)
        nib.forward(20)
        nib.left(70)
        nib.forward(20)
        nib.right(70)
