from ovlo import drawing


@drawing(width=480, height=320)
def deck(nib, plank=40, rows=5):
    nib.travel_to(-200, -110)
    nib.rectangle(10 * plank, 40 * rows, anchor="corner")  # wrong (number-for-name): nib.rectangle(10 * plank, plank * rows, anchor="corner")
    for row in range(rows):
        nib.travel_to(-200, -110 + plank * row)
        nib.rectangle(10 * plank, plank, anchor="corner", fill="burlywood")
