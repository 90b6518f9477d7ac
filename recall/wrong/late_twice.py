from ovlo import drawing


@drawing
def pair(nib):
    nib.ink = "crimson"  # wrong (unused-style): nib.travel_to(-120, 0); nib.ink = "crimson"; nib.circle(50)
    nib.ink = "teal"
    nib.travel_to(80, 0)
    nib.circle(50)
