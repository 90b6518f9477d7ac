from ovlo import drawing


@drawing(paper="#0b1026")
def hotel(nib):
    nib.travel_to(0, -40)
    nib.rectangle(240, 300, fill="#131a3a", outline=False)
    for row in range(6):
        for column in range(5):
            nib.travel_to(-90 + 45 * column, -160 + 48 * row)
            lit = (row * 7 + column * 3) % 4 == 0
            nib.rectangle(24, 30, fill="gold" if lit else "#1b2450", outline=False)
