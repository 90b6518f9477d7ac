from ovlo import drawing


@drawing
def shoe(nib):
    nib.line_width = 16
    nib.travel_to(-50, -80)
    nib.turn_to(100)
    nib.arc_right(70, 200)
