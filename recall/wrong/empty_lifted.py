from ovlo import drawing


@drawing
def pond(nib):
    with nib.area("teal"):
        for _ in range(5):
            nib.travel(70)  # wrong (empty-area): nib.forward(70)
            nib.left(72)
