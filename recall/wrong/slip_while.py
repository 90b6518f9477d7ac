from ovlo import drawing


@drawing
def gusts(nib):
    length = 10
    while length < 120:  # wrong (endless-loop): for length in range(10, 120, 10):
        nib.forward(length)
        nib.left(40)
