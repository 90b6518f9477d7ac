from ovlo import drawing


@drawing(width=500, height=400, paper="lightcyan")
def boathouse(nib, w: float = 150):
    nib.travel_to(-75, -80)
    with nib.area("burlywood"):
        for _ in nib.full_turn(4):
            nib.forward(w)
    nib.left(90)
    nib.travel(w)
    nib.right(90)
    with nib.area("firebrick"):
        for _ in range(3):
            nib.forward(w)
            nib.left(60)  # wrong (turns-miss-360, not-closed): nib.left(120)
