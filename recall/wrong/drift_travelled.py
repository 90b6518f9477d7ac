from ovlo import drawing


@drawing
def merry_go_round(nib):
    for _ in nib.full_turn(8):
        nib.travel(150)
        nib.polygon(5, radius=30)
        nib.travel(-130)  # wrong (drift): nib.travel(-150)
