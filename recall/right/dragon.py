from ovlo import drawing


def fold(nib, depth, turn):
    if depth == 0:
        nib.forward(5)
        return
    fold(nib, depth - 1, 90)
    nib.left(turn)
    fold(nib, depth - 1, -90)


@drawing
def sea_serpent(nib):
    nib.ink = "teal"
    fold(nib, 10, 90)
