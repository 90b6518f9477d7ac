from ovlo import drawing


@drawing
def maze(nib):
    for i in range(1, 30):
        nib.forward(8 * i)
        nib.left(90)
