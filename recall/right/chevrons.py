from ovlo import drawing


@drawing
def chevrons(nib):
    for x in range(-240, 241, 60):
        nib.travel_to(x, -40)
        nib.line_by(30, 40)
        nib.line_by(-30, 40)
