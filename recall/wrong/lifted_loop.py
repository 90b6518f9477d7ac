from ovlo import drawing


@drawing
def dots_and_square(nib):
    nib.lift()
    for _ in range(4):  # wrong (still-lifted): nib.lower()
    #+ for _ in range(4):
        nib.forward(80)
        nib.left(90)
    nib.lower()
    nib.circle(5)
