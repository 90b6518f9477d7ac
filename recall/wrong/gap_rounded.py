from ovlo import drawing


@drawing
def trapezium(nib):
    nib.forward(160)
    nib.left(110)
    nib.forward(80)
    nib.left(70)
    nib.forward(160 - 2 * 80 * 0.34)
    nib.left(70)
    nib.forward(78)  # wrong (not-closed): nib.line_to_start()
