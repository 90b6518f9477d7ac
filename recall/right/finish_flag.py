from ovlo import drawing


@drawing
def finish(nib):
    nib.travel_to(-150, -140)
    nib.left(90)
    nib.forward(280)
    for row in range(4):
        for column in range(6):
            with nib.area("black" if (row + column) % 2 else "white", outline=False):
                nib.travel_to(-148 + 30 * column, 138 - 30 * row)
                nib.line_by(30, 0)
                nib.line_by(0, -30)
                nib.line_by(-30, 0)
                nib.line_to_start()
