from ovlo import drawing


@drawing
def flag(nib):
    nib.travel_to(-60, -30)
    with nib.area("seagreen"):
        for _ in range(2):
            nib.forward(140)
            nib.left(90)
            break  # wrong (area-cut-short, empty-area): nib.forward(80); nib.left(90)
    for side in (80, 140, 80):  # wrong (area-cut-short, empty-area): for side in ():
        nib.forward(side)
        nib.left(90)
