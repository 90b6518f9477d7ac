from ovlo import drawing


@drawing
def door(nib):
    with nib.area("saddlebrown"):
        nib.left(90)
        nib.forward(150)
        nib.right(90)
        nib.forward(70)
        nib.right(90)
        nib.forward(130)  # wrong (not-closed): nib.forward(150)
        nib.right(90)
        nib.forward(70)
