from ovlo import drawing


@drawing(paper="black")
def town(nib):
    for x in range(-280, 281, 80):
        nib.travel_to(x, -120)
        nib.rectangle(70, 160, fill="#202020")
        for row in range(4):
            for column in (-20, 0, 20):
                nib.travel_to(x + column, -180 + 40 * row)
                lit = nib.dice.chance(0.6)
                nib.rectangle(10, 16, fill="gold" if lit else "#202020", outline=False)
