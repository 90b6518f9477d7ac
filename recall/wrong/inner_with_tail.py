from ovlo import drawing


@drawing
def kite_with_tail(nib):
    nib.left(45)
    for _ in range(6):
        nib.forward(60)
        nib.left(72)  # wrong (turns-miss-360): nib.left(60)
    nib.turn_to(270)
    for i in range(20):
        nib.forward(3 + i / 4)
        nib.right(11)
