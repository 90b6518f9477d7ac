from ovlo import drawing


@drawing
def blocks(nib):
    for _ in range(120):
        nib.forward(14)
        nib.turn_to(nib.dice.pick([0, 90, 180, 270]))
