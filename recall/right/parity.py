from ovlo import drawing


@drawing
def stripes(nib, count: int = 9):
    middle = count // 2
    for i in range(count):
        nib.travel_to(-200, 30 * (i - middle))
        with nib.styled(ink="crimson" if i % 2 else "navy", line_width=12):
            nib.forward(400)
