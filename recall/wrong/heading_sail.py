from ovlo import drawing


@drawing
def wreck(nib):
    nib.travel_to(-200, 0)
    nib.left(20)
    nib.forward(120)
    nib.travel_to(100, -50)  # wrong (left-over-heading): nib.travel_to(100, -50); nib.turn_to(0)
    nib.rectangle(120, 60, fill="peru")
