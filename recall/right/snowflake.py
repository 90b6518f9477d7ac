from ovlo import drawing


def arm(nib, length, depth):
    if depth == 0:
        return
    nib.forward(length)
    for turn in (60, -60):
        with nib.returning():
            nib.left(turn)
            arm(nib, length / 2, depth - 1)
    arm(nib, length / 1.6, depth - 1)


@drawing(paper="darkslateblue")
def flake(nib):
    nib.ink = "white"
    for _ in nib.full_turn(6):
        with nib.returning():
            arm(nib, 70, 4)
