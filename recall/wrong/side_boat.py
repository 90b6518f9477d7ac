from ovlo import drawing


@drawing
def hull(nib):
    nib.travel_to(-80, -40)
    for distance, turn in [(160, 60), (60, 60), (60, 0), (100, 0), (60, 60), (60, 60)]:
        nib.forward(distance)
        nib.left(turn)
    nib.line_to(-77, -44)  # wrong (not-closed): nib.line_to_start()
