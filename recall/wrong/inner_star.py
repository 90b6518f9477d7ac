from ovlo import drawing


@drawing(paper="navy")
def star(nib, size: float = 200):
    nib.ink = "gold"
    nib.travel_to(-100, 30)
    for _ in range(5):
        nib.forward(size)
        nib.right(36)  # wrong (turns-miss-360): nib.right(144)
