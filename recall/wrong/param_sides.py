from ovlo import drawing


def polygon(nib, sides, length):
    for _ in range(6):  # wrong (unused-parameter): for _ in range(sides):
        nib.forward(length)
        nib.left(60)  # wrong (unused-parameter): nib.left(360 / sides)


@drawing
def family(nib):
    for i, sides in enumerate((3, 4, 5)):
        nib.travel_to(-200 + 150 * i, 0)
        polygon(nib, sides, 50)
