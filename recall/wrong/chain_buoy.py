from ovlo import drawing


def band(nib, low, high, colour):
    nib.travel_to(-30, low)
    nib.rectangle(60, high - low, anchor="corner", fill=colour)


@drawing(width=240, height=320)
def buoy(nib):
    band(nib, -120, -50, "crimson")
    band(nib, -50, 20, "white")
    band(nib, 35, 80, "crimson")  # wrong (broken-chain): band(nib, 20, 80, "crimson")
    band(nib, 80, 110, "white")
