from ovlo import drawing


@drawing(paper="darkgreen")
def net(nib):
    nib.ink = "darkgreen"  # wrong (no-contrast): nib.ink = "white"
    for x in range(-300, 301, 30):
        nib.travel_to(x, -200)
        nib.line_to(x + 20, 200)
