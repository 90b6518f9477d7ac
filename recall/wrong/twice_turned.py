from ovlo import drawing


@drawing
def wheel(nib, spokes=9):
    for _ in nib.full_turn(spokes):
        with nib.returning():
            nib.travel(30)
            nib.ellipse(80, 24)
        nib.left(360 / spokes)  # wrong (turned-twice): pass
