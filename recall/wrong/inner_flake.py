from ovlo import drawing


def coast(nib, length, depth):
    if depth == 0:
        nib.forward(length)
        return
    coast(nib, length / 3, depth - 1)
    nib.left(60)
    coast(nib, length / 3, depth - 1)
    nib.right(120)
    coast(nib, length / 3, depth - 1)
    nib.left(60)
    coast(nib, length / 3, depth - 1)


@drawing
def island(nib, depth: int = 2):
    nib.travel_to(-100, 60)
    for _ in range(3):
        coast(nib, 200, depth)
        nib.right(60)  # wrong (turns-miss-360): nib.right(120)
