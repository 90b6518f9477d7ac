from ovlo import drawing


def rooms(nib, depth, turn):
    if depth == 0:
        return
    nib.left(turn)
    rooms(nib, depth - 1, -turn)
    nib.forward(12)
    nib.right(turn)
    rooms(nib, depth - 1, turn)
    nib.forward(12)
    rooms(nib, depth - 1, turn)
    nib.right(turn)
    nib.forward(12)
    rooms(nib, depth - 1, -turn)
    nib.left(turn)


@drawing
def ploughed_field(nib):
    nib.travel_to(-180, -180)
    rooms(nib, 5, 90)
