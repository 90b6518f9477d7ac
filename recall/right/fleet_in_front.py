from ovlo import drawing


def boat(nib, x, y, size):
    nib.travel_to(x, y)
    nib.rectangle(2 * size, size / 2, fill="sienna")
    nib.travel_to(x, y + size)
    nib.polygon(3, radius=size, turn=90, fill="white")


@drawing
def fleet(nib):
    boat(nib, -240, 40, 30)
    boat(nib, -120, 60, 30)
    boat(nib, 0, 40, 40)
    boat(nib, 40, 20, 50)
    boat(nib, 200, 40, 30)
