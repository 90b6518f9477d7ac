from ovlo import drawing


def trail(nib, length, places=[]):  # wrong (shared-default): def trail(nib, length, places):
    places.append(nib.heading)
    nib.forward(length + len(places))


@drawing
def steps(nib):
    for _ in range(9):
        trail(nib, 20)  # wrong (shared-default): trail(nib, 20, [])
        nib.left(80)
