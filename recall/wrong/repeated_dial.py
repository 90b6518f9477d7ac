from ovlo import drawing


@drawing(width=240, height=240)
def dial(nib):
    nib.circle(100)
    for hour in range(12):
        with nib.returning():
            nib.turn_to(36 * hour)  # wrong (repeated-value): nib.turn_to(30 * hour)
            nib.travel(85)
            nib.forward(12)
