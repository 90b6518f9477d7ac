from ovlo import drawing


def triangle(nib, side, depth):
    if depth == 0:
        for _ in range(3):
            nib.forward(side)
            nib.left(120)
        return
    for _ in range(3):
        triangle(nib, side / 2, depth - 1)
        nib.travel(side)
        nib.left(120)


@drawing
def sail_of_sails(nib):
    nib.travel_to(-200, -180)
    triangle(nib, 400, 4)
