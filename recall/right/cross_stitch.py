from ovlo import drawing


@drawing
def sampler(nib):
    for row in range(6):
        for column in range(10):
            x, y = -180 + 40 * column, -100 + 40 * row
            nib.travel_to(x - 12, y - 12)
            nib.line_by(24, 24)
            nib.travel_by(0, -24)
            nib.line_by(-24, 24)
