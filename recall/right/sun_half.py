from ovlo import drawing


@drawing(paper="mistyrose")
def sunrise(nib):
    nib.travel_to(0, -120)
    for _ in range(13):
        with nib.returning():
            nib.travel(80)
            nib.forward(60)
        nib.left(15)
    nib.turn_to(0)
    nib.travel(60)
    nib.left(90)
    nib.arc_left(60, 180)
