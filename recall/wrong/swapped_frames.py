from ovlo import drawing


def framed(nib, x, width, height, colour):
    nib.travel_to(x, 0)
    nib.rectangle(width + 16, height + 16, fill="saddlebrown")
    nib.rectangle(height, width, fill=colour)  # wrong (swapped-values): nib.rectangle(width, height, fill=colour)


@drawing(width=480, height=240, paper="mistyrose")
def gallery(nib):
    framed(nib, -150, 100, 120, "tomato")
    framed(nib, 0, 120, 90, "steelblue")
    framed(nib, 150, 80, 130, "gold")
