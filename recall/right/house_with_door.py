from ovlo import drawing


@drawing
def house(nib):
    nib.travel_to(20, -80)
    for side in (60, 120, 160, 120, 60):
        nib.forward(side)
        nib.left(90)
