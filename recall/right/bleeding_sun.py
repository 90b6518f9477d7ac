from ovlo import drawing


@drawing(paper="lightsalmon")
def corner_sun(nib):
    nib.travel_to(300, 220)
    nib.circle(120, fill="gold", outline=False)
    nib.travel_to(0, -200)
    nib.rectangle(700, 120, fill="steelblue", outline=False)
