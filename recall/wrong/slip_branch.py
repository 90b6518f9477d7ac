from ovlo import drawing


@drawing
def beads(nib, count: int = 12):
    for number in range(count):
        if number > 3:  # wrong (fixed-condition): if number > 8:
            nib.circle(8, fill="gold")
        elif number > 8:  # wrong (fixed-condition): elif number > 3:
            nib.circle(8, fill="crimson")
        else:
            nib.circle(8, fill="teal")
        nib.travel(24)
