from ovlo import drawing


def star(nib, points, size):
    for _ in range(points):
        nib.forward(size)
        nib.right(720 / points)


@drawing(paper="midnightblue")
def sky(nib):
    nib.ink = "gold"
    for x, points in ((-220, 5), (-60, 7), (110, 8)):  # wrong (retraced-line): for x, points in ((-220, 5), (-60, 7), (110, 9)):
        nib.travel_to(x, 40)
        star(nib, points, 80)
