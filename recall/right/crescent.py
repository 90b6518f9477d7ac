from ovlo import drawing


@drawing(paper="midnightblue")
def moon(nib):
    nib.travel_to(0, -100)
    with nib.area("lemonchiffon", outline=False):
        nib.arc_left(100, 180)
        nib.left(150)
        nib.line_to(0, -100)
