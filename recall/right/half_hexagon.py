from ovlo import drawing


@drawing
def roof(nib):
    nib.travel_to(-100, -40)
    nib.turn_to(60)
    for _ in range(3):
        nib.forward(100)
        nib.right(60)
