from ovlo import drawing


@drawing
def hoop(nib):
    nib.travel_to(0, -80)
    for _ in range(35):
        nib.forward(14)
        nib.left(10)  # wrong (turns-miss-360, not-closed): nib.left(360 / 35)
