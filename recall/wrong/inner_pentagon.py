from ovlo import drawing


@drawing
def badge(nib):
    nib.ink = "purple"
    for _ in range(5):
        nib.forward(100)
        nib.left(108)  # wrong (turns-miss-360): nib.left(72)
