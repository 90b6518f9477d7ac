from ovlo import drawing


@drawing
def buoys(nib):
    nib.travel_to(-220, 0)
    for i in range(5):
        nib.polygon(6, radius=30)
        nib.forward(110)  # wrong (stray-line): nib.travel(110)
