from ovlo import drawing


def triangle(nib, side):
    for _ in nib.full_turn(3):
        nib.forward(side)


@drawing
def pennants(nib, rows: int = 3):
    for row in range(rows):
        for column in range(5):
            nib.line_to(-250 + 110 * column, 120 - 110 * row)  # wrong (stray-line): nib.travel_to(-250 + 110 * column, 120 - 110 * row)
            triangle(nib, 60)
