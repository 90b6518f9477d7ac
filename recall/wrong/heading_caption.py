from ovlo import drawing


@drawing
def star_and_caption(nib):
    for _ in range(5):
        nib.forward(100)
        nib.right(144)
    nib.right(30)
    nib.forward(60)
    nib.travel_to(-150, -180)  # wrong (left-over-heading): nib.travel_to(-150, -180); nib.turn_to(0)
    nib.text("a star with a tail")
