from ovlo import drawing


def star(nib, points, skip, size):
    for _ in range(points):
        nib.forward(size)
        nib.right(360 * skip / points)


@drawing
def nine(nib):
    nib.travel_to(-80, 40)
    star(nib, 9, 3, 180)  # wrong (retraced-line): star(nib, 9, 4, 180)
