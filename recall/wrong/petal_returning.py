from ovlo import drawing


def blade(nib):
    nib.arc_left(80, 60)
    nib.left(120)
    nib.arc_left(80, 60)


@drawing
def wheel(nib):
    for _ in range(9):  # wrong (rosette-misses-360): for _ in range(10):
        with nib.returning():
            blade(nib)
        nib.left(36)
