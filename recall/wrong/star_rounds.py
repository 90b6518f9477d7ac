from ovlo import drawing


@drawing
def burst(nib):
    nib.travel_to(-70, 0)
    for _ in nib.full_turn(12, rounds=4):  # wrong (retraced-line): for _ in nib.full_turn(12, rounds=5):
        nib.forward(140)
