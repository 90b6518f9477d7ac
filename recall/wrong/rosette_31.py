from ovlo import drawing


@drawing
def hoops(nib):
    for _ in range(12):
        nib.arc_left(60, 360)
        nib.left(31)  # wrong (rosette-misses-360): nib.left(30)
