from ovlo import drawing


@drawing
def lid(nib):
    for _ in range(6):
        nib.forward(80)
        nib.left(72)  # wrong (retraced-line): nib.left(60)
