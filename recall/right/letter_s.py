from ovlo import drawing


@drawing
def s(nib):
    nib.line_width = 8
    nib.forward(50)
    nib.left(90)
    nib.forward(50)
    nib.left(90)
    nib.forward(50)
    nib.right(90)
    nib.forward(50)
    nib.right(90)
    nib.forward(50)
