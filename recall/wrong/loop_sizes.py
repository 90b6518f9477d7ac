from ovlo import drawing


def kite(nib, size):
    nib.polygon(4, radius=size, turn=45)


@drawing
def nested(nib):
    for size in range(20, 120, 20):
        kite(nib, 20)  # wrong (unused-loop-value): kite(nib, size)
