from ovlo import drawing


def tree(nib, length):
    if length < 6:
        return
    nib.line_width = length / 10
    nib.forward(length)
    nib.left(25)
    tree(nib, length * 0.7)
    nib.right(55)
    tree(nib, length * 0.65)
    nib.left(30)
    nib.back(length)


@drawing
def elm(nib):
    nib.travel_to(0, -200)
    nib.turn_to(90)
    tree(nib, 110)
