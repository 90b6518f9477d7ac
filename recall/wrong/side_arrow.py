from ovlo import drawing


@drawing
def arrow(nib):
    nib.forward(100)
    nib.right(90)
    nib.forward(30)
    nib.left(135)
    nib.forward(50 * 2**0.5)
    nib.left(90)
    nib.forward(50 * 2**0.5)
    nib.right(135)  # wrong (not-closed): nib.left(135)
    nib.forward(30)
    nib.right(90)
    nib.forward(100)
    nib.left(90)
    nib.forward(40)
