from ovlo import drawing


@drawing
def zigzag(nib):
    nib.travel_to(-220, 0)
    nib.left(60)
    for _ in range(7):
        nib.forward(60)
        nib.right(120)
        nib.forward(60)
        nib.left(120)
