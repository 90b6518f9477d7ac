from ovlo import drawing


@drawing(width=300, height=300)
def spokes(nib):
    for _ in range(7):  # wrong (rosette-misses-360): for _ in range(8):
        nib.forward(100)
        nib.back(100)
        nib.left(45)
