from ovlo import drawing


@drawing
def tiles(nib):
    for row in range(5):
        for column in range(6):
            nib.travel_to(-180 + 60 * column + 30 * (row % 2), 104 - 52 * row)
            for _ in nib.full_turn(6):
                nib.forward(30)
