from ovlo import drawing


@drawing
def lanterns(nib):
    nib.travel_to(-220, 60)
    nib.right(12)
    for _ in range(6):
        nib.forward(45)
        nib.right(90)
        nib.arc_left(14, 360)
        nib.left(90)
    nib.forward(45)
