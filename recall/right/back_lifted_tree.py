from ovlo import drawing


def branch(nib, length):
    if length < 6:
        return
    nib.line_width = length / 10
    nib.forward(length)
    nib.left(28)
    branch(nib, length * 0.7)
    nib.right(56)
    branch(nib, length * 0.7)
    nib.left(28)
    nib.lift()
    nib.back(length)
    nib.lower()


@drawing(width=480, height=420)
def driftwood(nib):
    nib.travel_to(0, -190)
    nib.turn_to(90)
    branch(nib, 110)
