from ovlo import drawing


def wing(nib, size, side):
    nib.turn_to(90)
    if side == "left":
        nib.arc_left(size, 70)
    else:
        nib.arc_right(size, 70)


@drawing(width=320, height=240)
def gull(nib):
    nib.travel_to(0, -20)
    wing(nib, 60, "left")
    nib.travel_to(0, -20)
    wing(nib, 60, "left")  # wrong (drawn-again): wing(nib, 60, "right")
