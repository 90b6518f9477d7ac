from ovlo import drawing


@drawing(width=300, height=300)
def shell(nib):
    for i in range(90):
        nib.forward(i)  # wrong (off-sheet): nib.forward(i / 3)
        nib.left(15)
