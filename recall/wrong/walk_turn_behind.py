from ovlo import drawing


@drawing(width=320, height=240)
def square(nib):
    nib.travel_to(-130, -40)
    for _ in range(4):
        nib.forward(60)
    nib.left(90)  # wrong (turn-outside-loop):     nib.left(90)
