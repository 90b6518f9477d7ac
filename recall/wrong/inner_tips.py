from ovlo import drawing


def coast(nib, length, depth):
    if depth == 0:
        nib.forward(length)
        return
    coast(nib, length / 3, depth - 1)
    nib.left(60)
    coast(nib, length / 3, depth - 1)
    nib.right(60)  # wrong (turns-miss-360, not-closed): nib.right(120)
    coast(nib, length / 3, depth - 1)
    nib.left(60)
    coast(nib, length / 3, depth - 1)


@drawing
def frozen_lake(nib):
    nib.travel_to(-120, 70)
    for _ in range(3):
        coast(nib, 180, 2)
        nib.right(120)
