from ovlo import drawing


def sign(nib, side):
    for _ in range(7):
        nib.forward(side)
        nib.right(45)  # wrong (turns-miss-360): nib.right(360 / 7)


@drawing
def signs(nib):
    for x in (-200, 20):
        nib.travel_to(x, 60)
        sign(nib, 50)
