from ovlo import drawing


@drawing
def axis(nib):
    nib.travel_to(-200, -150)
    nib.forward(400)
    nib.travel_to(-200, -150)
    nib.left(90)
    nib.forward(300)
    nib.travel_to(-220, 0)
    nib.text("height", align="middle")
    nib.turn_to(0)
    nib.travel_to(0, -180)
    nib.text("time", align="middle")
