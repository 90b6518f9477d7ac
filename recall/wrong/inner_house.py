from ovlo import drawing


def house(nib, size):
    for _ in range(4):
        nib.forward(size)
        nib.left(90)
    nib.left(90)
    nib.forward(size)
    nib.right(90)
    for _ in range(3):
        nib.forward(size)
        nib.left(60)  # wrong (turns-miss-360): nib.left(120)


@drawing
def street(nib):
    nib.travel_to(-200, -80)
    for _ in range(3):
        with nib.returning():
            house(nib, 90)
        nib.travel(140)
