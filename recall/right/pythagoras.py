from ovlo import drawing


def square_tree(nib, side, depth):
    if depth == 0:
        return
    with nib.returning():
        for _ in nib.full_turn(4):
            nib.forward(side)
    with nib.returning():
        nib.left(90)
        nib.travel(side)
        nib.right(45)
        square_tree(nib, side / 2**0.5, depth - 1)
        nib.travel(side / 2**0.5)
        nib.right(90)
        square_tree(nib, side / 2**0.5, depth - 1)


@drawing
def squares(nib):
    nib.travel_to(-40, -160)
    square_tree(nib, 80, 7)
