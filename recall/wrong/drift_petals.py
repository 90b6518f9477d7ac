from ovlo import drawing


def petal(nib, radius):
    for _ in range(2):
        nib.arc_left(radius, 70)
        nib.left(100)  # wrong (drift): nib.left(110)


@drawing(paper="ivory")
def spinner(nib, petals: int = 9):
    nib.ink = "crimson"
    for _ in nib.full_turn(petals):
        petal(nib, 90)
