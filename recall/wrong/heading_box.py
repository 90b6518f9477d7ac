from ovlo import drawing


@drawing
def swirl_and_frame(nib):
    for i in range(50):
        nib.forward(i / 2)
        nib.left(17)
    nib.right(17)
    nib.travel_to(0, 0)  # wrong (left-over-heading): nib.travel_to(0, 0); nib.turn_to(0)
    nib.rectangle(300, 200)
