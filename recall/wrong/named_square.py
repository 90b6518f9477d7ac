from ovlo import drawing


def square(nib, side):
    for _ in range(3):  # wrong (named-figure): for _ in range(4):
        nib.forward(side)
        nib.left(90)


@drawing(width=400, height=400)
def whirl(nib):
    for i in range(18):
        square(nib, 30 + 5 * i)
        nib.left(20)
