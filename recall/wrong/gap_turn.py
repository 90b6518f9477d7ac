from ovlo import drawing


@drawing
def nearly(nib):
    for _ in range(9):
        nib.forward(60)
        nib.left(39.5)  # wrong (turns-miss-360): nib.left(40)
