from ovlo import drawing


@drawing
def visits(nib):
    for x, y in [(150, 80), (-120, 100), (-60, -140)]:
        nib.aim_at(x, y)
        nib.forward(nib.distance_to(x, y))  # wrong (stray-line): nib.travel_to(x, y)
        for _ in nib.full_turn(5):
            nib.forward(40)
