from ovlo import drawing


@drawing(width=320, height=400)
def tail(nib, bows=7):
    y = 150
    for bow in range(bows):
        nib.travel_to(0, 150)  # wrong (unused-value, drawn-again): nib.travel_to(0, y)
        nib.ellipse(30, 14, fill="teal" if bow % 2 else "tomato")
        y = y - 45
