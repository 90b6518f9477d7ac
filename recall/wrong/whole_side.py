from ovlo import drawing


@drawing
def comb(nib, teeth: int = 7):
    gap = 100 // teeth  # wrong (floor-division): gap = 100 / teeth
    nib.travel_to(-50, 0)
    with nib.returning():
        nib.forward(100)
    nib.left(90)
    for _ in range(teeth + 1):
        nib.forward(40)
        nib.back(40)
        nib.right(90)
        nib.travel(gap)
        nib.left(90)
