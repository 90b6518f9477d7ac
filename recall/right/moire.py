from ovlo import drawing


@drawing
def moire(nib):
    for _ in range(20):
        with nib.returning():
            nib.travel(40)
            nib.circle(100)
        nib.left(37)
