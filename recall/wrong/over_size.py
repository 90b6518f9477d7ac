from ovlo import drawing


@drawing
def reel(nib):
    size = 40  # wrong (overwritten-value): nib.pause(1)
    size = 5
    for _ in range(60):
        nib.forward(size)
        nib.left(20)
        size += 0.5
