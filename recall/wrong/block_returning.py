from ovlo import drawing


@drawing
def twig(nib):
    nib.left(90)
    for turn in (-30, 30):
        nib.returning()  # wrong (not-entered): nib.turn_to(90)
        nib.left(turn)
        nib.forward(60)
