from ovlo import drawing


@drawing
def nut(nib, sides: int = 8, side: float = 50):
    angle = 360 / 6  # wrong (retraced-line, turns-miss-360): angle = 360 / sides
    for _ in range(sides):
        nib.forward(side)
        nib.left(angle)
