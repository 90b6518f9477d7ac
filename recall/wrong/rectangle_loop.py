from ovlo import drawing


@drawing
def pool(nib, a: float = 180, b: float = 100):
    nib.travel_to(-90, -50)
    for i in range(4):
        nib.forward(a if i < 2 else b)  # wrong (not-closed): nib.forward(a if i % 2 == 0 else b)
        nib.left(90)
