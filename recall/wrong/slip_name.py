from ovlo import drawing


def tail(nib, length):
    for size in (6, 9, 12):
        nib.forward(length)
        nib.circle(size, fill="gold")


@drawing
def kite(nib, bows: int = 0):
    nib.polygon(4, side_length=80, fill="tomato")
    nib.left(70)
    tail(nib, 30)
    if bows:
        nib.travel_to(0, -20)
        tail(nib, lenght)  # wrong (unknown-name): tail(nib, 20)
