from ovlo import drawing

COUNTS = [4, 0, 7, 2, 0, 9]


@drawing
def kites_sold(nib):
    for i, count in enumerate(COUNTS):
        with nib.area("steelblue"):
            nib.travel_to(-150 + 50 * i, -100)
            nib.line_by(30, 0)
            nib.line_by(0, 20 * count)
            nib.line_by(-30, 0)
            nib.line_to_start()
