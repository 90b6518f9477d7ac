from ovlo import drawing


def hut(nib, x, width, height):
    nib.travel_to(x, -80)
    nib.rectangle(width, height, anchor="corner", fill="tan")
    nib.travel_to(x + width / 2, -80 + height)
    nib.polygon(3, radius=width / 3, turn=90, fill="brown")


@drawing
def beach(nib):
    hut(nib, -280, 80, 70)
    hut(nib, -170, 100, 60)
    hut(nib, -170, 90, 90)  # wrong (lies-on-another): hut(nib, -40, 90, 90)
    hut(nib, 80, 70, 100)
    hut(nib, 190, 100, 80)
