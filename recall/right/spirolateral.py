from ovlo import drawing


@drawing
def weave(nib):
    for _ in range(4):
        for i in range(1, 8):
            nib.forward(18 * i)
            nib.right(90)
