from ovlo import drawing


def bow(nib, size, colour):
    for way in (1, -1):
        with nib.area(colour):
            nib.line_by(way * size, size / 2)
            nib.line_by(0, -size)
            nib.line_by(-way * size, size / 2)


@drawing(width=240, height=420)
def tail(nib, bows=6):
    nib.travel_to(0, 180)
    for i in range(bows):
        nib.line_by(9 if i % 2 else -9, -48)
        bow(nib, 16, "crimson")
