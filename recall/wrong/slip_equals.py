from ovlo import drawing


@drawing
def buoy(nib, radius: float = 40):
    nib.ink == "crimson"  # wrong (no-effect): nib.ink = "crimson"
    nib.circle(radius, fill="orange")
    nib.left(90)
    nib.forward(2 * radius)
