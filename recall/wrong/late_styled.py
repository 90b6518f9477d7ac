from ovlo import drawing


@drawing
def dashes(nib):
    with nib.styled(ink="tomato", line_dash=(6, 4)):
        nib.left(30)  # wrong (unused-style): nib.left(30); nib.forward(150)
    nib.back(150)
