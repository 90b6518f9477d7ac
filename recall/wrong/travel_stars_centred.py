from ovlo import drawing


@drawing(paper="navy")
def stars(nib):
    nib.ink = "gold"
    nib.travel_to(-220, -100)
    for i in range(6):
        nib.star(5, 28)
        nib.line_by(85, 30 * (-1) ** i)  # wrong (stray-line): nib.travel_by(85, 30 * (-1) ** i)
