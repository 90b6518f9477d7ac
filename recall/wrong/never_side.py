from ovlo import drawing


def oar(nib, side):
    if side == "Left":  # wrong (fixed-condition): if side == "left":
        nib.turn_to(150)
    else:
        nib.turn_to(30)
    nib.forward(90)


@drawing(width=320, height=240)
def boat(nib):
    oar(nib, "left")
    nib.travel_to(0, 0)
    oar(nib, "right")
