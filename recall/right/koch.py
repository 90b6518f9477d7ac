from ovlo import drawing


def coast(nib, length, depth):
    if depth == 0:
        nib.forward(length)
        return
    for turn in (60, -120, 60, 0):
        coast(nib, length / 3, depth - 1)
        nib.left(turn)


@drawing
def island(nib):
    nib.travel_to(-130, 80)
    for _ in range(3):
        coast(nib, 260, 3)
        nib.right(120)
