from ovlo import drawing, ramp


@drawing
def maypole(nib):
    nib.travel_to(0, 150)
    for angle, colour in zip(range(200, 341, 14), ramp("crimson", "gold", 11), strict=True):
        nib.ink = colour
        nib.turn_to(angle)
        with nib.returning():
            nib.forward(220)
