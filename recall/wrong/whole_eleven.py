from ovlo import drawing


@drawing
def eleven(nib, sides: int = 11):
    turn = 360 // sides  # wrong (floor-division, turns-miss-360): turn = 360 / sides
    nib.travel_to(-25, -100)
    for _ in range(sides):
        nib.forward(50)
        nib.left(turn)
