from ovlo import drawing


def bow(nib):
    nib.circle(8, fill="gold")


def bow(nib):  # wrong (defined-twice): def flag(nib):
    nib.polygon(3, side_length=16, fill="crimson")


@drawing
def line_of_bows(nib, count: int = 6):
    for number in range(count):
        nib.travel_to(40 * number - 100, 0)
        bow(nib)
        nib.travel_to(40 * number - 100, 50)
        bow(nib)  # wrong (defined-twice): flag(nib)
