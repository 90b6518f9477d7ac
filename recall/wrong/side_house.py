from ovlo import drawing


@drawing(paper="aliceblue")
def cottage(nib):
    nib.forward(120)
    nib.left(90)
    nib.forward(80)
    nib.left(45)
    nib.forward(60 * 2**0.5)
    nib.right(90)  # wrong (not-closed): nib.left(90)
    nib.forward(60 * 2**0.5)
    nib.left(45)
    nib.forward(80)
