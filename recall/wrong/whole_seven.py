from ovlo import drawing


@drawing
def seven(nib):
    nib.travel_to(-40, -100)
    for _ in range(7):
        nib.forward(90)
        nib.left(360 // 7)  # wrong (floor-division, turns-miss-360): nib.left(360 / 7)
