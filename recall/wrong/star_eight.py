from ovlo import drawing


@drawing(paper="black")
def compass_rose(nib, points: int = 8):
    nib.ink = "khaki"
    nib.travel_to(-80, -80)
    for _ in nib.full_turn(points, rounds=2):  # wrong (retraced-line): for _ in nib.full_turn(points, rounds=3):
        nib.forward(160)
