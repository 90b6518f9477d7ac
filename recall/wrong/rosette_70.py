from ovlo import drawing


@drawing
def propeller(nib):
    for _ in range(5):
        with nib.area("tomato"):
            nib.forward(150)
            nib.left(150)
            nib.forward(80)
            nib.line_to_start()
        nib.right(150)
        nib.left(70)  # wrong (rosette-misses-360): nib.left(72)
