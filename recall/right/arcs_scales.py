from ovlo import drawing


@drawing(paper="powderblue")
def scales(nib):
    for row in range(6):
        for column in range(8):
            nib.travel_to(-240 + 60 * column + 30 * (row % 2), 120 - 40 * row)
            with nib.returning():
                nib.turn_to(270)
                nib.arc_left(30, 180)
