from ovlo import drawing


@drawing
def crossing(nib):
    nib.line_width = 8
    nib.travel_to(-150, 0)
    nib.forward(300)
    nib.travel_to(0, -150)
    nib.turn_to(90)
    with nib.styled(ink="white", line_width=18, line_cap="butt"):
        nib.forward(300)
    nib.travel(-300)
    nib.forward(300)
