from ovlo import drawing, ramp


@drawing(paper="black", width=500, height=500)
def gem(nib):
    for colour in ramp("aqua", "fuchsia", 20):
        nib.ink = colour
        nib.forward(100)
        nib.left(50)
        nib.forward(100)
        nib.left(130)
        nib.forward(100)
        nib.left(50)
        nib.forward(90)  # wrong (drift): nib.forward(100)
        nib.left(130)
        nib.left(18)
