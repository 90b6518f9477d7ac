from ovlo import drawing


@drawing
def beads(nib):
    nib.travel_to(-220, 0)
    nib.forward(30)
    for i in range(8):
        nib.circle(9, fill="crimson" if i % 2 else "gold")
        nib.forward(50)
