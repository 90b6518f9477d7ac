from ovlo import drawing


def leaf(nib, size):
    for _ in range(2):
        nib.arc_left(size, 90)
        nib.left(90)
    return  # wrong (unreachable): nib.left(60)
    nib.left(60)  # wrong (unreachable): return


@drawing
def flower(nib, petals: int = 6):
    for _ in range(petals):
        leaf(nib, 60)
