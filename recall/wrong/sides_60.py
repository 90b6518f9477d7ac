from ovlo import drawing


@drawing
def tile(nib):
    for _ in range(5):  # wrong (turns-miss-360): for _ in range(6):
        nib.forward(80)
        nib.left(60)
