from ovlo import drawing


@drawing
def rings(nib):
    for i in range(4):
        for i in range(6):  # wrong (same-loop-name): for side in range(6):
            nib.forward(20)
            nib.left(60)
        nib.travel(20 * i + 20)
