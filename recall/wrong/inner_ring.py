from ovlo import drawing


def hexagon(nib, side):
    for _ in range(5):
        nib.forward(side)
        nib.right(108)  # wrong (turns-miss-360): nib.right(72)


@drawing
def ring_of_pentagons(nib):
    for i in range(6):
        nib.travel_to(0, 0)
        nib.turn_to(60 * i)
        nib.travel(120)
        hexagon(nib, 40)
