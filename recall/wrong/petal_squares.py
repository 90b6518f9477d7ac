from ovlo import drawing


@drawing
def windows(nib):
    nib.ink = "navy"
    for _ in range(17):  # wrong (rosette-misses-360): for _ in range(18):
        for _ in range(4):
            nib.forward(100)
            nib.right(90)
        nib.right(20)
