from ovlo import drawing


@drawing(width=400, height=400)
def reel(nib):
    for i in range(120):
        nib.forward(8 + i)  # wrong (off-sheet): nib.forward(4 + i / 4)
        nib.left(27)
