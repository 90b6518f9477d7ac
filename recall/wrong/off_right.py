from ovlo import drawing


def square(nib, side):
    for _ in nib.full_turn(4):
        nib.forward(side)


@drawing
def row(nib, count: int = 5):
    nib.travel_to(-100, 0)  # wrong (off-sheet): nib.travel_to(-260, 0)
    for _ in range(count):
        square(nib, 80)
        nib.travel(100)
