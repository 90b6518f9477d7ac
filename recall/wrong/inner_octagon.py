from ovlo import drawing


@drawing
def stop_sign(nib):
    nib.travel_to(-40, -100)
    for corner in range(6):
        nib.forward(90)
        nib.left(120)  # wrong (retraced-line): nib.left(60)
