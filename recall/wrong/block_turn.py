from ovlo import drawing


@drawing
def lonely_side(nib):
    nib.full_turn(6)  # wrong (not-entered): nib.left(60)
    nib.forward(90)
