from ovlo import drawing


@drawing(paper="palegreen")
def field(nib):
    for _ in range(60):
        nib.travel_to(nib.dice.point(60))
        nib.polygon(nib.dice.integer(3, 6), radius=nib.dice.number(15, 55), fill=nib.dice.colour())
