from ovlo import drawing


@drawing
def again(nib):
    nib.travel_to(-40, 0)
    for _ in nib.full_turn(10, rounds=2):  # wrong (retraced-line): for _ in nib.full_turn(10, rounds=3):
        nib.forward(90)
