from ovlo import drawing


@drawing
def board(nib):
    for row in range(8):
        for column in range(8):
            nib.travel_to(50 * column - 175, 50 * row - 175)
            nib.rectangle(50, 50, fill="black" if (row + column) % 2 == 0 else "white", outline=False)
