from ovlo import drawing


def kite(nib, size):  # wrong (unused-parameter): def kite(nib, size=None):
    for _ in nib.full_turn(4):
        nib.forward(60)  # wrong (unused-parameter): nib.forward(size)


@drawing
def kites(nib):
    for size in (30, 60, 90):
        kite(nib, size)
