from ovlo import drawing


@drawing(width=100, height=80, unit="mm")
def card(nib):
    nib.travel_to(-150, -100)  # wrong (off-sheet): nib.travel_to(-40, -30)
    for _ in nib.full_turn(4):
        nib.forward(60)
