from ovlo import drawing


def coast(nib, length, depth):
    if depth == 0:
        nib.forward(length)
        return
    for turn in (60, -120, 60, 0):
        coast(nib, length, depth)  # wrong (infinite-recursion): coast(nib, length / 3, depth - 1)
        nib.left(turn)


@drawing
def shore(nib):
    nib.travel_to(-200, 0)
    coast(nib, 400, 3)
