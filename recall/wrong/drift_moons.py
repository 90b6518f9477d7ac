from ovlo import drawing


@drawing(width=500, height=500)
def moons(nib):
    for _ in range(8):
        nib.arc_left(70, 180)
        nib.left(150)  # wrong (drift): nib.left(135)
        nib.arc_right(70 * 2**0.5, 90)
        nib.left(135)
        nib.left(45)
