from ovlo import drawing


@drawing
def stairs(nib):
    nib.circle(20, fill="gold")
    for width in range(8, 2):  # wrong (empty-range): for width in range(8, 2, -1):
        nib.forward(width * 8)
        nib.left(90)
