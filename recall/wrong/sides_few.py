from ovlo import drawing


@drawing
def kite_frame(nib):
    with nib.area("khaki"):
        for _ in range(7):  # wrong (turns-miss-360): for _ in range(8):
            nib.forward(60)
            nib.left(45)
