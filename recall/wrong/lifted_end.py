from ovlo import drawing


@drawing
def hull(nib):
    nib.lift()
    nib.line_to(-100, -40)
    for side, turn in [(200, 120), (110, 60), (90, 60), (110, 120)]:  # wrong (still-lifted): nib.lower()
    #+ for side, turn in [(200, 120), (110, 60), (90, 60), (110, 120)]:
        nib.forward(side)
        nib.left(turn)
