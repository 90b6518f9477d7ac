from ovlo import drawing


@drawing(width=560, height=240, paper="seashell")
def lamps(nib):
    """Lamps along the quay: a post, and a light on top of it."""
    nib.travel_to(-260, -90)
    nib.rectangle(520, 20, anchor="corner", fill="tan")
    for i in range(6):
        nib.travel_to(-230 + 90 * i, -70)
        nib.line_by(0, 110)
        nib.circle(9, fill="gold")
