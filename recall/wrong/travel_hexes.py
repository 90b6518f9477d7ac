from ovlo import drawing


@drawing
def hexes(nib):
    for row in range(3):
        for column in range(4):
            for _ in nib.full_turn(6):
                nib.forward(30)
            nib.line_by(90, 0)  # wrong (stray-line): nib.travel_by(90, 0)
        nib.travel_by(-360, 80)
