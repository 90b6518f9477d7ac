from ovlo import drawing


def ticket(nib, x, y, number):
    nib.rectangle(120, 60, fill="lightyellow")  # wrong (drawn-before-travel): nib.travel_to(x, y); nib.rectangle(120, 60, fill="lightyellow")
    nib.travel_to(x - 45, y)
    nib.star(5, 10, fill="tomato")
    nib.travel_to(x + 15, y)
    nib.text(f"No. {number}", size=18, align="middle", baseline="middle")


@drawing(width=440, height=240)
def tickets(nib):
    for row in range(3):
        for column in range(3):
            ticket(nib, -140 + 140 * column, 72 - 72 * row, 3 * row + column)
