from ovlo import drawing


@drawing
def tent(nib):
    nib.forward(180)
    nib.left(60)  # wrong (not-closed): nib.left(120)
    nib.forward(180)
    nib.left(120)
    nib.forward(180)
