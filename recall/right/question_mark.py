from ovlo import drawing


@drawing
def why(nib):
    nib.line_width = 14
    nib.travel_to(-40, 60)
    nib.left(90)
    nib.arc_right(40, 220)
    nib.arc_left(40, 40)
    nib.forward(40)
    nib.travel(30)
    nib.circle(3, fill="black")
