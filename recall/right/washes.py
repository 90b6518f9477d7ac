from ovlo import Colour, drawing


@drawing
def washes(nib):
    mist = "rgb(0 80 160 / 4%)"
    for i in range(20):
        nib.circle(30 + 8 * i, fill=mist, outline=False)
