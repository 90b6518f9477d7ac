from ovlo import drawing


@drawing
def rainbow(nib):
    for i, colour in enumerate(["red", "orange", "gold", "green", "blue"]):
        #+ nib.ink = colour
        nib.circle(40 + 15 * i)
        nib.ink = colour  # wrong (unused-style): nib.pause(1)
