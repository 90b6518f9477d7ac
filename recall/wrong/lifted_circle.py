from ovlo import drawing


@drawing
def target(nib):
    for radius in (90, 60, 30):
        nib.circle(radius)
        nib.lift()  # wrong (still-lifted): nib.pause(1)
        nib.forward(5)  # wrong (still-lifted): nib.travel(5)
