from ovlo import drawing


@drawing
def bunting_line(nib):
    nib.travel_to(-270, 40)
    nib.right(60)
    for i in range(9):
        nib.forward(60)
        nib.left(120)
        nib.forward(60)
        nib.right(120)
