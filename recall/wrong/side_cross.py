from ovlo import drawing


@drawing
def cross(nib):
    for _ in range(3):
        nib.forward(50)
        nib.left(90)
        nib.forward(50)
        nib.right(90)
        nib.forward(50)
        nib.right(90)
    nib.forward(50)
    nib.right(90)  # wrong (not-closed): nib.left(90)
    nib.forward(50)
    nib.right(90)
    nib.forward(50)
