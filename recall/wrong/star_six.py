from ovlo import drawing


@drawing
def six_points(nib):
    for _ in range(6):
        nib.forward(130)
        nib.left(120)  # wrong (retraced-line): nib.left(60)
