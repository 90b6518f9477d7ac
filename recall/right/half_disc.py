from ovlo import drawing


@drawing
def half_moon(nib):
    nib.travel_to(80, 0)
    nib.left(90)
    with nib.area("slategray"):
        nib.arc_left(80, 180)
    nib.arc_left(80, 180)
