from ovlo import drawing


def mast(nib):
    nib.left(90)
    nib.forward(160)
    nib.back(160)
    nib.right(90)


@drawing
def boat(nib):
    with nib.area("sienna"):
        nib.travel_to(-80, -40)
        nib.line_to(80, -40)
        nib.line_to(50, -80)
        nib.line_to(-50, -80)
        nib.line_to_start()
    nib.travel_to(0, -40)
    mast  # wrong (not-called): mast(nib)
