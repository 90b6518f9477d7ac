from ovlo import drawing


@drawing
def olympic_kites(nib):
    for i in range(5):
        nib.travel_to(-160 + 80 * i, 20 if i % 2 == 0 else -20)
        nib.circle(50)
