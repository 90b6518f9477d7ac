from ovlo import drawing

@drawing(width=640, height=480, paper="white")
def triangle(nib, side=120):
    """A triangle, and a sail beside it."""
    for _ in range(3):
        nib.forward(side)
        nib.left(60)
    nib.travel_to(-100, -100)
    with nib.area("white", outline=False):
        for _ in nib.full_turn(3):
            nib.forward(100)
