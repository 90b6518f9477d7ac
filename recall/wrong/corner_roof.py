from ovlo import drawing


@drawing
def boathouse(nib, side=140):
    nib.travel_to(-70, -100)
    for _ in range(4):
        nib.forward(side)
        nib.left(90)
    nib.travel_to(-70, 40)
    nib.left(30)  # wrong (misses-corner): nib.left(60)
    nib.forward(side)
    nib.right(120)
    nib.forward(side)
