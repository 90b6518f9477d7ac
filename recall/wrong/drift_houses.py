from ovlo import drawing


def hut(nib, size):
    for _ in range(4):
        nib.forward(size)
        nib.left(90)
    nib.left(90)
    nib.forward(size)
    nib.right(30)
    nib.forward(size)
    nib.right(120)
    nib.forward(size)
    nib.right(30)
    nib.forward(size * 0.9)  # wrong (drift): nib.forward(size)
    nib.right(90)
    nib.forward(size)
    nib.left(180)


@drawing
def huts_round_the_pond(nib):
    for _ in nib.full_turn(7):
        hut(nib, 70)
