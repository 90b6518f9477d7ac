from ovlo import drawing


def polygon(nib, sides, length):
    inner = (sides - 2) * 180 / sides
    for _ in range(sides):
        nib.forward(length)
        nib.right(inner)  # wrong (turns-miss-360): nib.right(180 - inner)


@drawing
def shapes(nib):
    nib.travel_to(-60, 140)
    polygon(nib, 5, 80)
