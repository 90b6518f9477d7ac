from ovlo import drawing


@drawing(width=360, height=240)
def flag(nib):
    for i in range(8):
        nib.travel_to(0, 84 - 24 * i)
        nib.rectangle(300, 24, fill="navy" if i / 2 == 0 else "white")  # wrong (quotient-for-remainder): nib.rectangle(300, 24, fill="navy" if i % 2 == 0 else "white")
