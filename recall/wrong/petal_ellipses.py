from ovlo import drawing


@drawing(width=420, height=420)
def atom(nib):
    for k in range(5):  # wrong (rosette-misses-360): for k in range(6):
        nib.ellipse(320, 90)
        nib.left(30)
