from ovlo import drawing


@drawing
def crooked(nib):
    for _ in range(4):
        nib.forward(120)
        nib.left(80)  # wrong (turns-miss-360): nib.left(90)
