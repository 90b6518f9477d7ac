from ovlo import drawing


@drawing(width=520, height=200)
def buoys(nib):
    for number in range(9):
        nib.travel_to(-200 + 50 * number, 0)
        nib.circle(14 if number != 5 else 11, fill="tomato")  # wrong (odd-one-out): nib.circle(14, fill="tomato")
        nib.travel_by(0, -14)
        nib.line_by(0, -30)
