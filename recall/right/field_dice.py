from ovlo import drawing


@drawing(paper="yellowgreen")
def picnic(nib):
    for x, y in nib.dice.scattered(25, min_distance=60, margin=50):
        nib.travel_to(x, y)
        nib.turn_to(nib.dice.number(0, 360))
        nib.rectangle(60, 40, fill=nib.dice.colour("pale"))
        for _ in range(3):
            with nib.returning():
                nib.travel_by(nib.dice.number(-20, 20), nib.dice.number(-12, 12))
                nib.circle(6, fill=nib.dice.colour("vivid"))
