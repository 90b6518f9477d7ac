from ovlo import drawing


def tree(nib, length):
    if length < 8:
        return
    nib.forward(length)
    for turn in (25, -25):
        with nib.returning():
            nib.left(turn)
            tree(nib, length)  # wrong (infinite-recursion): tree(nib, length * 0.6)


@drawing
def elm(nib):
    nib.left(90)
    tree(nib, 80)
