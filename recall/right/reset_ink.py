from ovlo import drawing


def flagstaff(nib):
    nib.ink = "sienna"
    nib.left(90)
    nib.forward(120)
    nib.back(120)
    nib.right(90)
    nib.ink = "black"


@drawing
def posts(nib):
    for x in (-100, 0, 100):
        nib.travel_to(x, 0)
        flagstaff(nib)
    nib.travel_to(-150, 0)
    nib.forward(300)
