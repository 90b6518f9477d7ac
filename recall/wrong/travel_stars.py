from ovlo import drawing


@drawing(paper="#101830")
def night(nib):
    nib.ink = "white"
    for x in range(-250, 251, 125):
        for _ in nib.full_turn(5, rounds=2):
            nib.forward(60)
        nib.line_to(x + 40, 80 - abs(x) / 2)  # wrong (stray-line): nib.travel_to(x + 40, 80 - abs(x) / 2)
