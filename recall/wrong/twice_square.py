from ovlo import drawing


@drawing
def frame(nib):
    for _ in range(5):  # wrong (retraced-line): for _ in range(4):
        nib.forward(120)
        nib.left(90)
