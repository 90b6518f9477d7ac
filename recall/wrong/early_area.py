from ovlo import drawing


@drawing
def pennant(nib):
    with nib.area("gold"):
        nib.forward(120)
        nib.left(120)
        nib.forward(120)
    nib.left(120)  # wrong (area-cut-short, empty-area):     nib.left(120)
    nib.forward(120)  # wrong (area-cut-short, empty-area):     nib.forward(120)
