from ovlo import drawing


@drawing
def double(nib):
    for _ in nib.full_turn(17, rounds=2):
        nib.arc_left(70, 360)
