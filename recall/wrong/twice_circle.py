from ovlo import drawing


@drawing
def coin(nib):
    for _ in range(8):
        nib.arc_left(70, 60)  # wrong (retraced-line): nib.arc_left(70, 45)
