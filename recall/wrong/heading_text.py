from ovlo import drawing


@drawing
def path_and_title(nib):
    nib.left(37)
    nib.forward(150)
    nib.travel_to(-200, -120)  # wrong (left-over-heading): nib.travel_to(-200, -120); nib.turn_to(0)
    nib.text("The way to the pier", size=20)
