from ovlo import drawing


@drawing
def pinwheel(nib):
    for i in range(8):
        with nib.area("crimson" if i % 2 else "white"):
            nib.forward(150)
            nib.left(135)
            nib.forward(75 * 2**0.5)
            nib.line_to_start()
        nib.turn_to(45 * (i + 1))
